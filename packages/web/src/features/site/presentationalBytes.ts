import type { SurveyReply } from '@syndeton/contract';

/** What presentational attributes and elements of these pages say, in bytes: `bgcolor`, `align`, `font`. */
export const presentationalBytes = (pages: readonly SurveyReply['pages'][number][]): number =>
  pages.reduce(
    (sum, { sources }) =>
      sum + sources.reduce((own, { kind, bytes }) => (kind === 'presentational' ? own + bytes : own), 0),
    0,
  );
