import type { PageSurvey, Survey } from '../survey/survey.ts';

/** What a visitor fetches of an average page, in bytes. `sheets`: linked ones and those they import, fetched once for all pages. */
export interface PageWeight {
  readonly markup: number;
  readonly embedded: number;
  readonly attributes: number;
  readonly sheets: number;
}

/** The average over all pages of a site; undefined for a site without pages. Sheets of other servers are not counted. */
export function averageWeight({ pages, sheets }: Pick<Survey, 'pages' | 'sheets'>): PageWeight | undefined {
  if (pages.length === 0) return undefined;
  const bytesOf = new Map(sheets.map(({ path, bytes }) => [path, bytes]));
  const mean = (read: (page: PageSurvey) => number): number =>
    pages.reduce((sum, page) => sum + read(page), 0) / pages.length;
  const own = (page: PageSurvey, ...kinds: readonly string[]): number =>
    page.sources.filter(({ kind }) => kinds.includes(kind)).reduce((sum, { bytes }) => sum + bytes, 0);
  const embedded = mean((page) => own(page, 'embedded'));
  const attributes = mean((page) => own(page, 'attribute', 'presentational'));
  return {
    markup: Math.max(0, mean(({ bytes }) => bytes) - embedded - attributes),
    embedded,
    attributes,
    sheets: mean((page) => [...sheetsOfPage(page)].reduce((sum, path) => sum + (bytesOf.get(path) ?? 0), 0)),
  };
}

const sheetsOfPage = ({ sources }: PageSurvey): ReadonlySet<string> =>
  new Set(
    sources.flatMap(({ kind, target, problem }) =>
      /^(linked|imported)$/.test(kind) && target !== undefined && problem === undefined ? [target] : [],
    ),
  );
