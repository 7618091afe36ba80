import { Option, type Command } from 'commander';
import { gatherOptions, type GatherFlags, type GatherOptions } from './gatherFlags.ts';
import {
  applyOperations,
  describeOperationProblem,
  freeSheetName,
  markIntended,
  planGatherRules,
  planWhole,
  proveSites,
  siteAsChosen,
  surveySite,
  tradesIn,
  whatStays,
  withAbsent,
  type Operation,
  type Site,
} from '@syndeton/core';
import { makeGatherReport, printGather, type Outcome } from '../gatherReport.ts';
import { readPlanFile, writePlanFile } from '../planFile.ts';
import { checkTarget, linksOfFolder, UsageProblem, writeSiteFolder } from '../siteFolder.ts';
import type { Session } from './session.ts';
import { addNotHereFlags, takenAsNothing } from './sheetsNotHere.ts';

/** `syndeton gather`: 0 when every page looks the same, 1 when one differs, 3 when it cannot be told of one. */
export async function runGather(folder: string, options: GatherOptions, session: Session): Promise<number> {
  const { print } = session;
  await checkTarget(options.out);
  const found = await session.site(folder);
  const absent = takenAsNothing(found, options);
  const before = withAbsent(found, absent);
  const given = options.plan === undefined ? undefined : await readPlanFile(options.plan);
  const sheet = options.sheet ?? freeSheetName(before.files.keys(), options.folder);
  const outcome = given
    ? follow(before, given)
    : options.allowDifferences
      ? gatherAll(before, sheet)
      : gatherTrading(before, sheet, options);
  if (options.plan !== undefined && !given) await writePlanFile(options.plan, outcome.operations);
  const same = outcome.proof.verdict === 'same' || outcome.proof.verdict === 'intended';
  const written = same || options.allowDifferences;
  if (written) await writeSiteFolder(outcome.site, options.out, await linksOfFolder(folder));
  const report = makeGatherReport(before, outcome, written);
  print(options.json ? JSON.stringify(report, null, 2) : printGather(report, options.out, absent, outcome.trades));
  return { same: 0, intended: 0, differs: 1, unsure: 3 }[outcome.proof.verdict];
}

/** The trades asked for are taken ahead of the plan: what they change is chosen, and nothing else may change. */
function gatherTrading(site: Site, sheet: string, options: GatherOptions): Outcome {
  const plain = gatherSafely(site, sheet, options);
  const trades = tradesIn(site, plain.operations, options.oldBrowsers ? { oldBrowsers: true } : {});
  if (options.trade.length === 0) return { ...plain, trades };
  const taken = [...new Set(options.trade)].map((number) => {
    const trade = trades[number - 1];
    if (!trade)
      throw new UsageProblem(
        `There is no trade ${number}. ${trades.length === 0 ? 'This plan offers none.' : `1 to ${trades.length} are there.`}`,
      );
    return trade.operation;
  });
  const traded = follow(site, taken);
  const planned = gatherSafely(traded.site, sheet, options);
  const operations = [...taken, ...planned.operations];
  const proof = markIntended(proveSites(site, planned.site), siteAsChosen(site, operations), planned.site);
  return { ...planned, operations, proof };
}

function gatherSafely(site: Site, sheet: string, options: GatherOptions): Outcome {
  const { keepAttributes, hints, ids, keepImports, oldBrowsers, sheets, important, singlePage, maxSheets } = options;
  const planned = planWhole(site, sheet, {
    keepAttributes,
    hints,
    ids,
    keepImports,
    oldBrowsers,
    sheets,
    important,
    ...(singlePage === undefined ? {} : { singlePage }),
    ...(maxSheets === undefined ? {} : { maxSheets }),
  });
  if (!planned.ok) throw new UsageProblem(describeOperationProblem(planned.problem));
  return planned.value;
}

/** The operations of a plan made before, on this site. */
function follow(before: Site, operations: readonly Operation[]): Outcome {
  const applied = applyOperations(before, operations);
  if (!applied.ok) {
    const { index, problem } = applied.problem;
    const step = operations.length > 1 ? `Step ${index + 1} of the plan does not fit this site. ` : '';
    throw new UsageProblem(`${step}${describeOperationProblem(problem)}`);
  }
  const { site } = applied.value;
  const written = surveySite(site).sheets.filter(
    ({ path }) => before.files.get(path)?.hash !== site.files.get(path)!.hash,
  );
  return {
    site,
    proof: proveSites(before, site),
    sheets: written.map(({ path, rules, pages }) => ({ path, rules, pages })),
    stays: whatStays(site),
    operations,
  };
}

function gatherAll(site: Site, sheet: string): Outcome {
  const operation: Operation = { kind: 'gather-rules', sheet };
  const plan = planGatherRules(site, operation);
  const nothing = !plan.ok && plan.problem.kind === 'nothing-to-gather';
  return nothing ? follow(site, []) : follow(site, [operation]);
}

/** Adds `syndeton gather` to the program. */
export function addGather(program: Command, session: Session): void {
  const { end } = session;
  const command = program
    .command('gather <dir>')
    .description(
      'takes embedded blocks and style attributes out where that changes no look, and writes the resulting site',
    )
    .requiredOption('--out <out>', 'empty or new folder for the whole resulting site')
    .option(
      '--sheet <path>',
      'the shared sheet, new or there already, to gather into (css/site.css unless the site has one)',
    )
    .option('--folder <folder>', 'where new sheets go, when no sheet is named', 'css')
    .option('--keep <what>', 'what stays in the pages: attributes')
    .option('--ids', 'rules ask for the ID of an element that alone has its style attribute, in place of a class')
    .option('--important', 'important declarations where a plain class would lose, in place of stronger selectors')
    .option(
      '--keep-imports',
      'imports of embedded blocks stay imports; else they become links where that says the same',
    )
    .addOption(new Option('--link-imports', 'as without --keep-imports').hideHelp())
    .option(
      '--sheets <how>',
      'one: one new sheet, rules for some pages ask for a class of their body; folders: besides it one for each folder, for what only its pages have; own: no such classes, as many sheets as that takes',
      'one',
    )
    .option('--old-browsers', 'no :where() in selectors; a rule that would need it goes with its block')
    .option(
      '--hints',
      'presentational attributes and elements (bgcolor, align, width on cells, font, center, …) as well',
    )
    .option(
      '--single-page <what>',
      'rules that only one page has: shared (in the main sheet), own (in a sheet beside the page), or stay',
      'shared',
    )
    .option('--max-sheets <n>', 'at most so many sheets; what would need more stays in its pages')
    .option(
      '--trade <numbers>',
      'take these trades of the list that is printed, as 2 or 1,3: a change of look on purpose',
    )
    .option('--plan <file>', 'follow the plan in this file, or write the plan made to it when there is no such file')
    .option('--json', 'as JSON')
    .option('--allow-differences', 'gather everything and write it even where pages look different');
  addNotHereFlags(command).action(async (dir: string, options: GatherFlags) => {
    end(await runGather(dir, gatherOptions(options), session));
  });
}
