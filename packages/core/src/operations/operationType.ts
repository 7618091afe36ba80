import { Type, type TSchema } from '@sinclair/typebox';
import type { SiteCheck } from '../checks/checkSite.ts';
import type { ChangeSet } from '../source/changeSet.ts';
import type { Result } from '../source/result.ts';
import type { Site, SiteDecisions } from '../source/site.ts';
import type { LeftRule } from './gather/leftRule.ts';
import type { ReadingMakers } from './readings.ts';

/** What an operation would change, and in one sentence. */
export interface OperationPlan {
  readonly changes: ChangeSet;
  readonly sentence: string;
  readonly readings?: ReadingMakers;
  /** Sheets that are not in the site and count as nothing from here on. */
  readonly absent?: readonly string[];
  /** Pages that are to do without a sheet: nobody forgot to link it there. */
  readonly leftOut?: SiteDecisions['leftOut'];
  /** Rules that were asked for and stay in their pages. */
  readonly left?: readonly LeftRule[];
}

/** What is known of sites and need not be found out again by each operation. */
export interface Known {
  readonly check: (site: Site) => Pick<SiteCheck, 'findings'>;
}

interface OfKind {
  readonly kind: string;
}

/** A sentence for each kind of problem: what is wrong, with the names in it. */
export type ProblemSentences<Problem extends OfKind> = {
  readonly [Kind in Problem['kind']]: (problem: Extract<Problem, { readonly kind: Kind }>) => string;
};

/** All that is to be known of one kind of operation. */
export interface OperationType<Operation extends OfKind, Problem extends OfKind, Schema extends TSchema = TSchema> {
  readonly kind: Operation['kind'];
  /** JSON Schema 2020-12 of the operation as data. */
  readonly schema: Schema;
  /** Pure: what it would change on this site, or why it cannot. */
  readonly plan: (site: Site, operation: Operation, known: Known) => Result<OperationPlan, Problem>;
  readonly problems: ProblemSentences<Problem>;
  /** Whoever takes it chooses another look: what it changes is intended. */
  readonly choosesLook?: true;
}

type Plain<Value> = Value extends string | number | boolean | undefined | null
  ? Value
  : Value extends readonly (infer Item)[]
    ? readonly Plain<Item>[]
    : { readonly [Key in keyof Value]: Plain<Value[Key]> };

type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? true : false) : false;

/** Ties the parts of an operation together. What its schema says must be just what its type says, else it cannot stand in the list. */
export const operationType =
  <Operation extends OfKind, Problem extends OfKind>() =>
  <Schema extends TSchema>(
    type: OperationType<Operation, Problem, Schema>,
  ): Same<Plain<Schema['static']>, Plain<Operation>> extends true
    ? OperationType<Operation, Problem, Schema>
    : { readonly schemaSaysAnotherShape: Schema['static'] } =>
    type as never;

/** Fields that many operations have. */
export const fields = {
  sheet: Type.String({ minLength: 1, maxLength: 400 }),
  /** All pages when absent. */
  somePages: Type.Optional(Type.Array(Type.String(), { maxItems: 10_000 })),
  pages: Type.Array(Type.String(), { minItems: 1, maxItems: 10_000 }),
};

/** An object that has these fields and no others. */
export const closed = { additionalProperties: false } as const;

/** One page by its name, several by their number. */
export const onPages = (pages: readonly string[]): string => (pages.length === 1 ? pages[0]! : `${pages.length} pages`);
