import type { FindingReply, SurveyReply } from '@syndeton/contract';

/** A link of one page to one sheet, or what is wrong there. */
export interface LinkCell {
  /** Number among the page's links and blocks, from 1; undefined where the sheet does not reach the page. */
  readonly position: number | undefined;
  readonly media: string;
  readonly imported: boolean;
  /** What else the link says. */
  readonly says: readonly string[];
  /** In a few words; undefined when all is well. */
  readonly wrong: string | undefined;
}

export interface LinkColumn {
  readonly path: string;
  /** False for a path that leads to no sheet. */
  readonly exists: boolean;
  readonly cells: ReadonlyMap<string, LinkCell>;
  /** Pages that reach it. */
  readonly linked: number;
  readonly media: string;
  /** What can be mended here by itself. */
  readonly mends: readonly FindingReply[];
}

export interface LinkGrid {
  readonly columns: readonly LinkColumn[];
  /** Numbers of each page's embedded blocks among its sources. */
  readonly blocks: ReadonlyMap<string, readonly number[]>;
  readonly findings: readonly FindingReply[];
}

/** Findings that the Links station is there for. */
export const isAboutLinks =
  /^(link-|page-without-link|sheet-order|baseline-last|rule-not-reached|linked-twice|empty-sheet|media-query)/;

const wrongWords: Readonly<Record<string, string>> = {
  'link-missing': 'no such file there',
  'link-refused': 'other bytes than promised',
  'link-wrong-case': 'wrong case',
  'link-in-comment': 'inside a comment',
  'page-without-link': 'missing',
  'rule-not-reached': 'missing',
  'link-after-block': 'after the block',
  'sheet-order': 'in another order',
  'baseline-last': 'not first',
  'linked-twice': 'linked twice',
  'empty-sheet': 'holds no rule',
};

/** Media types that match nothing any more. Media Queries 4, "Media Types". */
const deprecated = /^(?:only\s+)?(tty|tv|projection|handheld|braille|embossed|aural)$/i;

/** Pages by sheets, in load order, with what is wrong. */
export function linkGrid(survey: SurveyReply, sheets: readonly { readonly path: string }[]): LinkGrid {
  const findings = survey.findings.filter(({ kind }) => isAboutLinks.test(kind));
  const cells = new Map<string, Map<string, LinkCell>>();
  const blocks = new Map<string, number[]>();
  const column = (path: string): Map<string, LinkCell> => {
    let known = cells.get(path);
    if (!known) cells.set(path, (known = new Map<string, LinkCell>()));
    return known;
  };
  for (const sheet of sheets) column(sheet.path);
  for (const page of survey.pages) {
    let position = 0;
    for (const source of page.sources) {
      if (source.kind === 'attribute' || source.kind === 'presentational') continue;
      position++;
      if (source.kind === 'embedded') {
        blocks.set(page.path, [...(blocks.get(page.path) ?? []), position]);
        continue;
      }
      if (source.target === null) continue;
      const wrong = source.problem === null ? mediaWrong(source.media) : problemWords(source.problem);
      // what fails is told under the sheet that was meant
      if (source.problem === 'missing' || source.problem === 'wrong-case') continue;
      column(source.target).set(page.path, {
        position,
        media: source.media,
        imported: source.kind === 'imported',
        says: source.says ?? [],
        wrong,
      });
    }
  }
  for (const finding of findings) {
    if (finding.sheet === undefined) continue;
    const words = wrongWords[finding.kind] ?? 'needs a look';
    for (const page of finding.pages) {
      const known = column(finding.sheet).get(page);
      const said =
        known?.position === undefined || finding.kind === 'empty-sheet' || known.wrong === undefined
          ? words
          : known.wrong;
      column(finding.sheet).set(page, {
        position: undefined,
        media: '',
        imported: false,
        says: [],
        ...known,
        wrong: said,
      });
    }
  }
  const real = new Set(sheets.map((sheet) => sheet.path));
  const columns = [...cells].map(([path, own]): LinkColumn => {
    const reached = [...own.values()].filter((cell) => cell.position !== undefined);
    const media = new Set(reached.map((cell) => cell.media.trim() || 'all media'));
    return {
      path,
      exists: real.has(path),
      cells: own,
      linked: reached.length,
      media: media.size === 1 ? [...media][0]! : media.size === 0 ? '' : 'several media',
      mends: findings.filter((finding) => finding.sheet === path && finding.action.does === 'mend'),
    };
  });
  return { columns: columns.sort((a, b) => place(a) - place(b) || (a.path < b.path ? -1 : 1)), blocks, findings };
}

/** The mean position, so that columns stand in load order. */
function place({ cells }: LinkColumn): number {
  const positions = [...cells.values()].flatMap((cell) => cell.position ?? []);
  return positions.length === 0 ? Infinity : positions.reduce((sum, n) => sum + n, 0) / positions.length;
}

const mediaWrong = (media: string): string | undefined => {
  const old = deprecated.exec(media.trim())?.[1];
  return old === undefined ? undefined : `${old} matches nothing`;
};

function problemWords(problem: string): string {
  switch (problem) {
    case 'remote':
      return 'from another server';
    case 'disabled':
      return 'disabled';
    case 'type':
      return 'a type browsers pass over';
    case 'untitled-alternate':
      return 'alternate without a title';
    case 'no-reference':
      return 'no address';
    case 'policy':
      return 'forbidden by the page’s policy';
    default:
      return problem;
  }
}

export type PlaceName = 'first' | 'before-blocks' | 'last';

/** Where the links of a column stand, if they stand alike; before the blocks counts for pages that have some. */
export function placeOf(column: LinkColumn, grid: LinkGrid, pages: readonly string[]): PlaceName | undefined {
  const own = pages.flatMap((page) => {
    const position = column.cells.get(page)?.position;
    return position === undefined ? [] : [{ page, position }];
  });
  if (own.length === 0) return undefined;
  const lastOf = (page: string): number =>
    Math.max(...grid.columns.map((one) => one.cells.get(page)?.position ?? 0), ...(grid.blocks.get(page) ?? []));
  if (own.every(({ position }) => position === 1)) return 'first';
  const withBlocks = own.filter(({ page }) => grid.blocks.has(page));
  if (withBlocks.length > 0 && withBlocks.every(({ page, position }) => position < grid.blocks.get(page)![0]!))
    return 'before-blocks';
  return own.every(({ page, position }) => position === lastOf(page)) ? 'last' : undefined;
}
