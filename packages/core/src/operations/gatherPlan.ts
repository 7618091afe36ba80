import type { PageTree } from '../page/parsePage.ts';
import type { SiteFile } from '../source/site.ts';
import type { BlockUnit, EmbeddedBlock } from '../survey/blockUnits.ts';

/** A rule on its way from a page to the sheet: `text` is closed and has its references counted from the sheet. */
export interface TakenUnit {
  readonly block: EmbeddedBlock;
  readonly unit: BlockUnit;
  /** Equal for rules that become one in the sheet. */
  readonly key: string;
  readonly text: string;
}

/** What is taken from one page. */
export interface PagePlan {
  readonly file: SiteFile;
  readonly text: string;
  readonly tree: PageTree;
  readonly blocks: readonly EmbeddedBlock[];
  /** Blocks without a single rule: they go when everything is gathered. */
  readonly empty: readonly EmbeddedBlock[];
  readonly taken: TakenUnit[];
}
