import type { SurveyReply } from '@syndeton/contract';
import { byPath } from '@syndeton/core';

/** Bytes of styling by source: of one page, or on average of several that share a row. */
export interface PageBars {
  /** The page, or the first of several. */
  readonly path: string;
  readonly linked: number;
  readonly imported: number;
  readonly embedded: number;
  readonly attribute: number;
  readonly presentational: number;
}

export const sortings = ['left in the page', 'shared', 'name'] as const;
export type Sorting = (typeof sortings)[number];

/** Bars of all pages in the order asked for; most bytes first. */
export function barsFor(
  pages: readonly SurveyReply['pages'][number][],
  sorting: Sorting = 'left in the page',
): readonly PageBars[] {
  const bars = pages.map((page) => {
    const bar = { path: page.path, linked: 0, imported: 0, embedded: 0, attribute: 0, presentational: 0 };
    for (const { kind, bytes } of page.sources) bar[kind as keyof Omit<PageBars, 'path'>] += bytes;
    return bar;
  });
  switch (sorting) {
    case 'left in the page':
      return bars.sort((a, b) => localBytes(b) - localBytes(a));
    case 'shared':
      return bars.sort((a, b) => b.linked + b.imported - a.linked - a.imported);
    case 'name':
      return bars.sort(byPath);
  }
}

export const localBytes = (bars: PageBars): number => bars.embedded + bars.attribute + bars.presentational;

/** A row of the chart: one page, or neighbours in the order that share it. */
export interface BarRow extends PageBars {
  readonly pages: readonly string[];
}

/** As many rows as pages when they fit; else neighbours share a row, which shows their average. */
export function rowsOf(bars: readonly PageBars[], most: number): readonly BarRow[] {
  if (bars.length <= most) return bars.map((bar) => ({ ...bar, pages: [bar.path] }));
  const rows = Math.ceil(most / 2);
  return Array.from({ length: rows }, (_, i) => {
    const inside = bars.slice(Math.floor((i * bars.length) / rows), Math.floor(((i + 1) * bars.length) / rows));
    const mean = (name: keyof Omit<PageBars, 'path'>): number =>
      Math.round(inside.reduce((sum, bar) => sum + bar[name], 0) / inside.length);
    return {
      path: inside[0]!.path,
      pages: inside.map((bar) => bar.path),
      linked: mean('linked'),
      imported: mean('imported'),
      embedded: mean('embedded'),
      attribute: mean('attribute'),
      presentational: mean('presentational'),
    };
  });
}

/** The numbers of the chart, one line a page. RFC 4180, "Definition of the CSV Format". */
export function csvOf(bars: readonly PageBars[]): string {
  const head = 'page,linked,imported,embedded,style attributes,presentational attributes,left in the page';
  const lines = bars.map((b) =>
    [quoted(b.path), b.linked, b.imported, b.embedded, b.attribute, b.presentational, localBytes(b)].join(','),
  );
  return [head, ...lines, ''].join('\r\n');
}

/** A leading sign would be read as a formula by spreadsheets. */
const quoted = (text: string): string => (/[",\r\n]|^[=+\-@]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);
