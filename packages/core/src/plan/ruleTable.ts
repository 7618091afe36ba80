import type { CompiledDeclaration } from '../cascade/compiledRule.ts';
import { compileBlock } from '../cascade/compileBlock.ts';
import { mayCompete, traitsOf, type Traits } from '../operations/gather/compete.ts';
import { parseSelectorList } from '../selectors/parseSelector.ts';
import { parseSheet } from '../sheet/parseSheet.ts';
import type { Site } from '../source/site.ts';
import { blockUnitsOf, type BlockUnit } from '../survey/blockUnits.ts';
import { readingOf, type PageReading } from '../survey/pageReading.ts';
import { madeNames } from '../survey/madeNames.ts';
import type { SomeNames } from '../survey/nameSet.ts';
import type { RuleBody } from '../survey/ruleBody.ts';
import { siteBase, type Base } from '../values/urls.ts';
import { isTakenAsNothing } from '../values/takenAsNothing.ts';
import { PageSet } from './pageSet.ts';

/** One version of a family, wherever it stands in blocks. */
export interface PlannedRule {
  readonly number: number;
  readonly family: string;
  readonly version: string;
  readonly label: string;
  readonly kind: BlockUnit['kind'];
  readonly traits: Traits;
  readonly declarations: readonly CompiledDeclaration[];
  /** What it selects cannot be told from its selector alone: nested rules, `@scope`. */
  readonly opaque: boolean;
  /** It says nothing: it holds no declaration, or no browser takes its selector for one. */
  readonly dead: boolean;
  /** Another selector may stand in place of its own: not in `@scope`, where selectors mean what is inside. */
  readonly markable: boolean;
  /** Of its declarations only those of these properties, where versions share the others. */
  readonly only?: readonly string[];
  readonly holders: PageSet;
}

export interface PlannedPage {
  readonly path: string;
  /** Rules in page order, each where it stands last. */
  readonly sequence: readonly number[];
  /** Types, classes and IDs of its elements: `p`, `.notice`, `#form`, in lower case. */
  readonly names: Pick<SomeNames, 'has'>;
  /** Names that elements may have which its scripts make, bare and in lower case; undefined where they make none. */
  readonly made: () => ReadonlySet<string> | undefined;
  /** For each of these, how many sources that may decide something with the page's rules stand before it. */
  readonly segments: readonly number[];
  /** These sources, in order. */
  readonly anchors: readonly Anchor[];
  /** Its blocks that can be moved, by their number among its sources. */
  readonly blocks: readonly number[];
}

/** A source that stays between the rules of a page: its number there, and its sheet where that can be read. */
export interface Anchor {
  readonly index: number;
  readonly sheet: string | undefined;
}

/** All rules that can be taken out of blocks, with their places on pages. */
export interface RuleTable {
  readonly rules: readonly PlannedRule[];
  readonly pages: readonly PlannedPage[];
  readonly hasSegments: boolean;
  /** Whether the order of a rule and a sheet that stays may decide something. */
  readonly competes: (sheet: string | undefined, rule: number) => boolean;
  /** What rules of a sheet say; undefined where that cannot be told. */
  readonly traitsOfSheet: (sheet: string) => readonly Traits[] | undefined;
}

/** `alsoNamed`: pages whose names are told though they hold no rule. */
export function readRuleTable(
  site: Site,
  paths: readonly string[],
  alsoNamed: ReadonlySet<string> = new Set(),
): RuleTable {
  return new TableReader(site, paths, alsoNamed).read();
}

class TableReader {
  private readonly rules: PlannedRule[] = [];
  private readonly numbers = new Map<string, number>();
  private readonly sheetTraits = new Map<string, readonly Traits[] | undefined>();
  private readonly competing = new Map<string, boolean>();
  private readonly site: Site;
  private readonly paths: readonly string[];
  private readonly alsoNamed: ReadonlySet<string>;

  constructor(site: Site, paths: readonly string[], alsoNamed: ReadonlySet<string>) {
    this.site = site;
    this.paths = paths;
    this.alsoNamed = alsoNamed;
  }

  read(): RuleTable {
    const pages = this.paths.map((path, number): PlannedPage => {
      const file = this.site.files.get(path);
      const page = file && (this.alsoNamed.has(path) || /<style/i.test(file.text ?? '')) ? readingOf(file) : undefined;
      return page
        ? this.page(page, number)
        : { path, sequence: [], names: new Set(), made: () => undefined, segments: [], anchors: [], blocks: [] };
    });
    return {
      rules: this.rules,
      pages,
      hasSegments: pages.some((page) => page.segments.some((s) => s > 0)),
      competes: (sheet, rule) => sheet === undefined || this.competes(sheet, rule),
      traitsOfSheet: (sheet) => this.traitsOfSheet(sheet),
    };
  }

  private page(page: PageReading, number: number): PlannedPage {
    const placed: { readonly rule: number; readonly sourceIndex: number }[] = [];
    const last = new Map<number, number>();
    for (const block of page.blocks) {
      if (block.stays !== undefined) continue;
      for (const unit of block.units) {
        const rule = this.numberOf(unit.rule);
        this.rules[rule]!.holders.add(number);
        last.set(rule, placed.length);
        placed.push({ rule, sourceIndex: block.sourceIndex });
      }
    }
    const kept = placed.filter(({ rule }, i) => last.get(rule) === i);
    const anchors = this.anchorsOf(page, [...last.keys()]);
    return {
      path: page.path,
      sequence: kept.map(({ rule }) => rule),
      names: page.names,
      made: () => madeNames(page, this.site),
      segments: kept.map(({ sourceIndex }) => anchors.filter(({ index }) => index < sourceIndex).length),
      anchors,
      blocks: page.blocks.filter((b) => b.stays === undefined).map((b) => b.sourceIndex),
    };
  }

  private numberOf(body: RuleBody): number {
    let number = this.numbers.get(body.key);
    if (number !== undefined) return number;
    number = this.rules.length;
    this.numbers.set(body.key, number);
    const { family, version, label, kind, declarations, nests } = body;
    const inScope = body.groups.some((group) => group.name === 'scope');
    const traits = traitsOf({ key: '', kind, label, declarations, nests });
    const holders = PageSet.empty(this.paths.length);
    this.rules.push({
      number,
      family,
      version,
      label,
      kind,
      traits,
      declarations,
      opaque: nests || inScope,
      markable: !inScope,
      dead: isDead(body),
      holders,
    });
    return number;
  }

  /** The sources that stay between the page's rules and may decide something with them, by their index. */
  private anchorsOf({ blocks, sources }: PageReading, rules: readonly number[]): readonly Anchor[] {
    const movable = new Set(blocks.filter((b) => b.stays === undefined).map((b) => b.sourceIndex));
    return sources.flatMap((source, index) => {
      if (movable.has(index) || source.idle !== undefined) return [];
      // of a sheet elsewhere that is nothing to elements, fonts may still be defined
      const isNothing = source.kind === 'linked' && isTakenAsNothing(this.site, source.target);
      if (isNothing && (source.target.kind === 'site' || !rules.some((rule) => this.rules[rule]!.kind !== 'rule')))
        return [];
      if (source.kind === 'embedded' || source.target.kind !== 'site') return [{ index, sheet: undefined }];
      const { path } = source.target;
      if (!rules.some((rule) => this.competes(path, rule))) return [];
      return [{ index, sheet: this.traitsOfSheet(path) && path }];
    });
  }

  private competes(path: string, rule: number): boolean {
    const key = `${rule} ${path}`;
    let known = this.competing.get(key);
    if (known === undefined) {
      const theirs = this.traitsOfSheet(path);
      known = theirs === undefined || theirs.some((traits) => mayCompete(traits, this.rules[rule]!.traits));
      this.competing.set(key, known);
    }
    return known;
  }

  /** Undefined where the sheet cannot be read or brings in others. */
  private traitsOfSheet(path: string): readonly Traits[] | undefined {
    if (this.sheetTraits.has(path)) return this.sheetTraits.get(path);
    const text = this.site.files.get(path)?.text;
    const sheet = text === undefined ? undefined : parseSheet(text);
    const plain =
      sheet?.rules.every((rule) => rule.kind !== 'import' && (rule.kind !== 'statement' || rule.name === 'charset')) ??
      false;
    const base = siteBase(path);
    const traits = plain ? blockUnitsOf(sheet!, base).map((unit) => traitsOfUnit(unit, base)) : undefined;
    this.sheetTraits.set(path, traits);
    return traits;
  }
}

/** Empty, or behind a `//`, which begins no comment in a sheet. */
const isDead = ({ kind, label, declarations, nests }: RuleBody): boolean =>
  kind === 'rule' && !nests && (declarations.length === 0 || (label.startsWith('//') && !parseSelectorList(label)));

function traitsOfUnit(unit: BlockUnit, base: Base): Traits {
  const { declarations } = compileBlock(unit.declarations, { base, fingerprint: undefined });
  return traitsOf({ key: '', kind: unit.kind, label: unit.label, declarations, nests: unit.nests });
}
