import type { Operation } from '../operations/operation.ts';
import type { Proof } from '../proof/proof.ts';
import type { Site } from '../source/site.ts';
import type { PlannedSheet, PlanOptions } from './planOptions.ts';
import type { Staying } from './staying.ts';

export interface WholePlanOptions extends PlanOptions {
  /** Rules ask for the ID of an element where it alone has such a style attribute. */
  readonly ids?: boolean;
  /** Important declarations in place of stronger selectors. */
  readonly important?: boolean;
  /** Imports of embedded blocks are kept where their block goes; else they become links first, where that says the same. */
  readonly keepImports?: boolean;
  /** Told how far it is: pages are read first, then one state after the other is proved. */
  readonly onStep?: (step: 'reading' | 'proving', done: number, total: number) => void;
  /** Presentational attributes go as well. */
  readonly hints?: boolean;
}

export interface WholePlan {
  /** In order; each is planned on what the ones before it leave. */
  readonly operations: readonly Operation[];
  readonly sheets: readonly PlannedSheet[];
  readonly site: Site;
  /** Of the site as it was against the site after all operations, by their bytes. Always `same`. */
  readonly proof: Proof;
  /** What stays in the pages, and why. */
  readonly stays: readonly Staying[];
}
