import fs from 'node:fs/promises';
import { checkSite, proveSites, missingSheets, unifiedPatch, withAbsent } from '@syndeton/core';
import { Command, CommanderError } from 'commander';
import { runCheck, type CheckOptions } from './checkCommand.ts';
import { runGather } from './gatherCommand.ts';
import { gatherOptions, type GatherFlags } from './gatherFlags.ts';
import { runPrecedence, type PrecedenceOptions } from './precedenceCommand.ts';
import { printProof, printSurvey, printWholeSurvey } from './printReport.ts';
import { readSiteFolder, UsageProblem } from './siteFolder.ts';

/** Runs the command line; gives the exit code: 0 same or nothing to object, 1 differs or something to object, 2 bad input, 3 cannot be told. */
export async function main(
  args: readonly string[],
  print: (text: string) => void,
  printError: (text: string) => void,
): Promise<number> {
  let code = 0;
  const program = new Command('syndeton')
    .description(
      'Moves embedded CSS out of hand-coded pages into shared sheets, and proves that no page looks different.',
    )
    .exitOverride()
    .configureOutput({ writeOut: (text) => print(text.trimEnd()), writeErr: (text) => printError(text.trimEnd()) });
  program
    .command('survey <dir>')
    .description('pages with their sources, counts and bytes; repeated blocks; families; what is wrong')
    .option('--json', 'as JSON')
    .action(async (dir: string, options: { json?: boolean }) => {
      const check = checkSite(await readSiteFolder(dir));
      print(options.json ? printWholeSurvey(check) : printSurvey(check));
    });
  program
    .command('check <dir>')
    .description(
      'for a build server: 1 when a page lacks a link, holds styling gathered before, or has a finding that counts',
    )
    .option('--fail-on <severity>', 'breaks, wrong or any', 'breaks')
    .option('--json', 'as JSON')
    .option('--format <format>', 'text, json, junit or sarif')
    .option('--markup', "asks a validator about every page's markup, also of large sites")
    .option('--no-markup', 'asks no validator')
    .action(async (dir: string, options: CheckOptions) => {
      code = await runCheck(dir, options, print);
    });
  program
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
    .option(
      '--sheets <how>',
      'one: one new sheet, rules for some pages ask for a class of their body; folders: besides it one for each folder, for what only its pages have; own: no such classes, as many sheets as that takes',
      'one',
    )
    .option('--old-browsers', 'no :where() in selectors; a rule that would need it goes with its block')
    .option(
      '--missing <what>',
      'sheets that pages ask for and the folder has not: unknown (they may say anything) or nothing (they are on no server either)',
      'unknown',
    )
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
    .option('--plan <file>', 'follow the plan in this file, or write the plan made to it when there is no such file')
    .option('--json', 'as JSON')
    .option('--allow-differences', 'gather everything and write it even where pages look different')
    .action(async (dir: string, options: GatherFlags) => {
      code = await runGather(dir, gatherOptions(options), print);
    });
  program
    .command('proof <before> <after>')
    .description(
      'compares two states of a site, element by element: 0 every page the same, 1 one differs, 3 it cannot be told of one',
    )
    .option('--missing <what>', 'sheets that pages ask for and BEFORE has not: unknown, or nothing', 'unknown')
    .option('--json', 'as JSON')
    .action(async (before: string, after: string, options: { json?: boolean; missing: string }) => {
      if (!/^(unknown|nothing)$/.test(options.missing))
        throw new UsageProblem(`--missing ${options.missing} is not known. unknown and nothing are allowed.`);
      const [old, now] = [await readSiteFolder(before), await readSiteFolder(after)];
      const absent = options.missing === 'nothing' ? missingSheets(old).map(({ path }) => path) : [];
      const proof = proveSites(withAbsent(old, absent), withAbsent(now, absent));
      print(options.json ? JSON.stringify(proof, null, 2) : printProof(proof, absent));
      code = { same: 0, intended: 0, differs: 1, unsure: 3 }[proof.verdict];
    });
  program
    .command('patch <before> <after>')
    .description('what changed between two states of a site as a unified patch for git apply and patch -p1')
    .requiredOption('--out <file>', 'where the patch is written; a file that is there is replaced')
    .action(async (before: string, after: string, options: { out: string }) => {
      const { bytes, leftOut } = unifiedPatch(await readSiteFolder(before), await readSiteFolder(after));
      await fs.writeFile(options.out, bytes);
      print(`${options.out}: ${bytes.length} bytes.`);
      if (leftOut.length > 0) print(`Left out, no text: ${leftOut.join(', ')}. Copy these yourself.`);
    });
  program
    .command('precedence <dir>')
    .description('who wins: for an element, for a property over all pages, where pages beat shared sheets')
    .option('--element <selector>', 'what decides each property of the elements of --page that a selector reaches')
    .option('--property <property>', 'with --element: only this property')
    .option('--state <states>', 'with --element: states held on, such as hover,focus')
    .option('--peel <sources>', 'with --element: sources switched off, as --json names them')
    .option('--question <rule>', 'what decides a property over all pages: "h1 { color }"')
    .option('--overrides', 'declarations in pages that beat shared ones, harmless first')
    .option('--winners', 'the winners of all elements, one JSON line each')
    .option('--json', 'as JSON')
    .option('--page <glob>', 'pages by path from the top folder: index.html, "**/*.html"')
    .option('--medium <medium>', 'screen or print', 'screen')
    .option('--width <pixels>', 'width of the window in CSS pixels', '1280')
    .action(async (dir: string, options: PrecedenceOptions) => {
      code = await runPrecedence(dir, options, print);
    });
  try {
    await program.parseAsync([...args], { from: 'user' });
    return code;
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
    if (!(error instanceof UsageProblem)) throw error;
    printError(error.message);
    return 2;
  }
}
