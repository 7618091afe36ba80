import { checkSite, type Finding, type Operation, type SiteCheck } from '@syndeton/core';
import type { Command } from 'commander';
import { UsageProblem } from '../siteFolder.ts';
import { doAndWrite } from './applied.ts';
import type { Session } from './session.ts';

interface LinksFlags {
  readonly json?: boolean;
  readonly link?: string;
  readonly mend?: boolean;
  readonly out?: string;
  readonly allowDifferences?: boolean;
}

/** Findings about links and the order of sheets. */
const aboutLinks = /^(page-without-link|link-|linked-twice|sheet-order|baseline-last|import-chain|mixed-paths)/;

/** Adds `syndeton links` to the program. */
export function addLinks(program: Command, session: Session): void {
  program
    .command('links <dir>')
    .description('which page takes which sheets, in which order, and what is wrong with that')
    .option('--json', 'as JSON')
    .option('--link <sheet>', 'links this sheet from every page that does not, behind its other sources')
    .option('--mend', 'mends what has one right answer')
    .option('--out <out>', 'with --link or --mend: empty or new folder for the whole resulting site')
    .option('--allow-differences', 'writes it even where pages look different')
    .addHelpText(
      'after',
      '\nExamples:\n  syndeton links site\n  syndeton links site --mend --allow-differences --out mended\n  syndeton links site --link css/print.css --allow-differences --out linked',
    )
    .action(async (dir: string, options: LinksFlags) => {
      const { link, mend, out } = options;
      const isActing = link !== undefined || mend === true;
      if (isActing && out === undefined)
        throw new UsageProblem('--link and --mend need --out, the folder for the resulting site.');
      if (!isActing && out !== undefined)
        throw new UsageProblem('--out needs something to do: --link SHEET or --mend.');
      const site = await session.site(dir);
      const check = checkSite(site);
      const findings = check.findings.filter(({ kind }) => aboutLinks.test(kind));
      if (!isActing) {
        session.print(options.json ? asJson(check, findings) : asText(check, findings));
        session.end(findings.some(({ severity }) => severity === 'breaks') ? 1 : 0);
        return;
      }
      const operations: Operation[] = mend
        ? findings.flatMap(({ id, action }) => (action.does === 'mend' ? [{ kind: 'mend', finding: id }] : []))
        : [];
      if (link !== undefined) operations.push({ kind: 'link-sheet', sheet: link, place: { at: 'last' } });
      if (operations.length === 0) throw new UsageProblem('There is nothing to mend about the links.');
      await doAndWrite(
        site,
        operations,
        { folder: dir, out: out!, allowDifferences: options.allowDifferences ?? false },
        session,
      );
    });
}

function asJson({ survey }: SiteCheck, findings: readonly Finding[]): string {
  const pages = survey.pages.map(({ path, sources }) => ({
    path,
    sources: sources
      .filter(({ kind }) => /^(linked|imported|embedded)$/.test(kind))
      .map(({ kind, target, problem, media, line }) => ({ kind, target, problem, media, line })),
  }));
  const plain = findings.map(({ id, kind, severity, sentence, pages: on }) => ({
    id,
    kind,
    severity,
    sentence,
    pages: on,
  }));
  return JSON.stringify(
    { sheets: survey.sheets.map(({ path, pages: of }) => ({ path, pages: of.length })), pages, findings: plain },
    null,
    2,
  );
}

/** A grid: pages down, sheets across in the order most pages take them; the number is the place among the page's sources, ◆ a block. */
function asText({ survey }: SiteCheck, findings: readonly Finding[]): string {
  const takes = survey.pages.map(({ path, sources }) => {
    const ordered = sources.filter(
      ({ kind, problem }) => /^(linked|imported|embedded)$/.test(kind) && problem === undefined,
    );
    const places = new Map<string, number>();
    ordered.forEach(({ target }, i) => {
      if (target !== undefined && !places.has(target)) places.set(target, i + 1);
    });
    return { path, places, blocks: ordered.flatMap(({ kind }, i) => (kind === 'embedded' ? [i + 1] : [])) };
  });
  const sheets = survey.sheets.map(({ path }) => path);
  const letters = sheets.map((_, i) => columnName(i));
  const widest = Math.max(4, ...takes.map(({ path }) => path.length));
  const rows = [
    ['page'.padEnd(widest), ...letters.map((letter) => letter.padStart(3)), ' ◆'].join(' '),
    ...takes.map(({ path, places, blocks }) =>
      [
        path.padEnd(widest),
        ...sheets.map((sheet) => String(places.get(sheet) ?? '·').padStart(3)),
        ` ${blocks.join(',')}`,
      ]
        .join(' ')
        .trimEnd(),
    ),
  ];
  const wrong = findings.map(({ sentence }) => `  ${sentence.replaceAll('`', '')}`);
  return [
    ...sheets.map((sheet, i) => `${letters[i]!.padStart(3)}  ${sheet}`),
    '  ◆  embedded block; numbers are places among the sources of a page',
    '',
    ...rows,
    ...(wrong.length > 0 ? ['', `To look at (${wrong.length})`, ...wrong] : []),
  ].join('\n');
}

/** A, B, …, Z, AA, … */
const columnName = (i: number): string =>
  (i < 26 ? '' : columnName(Math.floor(i / 26) - 1)) + String.fromCharCode(65 + (i % 26));
