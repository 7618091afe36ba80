import type { GatherSheet } from '../operations/gather/gatherSheet.ts';
import { canFollow, type FollowRule } from '../operations/gather/followRule.ts';
import type { SettleAttributes } from '../operations/gather/settleAttributes.ts';
import type { SettleDrift } from '../operations/gather/settleDrift.ts';
import { applyOperations } from '../operations/operation.ts';
import type { Site } from '../source/site.ts';
import type { OneSheetOptions } from './oneSheet/oneSheetOptions.ts';
import { planOneSheet } from './oneSheet/planOneSheet.ts';
import { readRuleTable, type PlannedRule } from './ruleTable.ts';

/**
 * A change of look on purpose that makes the sheet of a plan simpler: the pages of one version of a rule take the common one, pages
 * that lack rules take them as the others have them, or style attributes that differ by a number a little say the same.
 */
export interface Trade {
  readonly operation: (SettleDrift | FollowRule | SettleAttributes) & { readonly pages: readonly string[] };
  /** The rule, the first of them and how many more, or the type of the elements. */
  readonly label: string;
  /** Pages that would look different. */
  readonly pages: readonly string[];
  /** Pages that say it already, or so many that have the rules. */
  readonly others: number;
  /** Properties in which the versions differ, or that the rules say. */
  readonly properties: readonly string[];
  /** So many fewer. */
  readonly saves: { readonly marks: number; readonly rules: number; readonly declarations: number };
  /** Of style attributes: the values that give way, the one they take, and how many elements that changes. */
  readonly scale?: { readonly from: readonly string[]; readonly to: string; readonly elements: number };
}

/** So many drifted versions are looked into, those of the fewest pages first. */
const mostTried = 24;
/** A site with more pages than these is not planned again for each. */
export const mostPages = 400;

/** Trades that save something, the most worth first. Made without a proof: each is proved once it is taken. */
export function tradesOf(
  site: Site,
  plan: GatherSheet,
  options: Omit<OneSheetOptions, 'pages' | 'sheet'> = {},
): readonly Trade[] {
  if (plan.pages.length > mostPages) return [];
  const wanted = { ...options, sheet: plan.sheet, pages: plan.pages };
  const cost = costOf(plan);
  const settling: readonly Trade[] = drifted(site, plan.pages)
    .slice(0, mostTried)
    .flatMap(({ rule, common, pages }): readonly Trade[] => {
      const operation = {
        kind: 'settle-drift',
        family: rule.family,
        version: common.version,
        from: [rule.version],
        pages,
      } as const;
      const after = planOneSheet(site, {
        ...wanted,
        instead: { family: rule.family, from: rule.version, version: common.version },
      });
      if (!after) return [];
      const then = costOf(after);
      const saves = {
        marks: cost.marks - then.marks,
        rules: cost.rules - then.rules,
        declarations: declarationsIn(rule),
      };
      if (saves.marks < 0 || saves.rules <= 0) return [];
      const others = common.holders.size;
      return [{ operation, label: rule.label, pages, others, properties: differing(rule, common), saves }];
    });
  return [...settling, ...following(site, plan, wanted)].sort(byWorth);
}

/** What saves most first; of equal ones what shows on fewer pages. */
export const byWorth = (a: Trade, b: Trade): number =>
  b.saves.marks - a.saves.marks || b.saves.rules - a.saves.rules || a.pages.length - b.pages.length;

const costOf = ({ marks = [], rules }: GatherSheet): { readonly marks: number; readonly rules: number } => ({
  marks: marks.length,
  rules: rules.filter(({ only, dead }) => !dead && only?.length !== 0).length,
});

/** Pages that got a class only because they lack rules the others have. */
function following(site: Site, plan: GatherSheet, wanted: OneSheetOptions): readonly Trade[] {
  const cost = costOf(plan);
  const table = readRuleTable(site, plan.pages);
  return (plan.marks ?? []).flatMap(({ name, pages }): readonly Trade[] => {
    const asking = plan.rules.filter(({ selector }) => asksFor(selector, name));
    const lacking = asking.filter(({ selector }) => selector!.includes(`:not(.${name})`));
    if (lacking.length === 0 || lacking.length < asking.length || !pages.every((page) => canFollow(site, page)))
      return [];
    const rules = lacking.map(({ family, version }) => ({ family, version }));
    const operation: FollowRule = { kind: 'follow-rule', rules, pages };
    const taken = applyOperations(site, [operation]);
    const after = taken.ok
      ? planOneSheet(taken.value.site, { ...wanted, pages: [...new Set([...wanted.pages, ...pages])] })
      : undefined;
    if (!after) return [];
    const then = costOf(after);
    const saves = { marks: cost.marks - then.marks, rules: Math.max(cost.rules - then.rules, 0), declarations: 0 };
    if (saves.marks <= 0 || then.rules > cost.rules) return [];
    const planned = rules.map((one) =>
      table.rules.find((rule) => rule.family === one.family && rule.version === one.version)!,
    );
    const label = planned.length === 1 ? planned[0]!.label : `${planned[0]!.label} and ${planned.length - 1} more`;
    const properties = [
      ...new Set(planned.flatMap(({ declarations }) => declarations.map(({ declaration }) => declaration.property))),
    ];
    return [
      { operation, label, pages, others: Math.max(...planned.map(({ holders }) => holders.size)), properties, saves },
    ];
  });
}

const asksFor = (selector: string | undefined, name: string): boolean =>
  selector !== undefined && new RegExp(`\\.${name}(?![\\w-])`).test(selector);

interface Drifted {
  readonly rule: PlannedRule;
  readonly common: PlannedRule;
  readonly pages: readonly string[];
}

/** Versions on fewer pages than the common one of their family. */
function drifted(site: Site, paths: readonly string[]): readonly Drifted[] {
  const table = readRuleTable(site, paths);
  const families = new Map<string, PlannedRule[]>();
  for (const rule of table.rules) {
    if (rule.kind !== 'rule' || rule.dead) continue;
    const list = families.get(rule.family);
    if (list) list.push(rule);
    else families.set(rule.family, [rule]);
  }
  const out = [...families.values()].flatMap((versions): readonly Drifted[] => {
    const [common, ...rare] = [...versions].sort((a, b) => b.holders.size - a.holders.size);
    return rare
      .filter(({ holders }) => holders.size < common!.holders.size)
      .map((rule) => ({ rule, common: common!, pages: [...rule.holders].map((page) => paths[page]!) }));
  });
  return out.sort((a, b) => a.pages.length - b.pages.length);
}

const declarationsIn = ({ declarations }: PlannedRule): number => declarations.length;

function differing(one: PlannedRule, other: PlannedRule): readonly string[] {
  const said = ({ declarations }: PlannedRule): Map<string, string> =>
    new Map(
      declarations.map(({ declaration, comparable }) => [
        declaration.property,
        `${comparable} ${declaration.important}`,
      ]),
    );
  const [mine, theirs] = [said(one), said(other)];
  return [...new Set([...mine.keys(), ...theirs.keys()])].filter((name) => mine.get(name) !== theirs.get(name));
}
