import type { PageReading, ReadBlock, ReadUnit } from '../../survey/pageReading.ts';

/** A rule on its way from a page to the sheet: `text` is closed and has its references counted from the sheet. */
export interface TakenUnit {
  readonly block: ReadBlock;
  readonly unit: ReadUnit;
  /** Equal for rules that become one in the sheet. */
  readonly key: string;
  readonly text: string;
  /** It says nothing: it goes nowhere. */
  readonly dead?: boolean;
}

/** What is taken from one page. */
export interface PagePlan {
  readonly page: PageReading;
  /** Blocks without a single rule: they go when everything is gathered. */
  readonly empty: readonly ReadBlock[];
  readonly taken: TakenUnit[];
}
