import { mayFlip, type Subject, type Traits } from '../../operations/gather/compete.ts';
import type { Specificity } from '../../selectors/selector.ts';
import type { Site } from '../../source/site.ts';
import type { PageReading } from '../../survey/pageReading.ts';
import { isTakenAsNothing } from '../../values/takenAsNothing.ts';
import type { PageSet } from '../pageSet.ts';
import type { RuleTable } from '../ruleTable.ts';
import { addedSpecificity, markedSelector, topNames } from './markedSelector.ts';
import { Meetings } from './meetings.ts';
import type { OneSheetOptions } from './oneSheetOptions.ts';
import type { ScopedRule } from './scopeRules.ts';

interface Input {
  readonly site: Site;
  readonly table: RuleTable;
  readonly rules: readonly ScopedRule[];
  readonly order: readonly number[];
  readonly readings: readonly (PageReading | undefined)[];
  readonly options: OneSheetOptions;
}

interface Selectors {
  /** By rule, the selector in place of its own. */
  readonly selectors: ReadonlyMap<number, string>;
  /** Rules that could be written with `:where()` only, where that is not wanted. */
  readonly stuck: readonly number[];
}

const none: Specificity = [0, 0, 0];

/**
 * Selectors that ask for the pages' marks: as a plain ancestor where the greater specificity makes no rule win that did not, else
 * in `:where()`, which adds none.
 */
export function writeSelectors(input: Input): Selectors {
  const { site, table, rules, order, readings, options } = input;
  const names = topNames(readings);
  const place = new Map(order.map((rule, at) => [rule, at]));
  const raises: Specificity[] = rules.map(() => none);
  const selectors = new Map<number, string>();
  const stuck: number[] = [];
  // what scripts make may be meant by rules that meet on no element now
  const strict = new Set(
    table.pages.flatMap(({ path, made }, page) => (options.strict?.has(path) || made() ? [page] : [])),
  );
  const meetings = new Meetings(table.pages.map(({ path }) => site.files.get(path)!));
  const fixed = new FixedRules(input, meetings);
  for (const number of order) {
    const { rule, condition, reaches } = rules[number]!;
    if (!condition) continue;
    const plain = markedSelector(rule.label, condition, names, false)!;
    const raise = addedSpecificity(rule.label, plain);
    const turns = (other: ScopedRule, i: number): boolean =>
      i !== number &&
      other.reaches.meets(reaches) &&
      mayFlip(rule.traits, other.rule.traits, raise!, raises[i]!, place.get(number)! < place.get(i)!, (a, b) =>
        meetings.has(a, b),
      );
    const isPlain =
      raise !== undefined &&
      !rule.opaque &&
      ![...reaches].some((page) => strict.has(page)) &&
      !fixed.turn(rule.traits, reaches, raise) &&
      !rules.some(turns);
    if (isPlain) raises[number] = raise;
    else if (options.oldBrowsers) stuck.push(number);
    selectors.set(number, isPlain ? plain : markedSelector(rule.label, condition, names, true)!);
  }
  return { selectors, stuck };
}

/** What sheets that stay say on the pages. */
class FixedRules {
  private readonly sheets = new Map<number, readonly (readonly Traits[] | undefined)[]>();
  private readonly input: Input;
  private readonly meetings: Meetings;

  constructor(input: Input, meetings: Meetings) {
    this.input = input;
    this.meetings = meetings;
  }

  /** Whether a rule may come to beat one of theirs. An unread sheet may say anything. */
  turn(traits: Traits, pages: PageSet, raise: Specificity): boolean {
    const meet = (a: Subject, b: Subject): boolean => this.meetings.has(a, b);
    for (const page of pages)
      for (const theirs of this.of(page))
        if (
          theirs === undefined ||
          theirs.some(
            (one) => mayFlip(traits, one, raise, none, true, meet) || mayFlip(traits, one, raise, none, false, meet),
          )
        )
          return true;
    return false;
  }

  private of(page: number): readonly (readonly Traits[] | undefined)[] {
    let sheets = this.sheets.get(page);
    if (sheets) return sheets;
    const reading = this.input.readings[page];
    const moving = new Set(reading?.blocks.filter(({ stays }) => stays === undefined).map((b) => b.sourceIndex));
    sheets = (reading?.sources ?? []).flatMap((source, index) => {
      if (moving.has(index) || source.idle !== undefined) return [];
      if (source.kind === 'linked' && isTakenAsNothing(this.input.site, source.target)) return [];
      if (source.kind === 'embedded' || source.target.kind !== 'site') return [undefined];
      return [this.input.table.traitsOfSheet(source.target.path)];
    });
    this.sheets.set(page, sheets);
    return sheets;
  }
}
