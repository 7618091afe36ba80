import type { SurveyReply } from '@syndeton/contract';

/** Bytes of styling of one page, by source. */
export interface PageBars {
  readonly path: string;
  readonly linked: number;
  readonly imported: number;
  readonly embedded: number;
  readonly attribute: number;
  readonly presentational: number;
}

/** Bars of all pages, most styling still in the page first. */
export function barsFor(pages: readonly SurveyReply['pages'][number][]): readonly PageBars[] {
  const bytes = (page: SurveyReply['pages'][number], kind: string): number =>
    page.sources.filter((source) => source.kind === kind).reduce((sum, source) => sum + source.bytes, 0);
  return pages
    .map((page) => ({
      path: page.path,
      linked: bytes(page, 'linked'),
      imported: bytes(page, 'imported'),
      embedded: bytes(page, 'embedded'),
      attribute: bytes(page, 'attribute'),
      presentational: bytes(page, 'presentational'),
    }))
    .sort((a, b) => localBytes(b) - localBytes(a));
}

export const localBytes = (bars: PageBars): number => bars.embedded + bars.attribute + bars.presentational;
