import { compileBlock } from '../cascade/compileBlock.ts';
import type { CompiledDeclaration } from '../cascade/compiledRule.ts';
import type { Declaration } from '../sheet/sheet.ts';
import { folderOf } from '../source/sitePath.ts';
import type { Base } from '../values/urls.ts';
import type { BlockUnit, Group } from './blockUnits.ts';

/** What a rule of a block says, without where it stands: one for all rules that are written alike under the same conditions. */
export interface RuleBody {
  readonly kind: BlockUnit['kind'];
  readonly label: string;
  readonly groups: readonly Group[];
  readonly family: string;
  readonly version: string;
  /** Family and version: rules of one key become one in a sheet. */
  readonly key: string;
  readonly nests: boolean;
  readonly rules: number;
  readonly classes: readonly string[];
  /** Their places are those of the first rule that was written so. */
  readonly declarations: readonly CompiledDeclaration[];
}

const bodies = new Map<string, RuleBody>();
/** So many are kept: a site holds few that differ. */
const mostKept = 50_000;

export function ruleBody(
  unit: Pick<BlockUnit, 'kind' | 'label' | 'groups' | 'family' | 'version' | 'nests' | 'rules' | 'classes'> & {
    readonly declarations: readonly Declaration[];
  },
  text: string,
  base: Base,
): RuleBody {
  const { kind, label, groups, family, version, nests, rules, classes } = unit;
  const known = `${base.kind === 'site' ? folderOf(base.path) : base.url}\n${family}\n${version}\n${text}`;
  let body = bodies.get(known);
  if (!body) {
    if (bodies.size >= mostKept) bodies.clear();
    const { declarations } = compileBlock(unit.declarations, { base, fingerprint: undefined });
    body = { kind, label, groups, family, version, key: `${family}\n${version}`, nests, rules, classes, declarations };
    bodies.set(known, body);
  }
  return body;
}
