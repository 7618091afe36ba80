import type { SurveyReply } from '@syndeton/contract';

export type Page = SurveyReply['pages'][number];
export type Source = Page['sources'][number];

/** A source of a page as a survey tells of it. */
export const sourceOf = (kind: string, target: string | null = null, more: Partial<Source> = {}): Source => ({
  kind,
  target,
  problem: null,
  media: '',
  rules: 0,
  declarations: 0,
  bytes: 0,
  count: 1,
  line: 1,
  ...more,
});

/** A page as a survey tells of it. */
export const pageOf = (path: string, sources: Page['sources'], more: Partial<Page> = {}): Page => ({
  path,
  bytes: 1,
  encoding: 'utf-8',
  mode: 'no-quirks',
  opaque: false,
  sources,
  sharedBytes: 0,
  localBytes: 0,
  syntax: { slashed: false, upperCase: false, quote: '"', typed: false },
  base: path,
  embeddedRules: 0,
  styleAttributes: 0,
  ...more,
});
