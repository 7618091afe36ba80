import { trimmed, trimmedEnd } from '../../source/space.ts';
import { count } from '../../checks/words.ts';
import { closed, fields, operationType, type ProblemSentences } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import { printLink } from '../../page/pageSyntax.ts';
import { contentHash } from '../../source/contentHash.ts';
import type { ChangeSet } from '../../source/changeSet.ts';
import { withLineEnds } from '../../source/lineEnds.ts';
import { wholeLines } from '../../source/removal.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import { pagesOf, type Site } from '../../source/site.ts';
import { folderOf, parseSitePath, relativePath } from '../../source/sitePath.ts';
import { textOf, type Edit, type Span } from '../../source/span.ts';
import { encodeText } from '../../source/textCoding.ts';
import { wholeOnly } from '../../survey/blockUnits.ts';
import { readingOf, type PageReading, type ReadBlock } from '../../survey/pageReading.ts';
import { encodePath } from '../../values/urls.ts';
import { leftOutOf } from './leftOut.ts';
import { closingText, rebasedText } from './printRule.ts';
import { describeSheetPathProblem, parseSheetPath, type SheetPathProblem } from '../sheetPath.ts';
import { SheetNames } from './sheetNames.ts';

/**
 * Embedded blocks become sheets as they stand, each linked exactly where its block was: the order of everything stays, so nothing
 * can look different. Blocks that say the same on several pages become one sheet.
 */
export interface GatherBlocks {
  readonly kind: 'gather-blocks';
  /** Where the sheets go: `css`, or empty for the root. */
  readonly folder: string;
  readonly pages?: readonly string[];
  /** Sheets go into the folders of their pages in place of `folder`; blocks are alike within one folder only. */
  readonly beside?: boolean;
  /** Only blocks that stand alike on at least so many of the pages; 1 when absent. */
  readonly least?: number;
  /** Paths for sheets, by the block's key; the others get a proposed one. */
  readonly names?: Readonly<Record<string, string>>;
}

export type GatherBlocksProblem =
  | { readonly kind: 'block-sheet-path'; readonly path: SheetPathProblem }
  | { readonly kind: 'block-sheet-taken'; readonly path: string }
  | { readonly kind: 'no-blocks' };

/** One sheet made of whole blocks. */
export interface BlockSheet {
  readonly key: string;
  readonly path: string;
  readonly rules: number;
  readonly pages: readonly string[];
}

export interface GatherBlocksPlan {
  readonly changes: ChangeSet;
  readonly sheets: readonly BlockSheet[];
}

/** Blocks that follow each other with nothing between that gives rules. */
interface Run {
  readonly page: PageReading;
  readonly blocks: ReadBlock[];
}

export function planGatherBlocks(site: Site, operation: GatherBlocks): Result<GatherBlocksPlan, GatherBlocksProblem> {
  const place = parseSitePath(`${operation.folder.replace(/^\/+|\/+$/g, '')}/sheet.css`.replace(/^\//, ''));
  if (!place.ok) return fail({ kind: 'block-sheet-path', path: { kind: 'bad-path', path: place.problem } });
  const folder = folderOf(place.value);
  const groups = new Map<string, { readonly text: string; readonly runs: Run[] }>();
  const wanted = operation.pages && new Set(operation.pages);
  for (const file of pagesOf(site)) {
    if ((wanted && !wanted.has(file.path)) || !/<style/i.test(file.text ?? '')) continue;
    const page = readingOf(file);
    if (!page) continue;
    for (const run of runsOf(page)) {
      const where = operation.beside ? folderOf(page.path) : folder;
      const text = textOfRun(run, `${where}sheet.css`);
      if (text === undefined) continue;
      const { media, title } = run.blocks[0]!.source;
      const key = contentHash(
        encodeText(`${operation.beside ? where : ''}${media}\n${title}\n${withLineEnds(text, '\n')}`, 'utf-8')!,
      );
      const group = groups.get(key);
      if (group) group.runs.push(run);
      else groups.set(key, { text, runs: [run] });
    }
  }
  const empty = [...groups.values()].filter(({ text }) => text === '').flatMap(({ runs }) => runs);
  for (const [key, { text }] of groups) if (text === '') groups.delete(key);
  const least = operation.least ?? 1;
  const chosen = [...groups].filter(([, { runs }]) => new Set(runs.map((run) => run.page.path)).size >= least);
  if (chosen.length === 0 && empty.length === 0) return fail({ kind: 'no-blocks' });
  const namesIn = new Map<string, SheetNames>();
  const namesOf = (where: string): SheetNames => {
    const names = namesIn.get(where) ?? new SheetNames(site, where);
    namesIn.set(where, names);
    return names;
  };
  const sheets: BlockSheet[] = [];
  const created: { path: string; text: string }[] = [];
  const edits = new Map<PageReading, Edit[]>();
  for (const [key, { text, runs }] of chosen) {
    const pages = [...new Set(runs.map((run) => run.page.path))];
    const names = namesOf(operation.beside ? folderOf(pages[0]!) : folder);
    const path = sheetPath(site, names, operation.names?.[key], pages, runs[0]!);
    if (!path.ok) return path;
    created.push({ path: path.value, text: withCharset(text) });
    sheets.push({ key, path: path.value, rules: rulesOf(runs[0]!), pages });
    for (const run of runs) edits.set(run.page, [...(edits.get(run.page) ?? []), ...editsOfRun(run, path.value)]);
  }
  // a block that says nothing goes, and leaves no link
  for (const { page, blocks } of empty)
    edits.set(page, [
      ...(edits.get(page) ?? []),
      ...blocks.map((block) => ({ span: wholeLines(page.text, block.source.span), text: '' })),
    ]);
  const edited = [...edits].map(([{ file }, list]) => ({ path: file.path, hash: file.hash, edits: list }));
  return succeed({ changes: { created, edited, deleted: [] }, sheets });
}

function sheetPath(
  site: Site,
  names: SheetNames,
  given: string | undefined,
  pages: readonly string[],
  run: Run,
): Result<string, GatherBlocksProblem> {
  if (given === undefined)
    return succeed(
      names.propose(
        pages,
        run.blocks.flatMap((block) => block.units.map(({ rule }) => rule.family)),
      ),
    );
  const path = parseSheetPath(given, site);
  if (!path.ok) return fail({ kind: 'block-sheet-path', path: path.problem });
  if (site.files.has(path.value)) return fail({ kind: 'block-sheet-taken', path: path.value });
  names.take(path.value);
  return path;
}

function runsOf(page: PageReading): readonly Run[] {
  const runs: Run[] = [];
  for (const block of page.blocks) {
    if (block.stays !== undefined && !wholeOnly.has(block.stays)) continue;
    if (block.source.span.start < 0) continue;
    const last = runs.at(-1)?.blocks.at(-1);
    if (last && last.sourceIndex === block.sourceIndex - 1 && mayFollow(last, block)) runs.at(-1)!.blocks.push(block);
    else runs.push({ page, blocks: [block] });
  }
  return runs;
}

/** Whether two blocks say the same as one sheet. `@import` and `@namespace` count only at the start of a sheet. */
const mayFollow = (first: ReadBlock, second: ReadBlock): boolean =>
  first.source.media === second.source.media &&
  first.source.title === second.source.title &&
  first.stays !== 'has-namespace' &&
  second.stays !== 'has-import' &&
  second.stays !== 'has-namespace';

/** The run's text as a sheet, its references counted from `sheet`; undefined when it cannot stand in one. */
function textOfRun({ page, blocks }: Run, sheet: string): string | undefined {
  const parts: string[] = [];
  for (const block of blocks) {
    const own = textOf(page.text, block.source.contents);
    const closing = closingText(own);
    if (closing === undefined) return undefined;
    const text = rebasedText(own + closing, block.base, sheet);
    if (text === undefined) return undefined;
    const bare = text
      .replace(/^[\t\n\f\r ]*<!--/, '')
      .replace(/-->[\t\n\f\r ]*$/, '')
      .replace(/^[\t\n\f\r ]*@charset[^;]*;/i, '');
    const shown = outdented(bare);
    if (shown !== '') parts.push(shown);
  }
  return parts.map((part) => `${part}\n`).join('\n');
}

/** Lines without the indentation they share, and without empty lines around. */
function outdented(text: string): string {
  if (/\\[\r\n]/.test(text)) return trimmed(text);
  const lines = withLineEnds(text, '\n').split('\n');
  const filled = lines.filter((line) => trimmed(line) !== '');
  const indents = filled.map((line) => /^[ \t]*/.exec(line)![0]);
  let shared = indents[0] ?? '';
  for (const indent of indents) while (!indent.startsWith(shared)) shared = shared.slice(0, -1);
  return trimmed(lines.map((line) => trimmedEnd(line.slice(shared.length))).join('\n'));
}

const withCharset = (text: string): string => (/[^\0-\x7f]/.test(text) ? `@charset "utf-8";\n\n${text}` : text);

const rulesOf = ({ blocks }: Run): number =>
  blocks.flatMap((block) => block.units).reduce((sum, { rule }) => sum + rule.rules, 0);

function editsOfRun({ page, blocks }: Run, sheet: string): readonly Edit[] {
  const { text, syntax } = page;
  const { media, title, span } = blocks[0]!.source;
  const base = page.base.kind === 'site' ? page.base.path : page.path;
  const link = printLink(syntax, encodePath(relativePath(base, sheet)), { media, title });
  const rest = blocks.slice(1).map((block): Span => wholeLines(text, block.source.span));
  return [{ span, text: link }, ...rest.map((one) => ({ span: one, text: '' }))];
}

export const blocksProblems: ProblemSentences<GatherBlocksProblem> = {
  'block-sheet-path': (problem) => describeSheetPathProblem(problem.path),
  'block-sheet-taken': (problem) =>
    `There is a sheet ${problem.path} already. A block that moves as a whole needs a new one.`,
  'no-blocks': () => 'No block of these pages can become a sheet.',
};

export const gatherBlocks = operationType<GatherBlocks, GatherBlocksProblem>()({
  kind: 'gather-blocks',
  schema: Type.Object(
    {
      kind: Type.Literal('gather-blocks'),
      folder: Type.String({ maxLength: 400 }),
      pages: fields.somePages,
      beside: Type.Optional(Type.Boolean()),
      least: Type.Optional(Type.Integer({ minimum: 1 })),
      names: Type.Optional(Type.Record(Type.String(), Type.String({ maxLength: 400 }))),
    },
    closed,
  ),
  plan(site, operation) {
    const plan = planGatherBlocks(site, operation);
    if (!plan.ok) return plan;
    const { changes, sheets } = plan.value;
    const pages = new Set(sheets.flatMap((sheet) => sheet.pages)).size;
    const into = sheets.length === 1 ? sheets[0]!.path : `${sheets.length} sheets of their own`;
    if (sheets.length === 0)
      return succeed({ changes, sentence: `Take empty blocks out of ${count(changes.edited.length, 'page')}` });
    const leftOut = sheets.flatMap((sheet) => leftOutOf(site, sheet.path, sheet.pages));
    return succeed({ changes, sentence: `Turn the blocks left on ${count(pages, 'page')} into ${into}`, leftOut });
  },
  problems: blocksProblems,
});
