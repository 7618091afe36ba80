import type { Command } from 'commander';
import {
  askSite,
  describeQuestionProblem,
  elementName,
  elementPath,
  elementTable,
  findOverrides,
  KeptOutcomes,
  parsePage,
  siteWinners,
  type Environment,
  type Site,
} from '@syndeton/core';
import picomatch from 'picomatch';
import { elementsBySelector } from '../elementsBySelector.ts';
import { printAnswer, printOverrides, printTable } from '../printPrecedence.ts';
import { UsageProblem } from '../siteFolder.ts';
import type { Session } from './session.ts';

export interface PrecedenceOptions {
  readonly winners?: boolean;
  readonly page?: string;
  readonly element?: string;
  readonly property?: string;
  readonly question?: string;
  readonly overrides?: boolean;
  readonly state?: string;
  readonly peel?: string;
  readonly json?: boolean;
  readonly medium: string;
  readonly width: string;
}

type Print = (text: string) => void;

/** `syndeton precedence DIR`: one element, a question over all pages, overrides, or all winners. */
export async function runPrecedence(folder: string, options: PrecedenceOptions, session: Session): Promise<number> {
  const { print } = session;
  const asked = [options.winners, options.element, options.question, options.overrides].filter(
    (one) => one !== undefined,
  );
  if (asked.length !== 1)
    throw new UsageProblem(
      'Say what to print, one of: --element SEL with --page P, --question "h1 { color }", --overrides, --winners.',
    );
  const environment = readEnvironment(options);
  const site = await session.site(folder);
  if (options.winners) return printWinners(folder, site, options, environment, print);
  if (options.element !== undefined) return printElement(site, options, environment, print);
  const kept = new KeptOutcomes(site);
  if (options.overrides) {
    const found = findOverrides(kept, environment);
    print(options.json ? JSON.stringify(found, null, 2) : printOverrides(found));
    return 0;
  }
  const { selector, property } = readQuestion(options.question!);
  const answer = askSite(kept, { selector, property, environment });
  if (!answer.ok) throw new UsageProblem(describeQuestionProblem(answer.problem));
  if (options.json) print(JSON.stringify({ selector, property, ...answer.value }, null, 2));
  else print(printAnswer(selector, property, answer.value));
  return 0;
}

/** The tables of the elements of one page that a selector reaches. */
function printElement(site: Site, options: PrecedenceOptions, environment: Environment, print: Print): number {
  const path = options.page;
  const file = path === undefined ? undefined : site.files.get(path);
  if (path === undefined || file?.kind !== 'page' || file.text === undefined)
    throw new UsageProblem(
      path === undefined
        ? 'Name the page of the element: --page index.html.'
        : `There is no page ${path} to read here.`,
    );
  const found = elementsBySelector(parsePage(file.text), options.element!);
  if (!found) throw new UsageProblem(`Browsers refuse the selector "${options.element!}".`);
  if (found.length === 0) throw new UsageProblem(`No element of ${path} matches ${options.element!}.`);
  const listed = (text: string | undefined): readonly string[] => text?.split(',').map((one) => one.trim()) ?? [];
  const tables = found.flatMap((element) => {
    const table = elementTable(site, {
      page: path,
      element: elementPath(element),
      environment,
      forced: listed(options.state),
      peeled: listed(options.peel),
    });
    if (!table) throw new Error(`${elementName(element)} was there a moment ago`);
    const wanted = options.property;
    const rows = table.rows.filter(
      (row) => wanted === undefined || row.property === wanted || row.longhands.includes(wanted),
    );
    return [{ ...table, rows }];
  });
  print(options.json ? JSON.stringify(tables, null, 2) : tables.map(printTable).join('\n\n'));
  return 0;
}

/** `h1 { color }`, also `h1 { color: }`. */
function readQuestion(text: string): { readonly selector: string; readonly property: string } {
  const found = /^\s*([^{}]+)\{\s*([-\w]+)\s*:?\s*;?\s*\}?\s*$/.exec(text);
  if (!found)
    throw new UsageProblem(`"${text}" is no question. Write a selector and a property, as in "h1 { color }".`);
  return { selector: found[1]!.trim(), property: found[2]! };
}

function printWinners(
  folder: string,
  site: Site,
  options: PrecedenceOptions,
  environment: Environment,
  print: Print,
): number {
  const matches = options.page === undefined ? () => true : picomatch(options.page);
  let pages = 0;
  for (const lines of siteWinners(site, { environment }, matches)) {
    pages++;
    if (lines.length > 0) print(lines.map((line) => JSON.stringify(line)).join('\n'));
  }
  if (pages === 0)
    throw new UsageProblem(
      options.page === undefined
        ? `${folder} holds no page that can be read.`
        : `No page of ${folder} matches ${options.page}. Name a page from the site's top folder, such as index.html, or a pattern such as "**/*.html".`,
    );
  return 0;
}

function readEnvironment({ medium, width }: PrecedenceOptions): Environment {
  if (medium !== 'screen' && medium !== 'print')
    throw new UsageProblem(`There is no medium ${medium} here. Allowed: screen, print.`);
  const pixels = Number(width);
  if (!Number.isInteger(pixels) || pixels < 1 || pixels > 100_000)
    throw new UsageProblem(`${width} is no width. Give whole CSS pixels from 1 to 100000, such as 1280.`);
  return { medium, width: pixels, height: 800 };
}

/** Adds `syndeton precedence` to the program. */
export function addPrecedence(program: Command, session: Session): void {
  const { end } = session;
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
      end(await runPrecedence(dir, options, session));
    });
}
