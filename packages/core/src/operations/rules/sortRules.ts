import { trimmed } from '../../source/space.ts';
import { Type } from '@sinclair/typebox';
import { compileBlock } from '../../cascade/compileBlock.ts';
import { parseSelectorList } from '../../selectors/parseSelector.ts';
import type { Rule, Sheet, StyleRule } from '../../sheet/sheet.ts';
import { fail, succeed } from '../../source/result.ts';
import type { Edit, Span } from '../../source/span.ts';
import { siteBase } from '../../values/urls.ts';
import { mayCompete, traitsOf, type Traits } from '../gather/compete.ts';
import { closed, fields, operationType } from '../operationType.ts';
import { editableSheet, ruleProblems, type RuleProblem } from './ruleRef.ts';
import { withLead } from './sheetRules.ts';

/**
 * Rules of a sheet in the order people look for them: the page, elements as they come in one, IDs, classes by name. Two that may decide the
 * same keep their order. At-rules, and comments that belong to no rule, part a sheet into sections; rules stay in theirs.
 */
export interface SortRules {
  readonly kind: 'sort-rules';
  readonly sheet: string;
}

export type SortRulesProblem = RuleProblem | { readonly kind: 'sorted-already'; readonly sheet: string };

export const sortRules = operationType<SortRules, SortRulesProblem>()({
  kind: 'sort-rules',
  schema: Type.Object({ kind: Type.Literal('sort-rules'), sheet: fields.sheet }, closed),
  plan(site, { sheet: path }) {
    const opened = editableSheet(site, path);
    if (!opened.ok) return opened;
    const { file, text, sheet } = opened.value;
    const edits = sectionsOf(text, sheet).flatMap((section) => sortedSection(text, path, section));
    if (edits.length === 0) return fail({ kind: 'sorted-already', sheet: path });
    const changes = { created: [], edited: [{ path, hash: file.hash, edits }], deleted: [] };
    return succeed({ changes, sentence: `Sort the rules of ${path} where their order decides nothing` });
  },
  problems: {
    ...ruleProblems,
    'sorted-already': ({ sheet }) => `The rules of ${sheet} stand in order, as far as their order decides nothing.`,
  },
});

/** A rule with its comments. */
interface Piece {
  readonly rule: StyleRule;
  readonly span: Span;
}

/** Rules that follow each other with nothing but white space between them and their comments. */
function sectionsOf(text: string, sheet: Sheet): readonly (readonly Piece[])[] {
  const out: Piece[][] = [];
  const walk = (rules: readonly Rule[]): void => {
    let section: Piece[] = [];
    for (const rule of rules) {
      if (rule.kind === 'group') walk(rule.rules);
      if (rule.kind !== 'style' || !rule.closed) {
        section = [];
        continue;
      }
      const span = withLead(text, sheet, rule);
      const last = section.at(-1);
      if (!last || trimmed(text.slice(last.span.end, span.start)) !== '') out.push((section = []));
      section.push({ rule, span });
    }
  };
  walk(sheet.rules);
  return out;
}

/** Each place takes the text of the rule that comes to stand there; what is between the places stays. */
function sortedSection(text: string, path: string, pieces: readonly Piece[]): readonly Edit[] {
  const order = sortedOrder(
    pieces.map(({ rule }) => rule),
    path,
  );
  return pieces.flatMap(({ span }, i): readonly Edit[] => {
    const { span: from } = pieces[order[i]!]!;
    return order[i] === i ? [] : [{ span, text: text.slice(from.start, from.end) }];
  });
}

/** Always the first by name of those that nothing still to come has to stand before. */
function sortedOrder(rules: readonly StyleRule[], path: string): readonly number[] {
  const traits = rules.map((rule) => traitsIn(rule, path));
  const keys = rules.map(({ selector }) => sortKey(selector));
  const waiting = rules.map((_, i) => i).sort((a, b) => (keys[a]! < keys[b]! ? -1 : keys[a]! > keys[b]! ? 1 : a - b));
  const behind = rules.map((_, i) => traits.slice(0, i).flatMap((one, k) => (mayCompete(one, traits[i]!) ? [k] : [])));
  const out: number[] = [];
  const placed = new Set<number>();
  while (waiting.length > 0) {
    const next = waiting.findIndex((i) => behind[i]!.every((k) => placed.has(k)));
    const [i] = waiting.splice(next, 1);
    placed.add(i!);
    out.push(i!);
  }
  return out;
}

function traitsIn(rule: StyleRule, path: string): Traits {
  const { declarations } = compileBlock(rule.declarations, { base: siteBase(path), fingerprint: () => '' });
  // what no browser here reads may be read elsewhere, and reach anything
  const nests = rule.nested.length > 0 || parseSelectorList(rule.selector) === undefined;
  return traitsOf({ key: '', kind: 'rule', label: rule.selector, declarations, nests });
}

/** Elements in the order they come in a page. */
const elementOrder =
  'html body header h1 h2 h3 h4 h5 h6 hgroup nav main article section aside div p blockquote pre address ul ol menu li dl dt dd table caption colgroup col thead tbody tfoot tr th td figure figcaption img picture video audio object iframe a em strong b i small code kbd samp q cite sub sup span abbr form fieldset legend label input button select option textarea details summary hr br footer'.split(
    ' ',
  );

function sortKey(selector: string): string {
  const simples = parseSelectorList(selector)?.[0]?.compounds.flatMap((compound) => compound.simples) ?? [];
  const first = simples.find(({ kind }) => kind === 'type' || kind === 'class' || kind === 'id');
  const root = selector.startsWith(':root') ? 0 : 1;
  if (first?.kind === 'type') {
    const at = elementOrder.indexOf(first.lower);
    return `${root}a${String(at < 0 ? 999 : at).padStart(3, '0')} ${first.lower}`;
  }
  if (first?.kind === 'id') return `${root}b${first.name.toLowerCase()}`;
  return first?.kind === 'class' ? `${root}c${first.name.toLowerCase()}` : `${root}a`;
}
