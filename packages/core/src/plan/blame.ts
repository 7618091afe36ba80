import type { GatherPlan, RuleChoice } from '../operations/gatherRules.ts';
import { parsePage } from '../page/parsePage.ts';
import type { Cause, PageProof } from '../proof/proof.ts';
import type { Site } from '../source/site.ts';
import { embeddedBlocks } from '../survey/blockUnits.ts';

type Choice = Required<RuleChoice>;

export interface BlamedRule {
  readonly choice: Choice;
  readonly label: string;
  readonly page: string;
  readonly reason: string;
}

/** What must leave the shared sheet: rules everywhere, or all rules of a page. */
export interface Verdict {
  readonly rules: readonly BlamedRule[];
  readonly pages: ReadonlyMap<string, string>;
}

/**
 * What to leave out of a shared sheet so that the differing pages may look the same. A rule is left out where that
 * costs fewer moved rules than leaving out the pages it harms; a page none of whose suspects goes is left out itself. `onlyPages` leaves the pages out at once.
 */
export function blame(differing: readonly PageProof[], plan: GatherPlan, site: Site, onlyPages: boolean): Verdict {
  const spread = spreadOf(site, plan);
  const suspected = new Map<string, { readonly rule: BlamedRule; readonly harmed: Set<string> }>();
  const hopeless = differing.filter((page) => onlyPages || foreign(page, plan));
  for (const page of differing) {
    if (hopeless.includes(page)) continue;
    for (const cause of page.causes)
      for (const choice of suspects(cause, plan, spread, page.path)) {
        const rule = { choice, label: lastLabel(choice.family), page: page.path, reason: cause.reason };
        const known = suspected.get(keyOf(choice)) ?? { rule, harmed: new Set() };
        known.harmed.add(page.path);
        suspected.set(keyOf(choice), known);
      }
  }
  // what leaving out the harmed pages would cost, shared among the rules suspected there
  const suspectsOn = (page: string): number => [...suspected.values()].filter(({ harmed }) => harmed.has(page)).length;
  const costOf = new Map(differing.map(({ path }) => [path, pageCost(spread, path) / Math.max(1, suspectsOn(path))]));
  const leaving = [...suspected]
    .filter(
      ([key, { harmed }]) =>
        [...harmed].reduce((sum, page) => sum + costOf.get(page)!, 0) >= (spread.get(key)?.size ?? 0),
    )
    .map(([, suspect]) => suspect);
  const helped = new Set(leaving.flatMap(({ harmed }) => [...harmed]));
  const pages = differing.filter((page) => !helped.has(page.path)).map((page) => [page.path, reasonOf(page)] as const);
  return { rules: leaving.map(({ rule }) => rule), pages: new Map(pages) };
}

/** How many gathered rules stand on a page. */
const pageCost = (spread: ReadonlyMap<string, ReadonlySet<string>>, page: string): number =>
  [...spread.values()].filter((holders) => holders.has(page)).length;

const reasonOf = (page: PageProof): string =>
  page.causes[0]?.reason ?? page.notes[0] ?? 'The page would look different.';

/** A rule the sheet held before reaches a page that did not link it: no rule left out can help. */
const foreign = (page: PageProof, plan: GatherPlan): boolean =>
  !plan.pages.includes(page.path) ||
  page.causes.some(
    (c) => c.after?.place?.path === plan.sheet && !plan.moved.some((m) => mentions(m.family, c.after!.selector ?? '')),
  );

function suspects(
  cause: Cause,
  plan: GatherPlan,
  spread: ReadonlyMap<string, ReadonlySet<string>>,
  page: string,
): readonly Choice[] {
  const selectors = [cause.after?.selector, cause.before?.selector].filter((s) => s !== undefined);
  const named = plan.moved.filter(
    (m) => selectors.some((s) => mentions(m.family, s)) || cause.reason.includes(`\`${lastLabel(m.family)}\``),
  );
  // of the versions of one family the most widespread one may stay, unless it is alone
  const rarer = named.filter((m) =>
    named.some(
      (other) =>
        other.family === m.family &&
        other !== m &&
        count(spread, other) >= count(spread, m) &&
        other.version !== m.version,
    ),
  );
  if (rarer.length > 0) return rarer;
  const leaks = named.filter((m) => !spread.get(keyOf(m))?.has(page));
  if (leaks.length > 0) return leaks;
  const fewest = Math.min(...named.map((m) => count(spread, m)));
  return named.filter((m) => count(spread, m) === fewest);
}

const keyOf = (choice: Choice): string => `${choice.family}\n${choice.version}`;

const count = (spread: ReadonlyMap<string, ReadonlySet<string>>, choice: Choice): number =>
  spread.get(keyOf(choice))?.size ?? 0;

const lastLabel = (family: string): string => family.split(' { ').at(-1)!;

const mentions = (family: string, selector: string): boolean =>
  selector !== '' &&
  lastLabel(family)
    .split(',')
    .some((part) => part.trim() === selector.trim());

/** On which pages each gathered version stands. */
function spreadOf(site: Site, plan: GatherPlan): ReadonlyMap<string, ReadonlySet<string>> {
  const moved = new Set(plan.moved.map(keyOf));
  const out = new Map<string, Set<string>>();
  for (const path of plan.pages) {
    for (const block of embeddedBlocks(parsePage(site.files.get(path)!.text!), path))
      for (const unit of block.units) {
        const key = keyOf(unit);
        if (!moved.has(key)) continue;
        let set = out.get(key);
        if (!set) out.set(key, (set = new Set()));
        set.add(path);
      }
  }
  return out;
}
