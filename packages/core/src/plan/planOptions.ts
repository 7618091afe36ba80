import type { GatherBlocks } from '../operations/gather/gatherBlocks.ts';
import type { GatherRules } from '../operations/gather/gatherRules.ts';
import type { GatherSheet } from '../operations/gather/gatherSheet.ts';
import type { Site } from '../source/site.ts';
import type { SinglePage } from './partition.ts';

export interface PlanOptions {
  /** Pages to take from; all when absent. */
  readonly pages?: readonly string[];
  /**
   * What one page has and no other: to a shared sheet where it reaches nothing else, and otherwise to its own (`shared`, the
   * default); to its own sheet, with one or folder sheets beside the page; or it stays.
   */
  readonly singlePage?: SinglePage;
  /** At most so many sheets; what would need more stays in its pages. */
  readonly maxSheets?: number;
  /**
   * One new sheet, whose rules ask for classes of the pages they are for (the default); besides it one for each folder, for what only
   * its pages have; or as many as need no such class.
   */
  readonly sheets?: 'one' | 'folders' | 'own';
  /** Style attributes stay on their elements. */
  readonly keepAttributes?: boolean;
  /** For browsers without `:where()`: a rule that would need it stays in its block, and goes with it. */
  readonly oldBrowsers?: boolean;
}

/** One sheet of the plan. */
export interface PlannedSheet {
  readonly path: string;
  readonly rules: number;
  readonly pages: readonly string[];
  /** Why it is a sheet of its own, in words; undefined for the widest. */
  readonly why: string | undefined;
}

export type GatherOperation = GatherSheet | GatherRules | GatherBlocks;

/** A plan before it is proved. */
export interface Attempt {
  readonly operations: readonly GatherOperation[];
  readonly sheets: readonly PlannedSheet[];
  readonly site: Site;
  /** Pages that have style attributes and no rule of the sheet would look different with it. */
  readonly attributesApart?: boolean;
}

/** Which pages share sheets, which may give up whole blocks; which are to be reached by their own rules only, and which get no class. */
export interface AttemptPages {
  readonly sharing: readonly string[];
  readonly whole: readonly string[];
  readonly strict?: ReadonlySet<string>;
  readonly unmarkable?: ReadonlySet<string>;
}
