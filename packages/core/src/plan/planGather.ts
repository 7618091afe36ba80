import { applyPlan } from '../operations/readings.ts';
import { planGatherBlocks, type GatherBlocks } from '../operations/gather/gatherBlocks.ts';
import { planGatherRules, type GatherRules } from '../operations/gather/gatherRules.ts';
import { planGatherSheet, type GatherSheet } from '../operations/gather/gatherSheet.ts';
import type { OperationProblem } from '../operations/operation.ts';
import { parseSheetPath } from '../operations/sheetPath.ts';
import { SheetNames } from '../operations/gather/sheetNames.ts';
import type { Proof } from '../proof/proof.ts';
import { SiteProver } from '../proof/siteProver.ts';
import { fail, succeed, type Result } from '../source/result.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { folderOf } from '../source/sitePath.ts';
import { describeApart } from './describeApart.ts';
import type { OneSheetOptions } from './oneSheet/oneSheetOptions.ts';
import { planOneSheet } from './oneSheet/planOneSheet.ts';
import { mostSingles, partition, type Partition, type SheetPart, type SinglePage } from './partition.ts';
import { makeRuleGraph, type RuleGraph } from './ruleGraph.ts';
import { reachOfRules } from './ruleReach.ts';
import { readRuleTable, type PlannedRule, type RuleTable } from './ruleTable.ts';

export interface PlanOptions {
  /** Pages to take from; all when absent. */
  readonly pages?: readonly string[];
  /**
   * What one page has and no other: to a shared sheet where it reaches nothing else, and otherwise to its own (`shared`, the
   * default); to its own sheet; or it stays.
   */
  readonly singlePage?: SinglePage;
  /** At most so many sheets; what would need more stays in its pages. */
  readonly maxSheets?: number;
  /** One new sheet, whose rules ask for classes of the pages they are for (the default); or as many as need no such class. */
  readonly sheets?: 'one' | 'own';
  /** Style attributes stay on their elements. */
  readonly keepAttributes?: boolean;
  /** For browsers without `:where()`: a rule that would need it stays in its block, and goes with it. */
  readonly oldBrowsers?: boolean;
  readonly onRound?: (round: number, proof: Proof) => void;
}

/** One sheet of the plan. */
export interface PlannedSheet {
  readonly path: string;
  readonly rules: number;
  readonly pages: readonly string[];
  /** Why it is a sheet of its own, in words; undefined for the widest. */
  readonly why: string | undefined;
}

export type GatherOperation = GatherSheet | GatherRules | GatherBlocks;

export interface LookKeepingPlan {
  /** In order; each is planned on what the ones before it leave. Empty when nothing can be gathered. */
  readonly operations: readonly GatherOperation[];
  readonly sheets: readonly PlannedSheet[];
  readonly site: Site;
  /** Of the site as it was against the site after all operations, by their bytes. Always `same`. */
  readonly proof: Proof;
  /** Pages that could not take part, and why. */
  readonly exclusions: readonly { readonly page: string; readonly reason: string }[];
}

const mostRounds = 8;

/** What becomes of a page that would look different: first the sheet is made so that nothing else can reach it, then without a class of it. */
const carefulSteps = ['sharing', 'strict', 'unmarked', 'apart', 'untouched'] as const;
type CarefulStep = (typeof carefulSteps)[number];

/**
 * Takes embedded rules out of pages with no visible change, into as few sheets as keep the look.
 *
 * The partition reasons about orders, leaks and what stays between; the proof, on the bytes that would be written, does not
 * believe it: a page that differs leaves the shared plan and gets its blocks as sheets of their own, in their place. `prover`: of
 * the site to look like, when `site` was changed before.
 */
export function planLookKeepingGather(
  site: Site,
  sheet: string,
  options: PlanOptions = {},
  prover = new SiteProver(site),
): Result<LookKeepingPlan, OperationProblem> {
  const path = parseSheetPath(sheet, site);
  if (!path.ok) return fail({ kind: 'sheet-path', path: path.problem });
  const all = options.pages ?? pagesOf(site).map((page) => page.path);
  const steps: readonly CarefulStep[] = options.sheets === 'own' ? ['sharing', 'apart', 'untouched'] : carefulSteps;
  /** How carefully each page that differed is treated now. */
  const careful = new Map<string, { step: CarefulStep; reason: string }>();
  const at = (page: string): CarefulStep => careful.get(page)?.step ?? 'sharing';
  for (let round = 1; round <= mostRounds; round++) {
    const pages: AttemptPages = {
      sharing: all.filter((page) => at(page) !== 'apart' && at(page) !== 'untouched'),
      whole: all.filter((page) => at(page) !== 'untouched'),
      strict: new Set(all.filter((page) => at(page) === 'strict' || at(page) === 'unmarked')),
      unmarkable: new Set(all.filter((page) => at(page) === 'unmarked')),
    };
    const tried = attempt(site, path.value, pages, options);
    // the whole site: a broken link elsewhere might ask for a sheet that comes to be
    const proof = prover.prove(tried.site);
    const differing = proof.pages.filter((page) => page.verdict !== 'same');
    options.onRound?.(round, proof);
    if (differing.length === 0) {
      const exclusions = [...careful].filter(([, { step }]) => step === 'apart' || step === 'untouched').map(([page, { reason }]) => ({ page, reason })); // prettier-ignore
      return succeed({ ...tried, sheets: tried.sheets.map((one) => withReason(one, careful)), proof, exclusions });
    }
    for (const page of differing) {
      const reason =
        page.causes[0]?.reason ?? page.notes[0] ?? page.doubts[0]?.sentence ?? 'The page would look different.';
      const isDoubt = page.causes.length === 0 && page.notes.length === 0;
      const next = nextStep(steps, at(page.path), isDoubt);
      careful.set(page.path, { step: round >= mostRounds - 1 ? 'untouched' : next, reason });
    }
  }
  return succeed({ operations: [], sheets: [], site, proof: prover.prove(site), exclusions: [] });
}

/** Why the blocks of a page went as they stand. */
function withReason(sheet: PlannedSheet, careful: ReadonlyMap<string, { readonly reason: string }>): PlannedSheet {
  const reason = sheet.why === undefined ? undefined : careful.get(sheet.pages[0]!)?.reason;
  return reason === undefined ? sheet : { ...sheet, why: reason };
}

/** What scripts may notice is the class, or the sheets: making sure of the rules changes nothing of that. */
const nextStep = (steps: readonly CarefulStep[], at: CarefulStep, isDoubt: boolean): CarefulStep =>
  isDoubt && at === 'sharing' && steps.includes('unmarked')
    ? 'unmarked'
    : (steps[steps.indexOf(at) + 1] ?? 'untouched');

export interface Attempt extends Pick<LookKeepingPlan, 'operations' | 'sheets' | 'site'> {
  /** Pages that have style attributes and no rule of the sheet would look different with it. */
  readonly attributesApart?: boolean;
}

/** Which pages share sheets, which may give up whole blocks; which are to be reached by their own rules only, and which get no class. */
export interface AttemptPages {
  readonly sharing: readonly string[];
  readonly whole: readonly string[];
  readonly strict?: ReadonlySet<string>;
  readonly unmarkable?: ReadonlySet<string>;
}

/** What the rules alone tell of a plan; not proved. */
export function attempt(site: Site, shared: string, pages: AttemptPages, options: PlanOptions): Attempt {
  const single = options.singlePage ?? 'shared';
  const made = options.sheets === 'own' ? ownSheets(site, shared, pages.sharing, options) : oneSheet(site, shared, pages, options); // prettier-ignore
  const { whole } = pages;
  const operations: GatherOperation[] = [...made.operations];
  const sheets: PlannedSheet[] = [...made.sheets];
  const at = made.site;
  const { attributesApart = false } = made;
  if (options.maxSheets !== undefined) return { operations, sheets, site: at, attributesApart };
  const least = single === 'stay' ? { least: 2 } : {};
  const rest: GatherBlocks = { kind: 'gather-blocks', folder: folderOf(shared), pages: whole, ...least };
  const plan = planGatherBlocks(at, rest);
  const next = plan.ok ? applyPlan(at, plan.value) : undefined;
  if (!plan.ok || !next?.ok) return { operations, sheets, site: at, attributesApart };
  operations.push(rest);
  for (const { path, rules, pages } of plan.value.sheets)
    sheets.push({
      path,
      rules,
      pages,
      why:
        pages.length === 1
          ? `Only ${pages[0]!} has these rules, or has them where no shared sheet could take them.`
          : 'These blocks move as a whole, each in its place among the sources of its page.',
    });
  return { operations, sheets, site: next.value, attributesApart };
}

function oneSheet(
  site: Site,
  sheet: string,
  { sharing, strict, unmarkable }: AttemptPages,
  { oldBrowsers, singlePage, keepAttributes }: PlanOptions,
): Attempt {
  const options: OneSheetOptions = {
    sheet,
    pages: sharing,
    singlesStay: singlePage === 'stay' || singlePage === 'own',
    ...(strict ? { strict } : {}),
    ...(unmarkable ? { unmarkable } : {}),
    ...(oldBrowsers ? { oldBrowsers } : {}),
  };
  const alone = planOneSheet(site, options);
  const nothing = { operations: [], sheets: [], site };
  if (!alone) return nothing;
  const holding = new Set(alone.pages);
  const others = keepAttributes ? [] : sharing.filter((page) => !holding.has(page) && hasAttributes(site, page));
  const together = others.length === 0 ? alone : planOneSheet(site, { ...options, alsoLinking: others });
  const asGood = together !== undefined && costOf(together) <= costOf(alone) && together.rules.length === alone.rules.length; // prettier-ignore
  const operation = asGood ? together : alone;
  const plan = planGatherSheet(site, operation);
  const next = plan.ok ? applyPlan(site, plan.value) : undefined;
  if (!plan.ok || !next?.ok) return nothing;
  const { rules, pages } = plan.value;
  const sheets = rules === 0 ? [] : [{ path: plan.value.sheet, rules, pages, why: undefined }];
  return { operations: [operation], sheets, site: next.value, attributesApart: !asGood };
}

const hasAttributes = (site: Site, page: string): boolean => /\sstyle\s*=/i.test(site.files.get(page)?.text ?? '');

/** Marks weigh most; then how many rules ask for one. */
const costOf = ({ marks = [], rules }: GatherSheet): number =>
  marks.length * 1000 + rules.filter(({ selector }) => selector !== undefined).length;

/** Sheets by the pages that hold the same rules. */
function ownSheets(site: Site, shared: string, sharing: readonly string[], options: PlanOptions): Attempt {
  const operations: GatherOperation[] = [];
  const sheets: PlannedSheet[] = [];
  let at = site;
  for (const { operation, why } of ruleOperations(
    site,
    shared,
    sharing,
    options.singlePage ?? 'shared',
    options.maxSheets,
  )) {
    // prettier-ignore
    const plan = planGatherRules(at, operation);
    if (!plan.ok) continue;
    const next = applyPlan(at, plan.value);
    if (!next.ok) continue;
    at = next.value;
    operations.push(operation);
    sheets.push({ path: plan.value.sheet, rules: plan.value.moved.length, pages: plan.value.pages, why });
  }
  return { operations, sheets, site: at };
}

interface SheetOperation {
  readonly operation: GatherRules;
  readonly why: string | undefined;
}

function ruleOperations(
  site: Site,
  shared: string,
  pages: readonly string[],
  single: SinglePage,
  maxSheets: number | undefined,
): readonly SheetOperation[] {
  const table = readRuleTable(site, pages);
  if (table.rules.length === 0) return [];
  const graph = makeRuleGraph(table);
  const singles = table.rules.filter((rule) => rule.holders.size === 1).length;
  const merging = single === 'shared' && singles > mostSingles ? 'own' : single;
  const { length } = table.pages;
  const asked = table.rules.filter(
    ({ holders }) => holders.size < length && (merging === 'shared' || holders.size > 1),
  );
  const parts = partition(table, graph, reachOfRules(site, table, asked), merging, pagesOf(site).length === 1);
  return operationsOf(site, shared, table, graph, parts, maxSheets);
}

function operationsOf(
  site: Site,
  shared: string,
  table: RuleTable,
  graph: RuleGraph,
  parts: Partition,
  maxSheets: number | undefined,
): readonly SheetOperation[] {
  const weight = (part: SheetPart): number => part.nodes.reduce((sum, n) => sum + graph.nodes[n]!.holders.size, 0);
  const kept = new Set([...parts.sheets].sort((a, b) => weight(b) - weight(a)).slice(0, maxSheets));
  const left = new Set(parts.staying);
  for (const part of parts.sheets) if (!kept.has(part)) for (const node of part.nodes) left.add(node);
  const sheets = parts.sheets.filter((part) => kept.has(part));
  const alsoStaying = mustFollow(graph, parts.after, left);
  const names = new SheetNames(site, folderOf(shared));
  names.take(shared);
  const widest = [...sheets].sort((a, b) => b.pages.size - a.pages.size || weight(b) - weight(a))[0];
  const pathsOf = (part: SheetPart): readonly string[] => [...part.pages].map((page) => table.pages[page]!.path);
  const rulesOf = (part: SheetPart): readonly PlannedRule[] =>
    part.nodes.map((node) => table.rules[graph.nodes[node]!.rule]!);
  // of sheets for the same thing the one of most pages gets the plain name
  const named = new Map<SheetPart, string>();
  for (const part of [...sheets].sort((a, b) => b.pages.size - a.pages.size))
    named.set(part, part === widest ? shared : names.propose(pathsOf(part), rulesOf(part).map((rule) => rule.family))); // prettier-ignore
  const before: string[] = [];
  return sheets.map((part) => {
    const paths = pathsOf(part);
    const rules = rulesOf(part);
    const sheet = named.get(part)!;
    const except = part.nodes.flatMap((node, i) => {
      const { family, version, holders } = rules[i]!;
      const away = [...holders].filter(
        (page) => part.pages.has(page) && (!graph.nodes[node]!.holders.has(page) || alsoStaying.has(`${node} ${page}`)),
      );
      return away.map((page) => ({ family, version, page: table.pages[page]!.path }));
    });
    const operation: GatherRules = {
      kind: 'gather-rules',
      sheet,
      pages: paths,
      rules: rules.map(({ family, version }) => ({ family, version })),
      ...(except.length > 0 ? { except } : {}),
      after: [...before],
    };
    before.push(sheet);
    return { operation, why: part === widest ? undefined : part.apart && describeApart(part.apart, table, sheet) };
  });
}

/**
 * What stays in a block comes after all sheets; a rule that competes with it and stood after it has to stay as well, on that
 * page. As `node page`.
 */
function mustFollow({ nodes }: RuleGraph, after: Partition['after'], left: ReadonlySet<number>): ReadonlySet<string> {
  const out = new Set<string>();
  const work = [...left].flatMap((node) => [...nodes[node]!.holders].map((page) => [node, page] as const));
  while (work.length > 0) {
    const [node, page] = work.pop()!;
    for (const next of after[node]!) {
      const key = `${next} ${page}`;
      if (left.has(next) || out.has(key) || !nodes[next]!.holders.has(page)) continue;
      out.add(key);
      work.push([next, page]);
    }
  }
  return out;
}
