import type { MatchedSelector } from '../cascade/indexedSelector.ts';
import { scriptOutline, type ScriptOutline } from '../scripts/pageScripts.ts';
import { wordsOfMaking } from '../survey/madeNames.ts';
import { neededNames, selectorsOf } from '../survey/selectorNames.ts';
import type { SheetMoves } from '../survey/sheetMoves.ts';
import type { PageMarks } from './pageMarks.ts';
import { parseSelectorList } from '../selectors/parseSelector.ts';
import type { Rule } from '../sheet/sheet.ts';
import type { ElementNode } from '../page/nodes.ts';
import { parseFile, type PageTree } from '../page/parsePage.ts';
import type { Check, CheckContext, CheckedPage, CheckedSheet, CheckedSite, CheckMaker } from './check.ts';
import { FindingGroup } from './findingGroup.ts';
import type { FoundFinding } from './finding.ts';
import { code, count, namesInWords, verb } from './words.ts';
import { matchesSomewhere, mayStandOn } from './matchesSomewhere.ts';

type Needed = readonly (readonly string[])[];

interface SheetRule {
  readonly selector: string;
  readonly start: number;
}

/** What a page tells of rules: which of them have an element at rest, and for the others whether one could have them in some state. */
interface PageUse {
  readonly page: string;
  readonly reached: ReadonlySet<string>;
  /** By sheet, where the rules start that some element has at rest. */
  readonly atRest: ReadonlyMap<string, Set<number>>;
  readonly marks: PageMarks;
  /** Its scripts: elements they make may have any name they say. */
  readonly scripts: ScriptOutline | undefined;
  /** By selector: what was found when the page was read again for it. */
  readonly known: Map<string, boolean>;
}

/** Rules of shared sheets that no element of any page has, in any state, nor one that a script may make. That a page does not use a rule is fine. */
export const unusedRules: CheckMaker = { kinds: ['unused-rule'], make: (context) => new UnusedRules(context) };

class UnusedRules implements Check {
  private readonly rules = new Map<string, SheetRule[]>();
  private readonly sheets: CheckedSheet[] = [];
  private readonly pages: PageUse[] = [];
  private atRest = new Map<string, Set<number>>();
  private readonly context: CheckContext;

  constructor(context: CheckContext) {
    this.context = context;
  }

  sheet(sheet: CheckedSheet): void {
    this.sheets.push(sheet);
    const own: SheetRule[] = [];
    const walk = (rules: readonly Rule[]): void => {
      for (const rule of rules) {
        if (rule.kind === 'style' && parseSelectorList(rule.selector) !== undefined)
          own.push({ selector: rule.selector, start: rule.span.start });
        else if (rule.kind === 'group') walk(rule.rules);
      }
    };
    walk(sheet.sheet.rules);
    this.rules.set(sheet.path, own);
  }

  page(page: CheckedPage): void {
    // rules that wait for a state, a layer or a scope count as used as soon as they may match
    const reached = new Set(page.cascade.rules.rules.map((r) => r.source.path));
    const { atRest } = this;
    const scripts = scriptOutline(page.tree, page.sources);
    this.pages.push({ page: page.path, reached, atRest, marks: page.marks, scripts, known: new Map() });
  }

  element(_page: CheckedPage, _element: ElementNode, matched: readonly MatchedSelector[]): void {
    for (const { indexed } of matched) {
      const { source, compiled } = indexed.rule;
      if (source.kind === 'embedded') continue;
      const starts = this.atRest.get(source.path);
      if (starts) starts.add(compiled.rule.span.start);
      else this.atRest.set(source.path, new Set([compiled.rule.span.start]));
    }
  }

  moved(sheets: ReadonlyMap<string, SheetMoves>): UnusedRules {
    const next = new UnusedRules(this.context);
    for (const page of this.pages) {
      const atRest = [...page.atRest].map(([path, starts]): [string, Set<number>] => {
        const moves = sheets.get(path);
        return [path, moves ? movedStarts(starts, moves) : starts];
      });
      next.pages.push({ ...page, atRest: new Map(atRest) });
    }
    return next;
  }

  merge(page: UnusedRules): void {
    this.pages.push(...page.pages);
  }

  private isUsed({ selector, start }: SheetRule, path: string): boolean {
    if (this.pages.some(({ atRest }) => atRest.get(path)?.has(start))) return true;
    const needed = (selectorsOf(selector) ?? []).map(neededNames);
    return this.pages.some((use) => use.reached.has(path) && this.mayUse(use, selector, needed));
  }

  /** `needed`: of each of its selectors, the names without which it matches nothing. */
  private mayUse({ page, marks, scripts, known }: PageUse, selector: string, needed: Needed): boolean {
    if (scripts && this.mayBeMade(scripts, marks, needed)) return true;
    if (!mayStandOn(selector, marks)) return false;
    let found = known.get(selector);
    if (found === undefined) {
      if (this.last?.path !== page) this.last = { path: page, tree: parseFile(this.context.site.files.get(page)!) };
      known.set(selector, (found = matchesSomewhere(this.last.tree, selector)));
    }
    return found;
  }

  private mayBeMade(scripts: ScriptOutline, marks: PageMarks, needed: Needed): boolean {
    const words = wordsOfMaking(scripts, this.context.site);
    if (words === undefined) return false;
    const names = this.lowerNames(marks);
    return needed.some((one) =>
      one.every((name) => names.has(name) || marks.tags.has(name) || words.has(name.replace(/^[.#]/, ''))),
    );
  }

  private lowerNames({ names }: PageMarks): ReadonlySet<string> {
    let lower = this.lower.get(names);
    if (!lower) this.lower.set(names, (lower = new Set([...names].map((name) => name.toLowerCase()))));
    return lower;
  }

  private readonly lower = new WeakMap<PageMarks['names'], ReadonlySet<string>>();

  /** The page read last. */
  private last: { readonly path: string; readonly tree: PageTree } | undefined;

  findings({ survey }: CheckedSite): readonly FoundFinding[] {
    return this.sheets.flatMap((sheet) => {
      const pages = survey.sheets.find((s) => s.path === sheet.path)?.pages ?? [];
      if (pages.length === 0) return [];
      const unused = this.rules.get(sheet.path)!.filter((rule) => !this.isUsed(rule, sheet.path));
      if (unused.length === 0) return [];
      const group = new FindingGroup(sheet.path).at(sheet, unused[0]!.start);
      for (const page of pages) group.page(page);
      const sentence = `${count(unused.length, 'rule')} of ${code(sheet.path)} ${verb(unused.length, 'have', 'has')} no element on any page: ${namesInWords(unused.map((r) => r.selector))}`;
      return [group.finding('unused-rule', sentence, { look: 'Open the sheet' })];
    });
  }
}

const movedStarts = (starts: ReadonlySet<number>, moves: SheetMoves): Set<number> =>
  new Set(
    [...starts].flatMap((start) => {
      const by = moves.by(start);
      return by === undefined ? [] : [start + by];
    }),
  );
