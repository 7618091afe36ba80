import { count } from '../../checks/words.ts';
import { closed, fields, operationType, type ProblemSentences } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import type { ChangeSet, FileEdits } from '../../source/changeSet.ts';
import { indentationAt } from '../../source/removal.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site, SiteFile } from '../../source/site.ts';
import { asWrittenIn, rulesOfFamily } from './ruleInPages.ts';

/** A drifted rule says the same again: pages that hold other versions take this one. They may look different. */
export interface SettleDrift {
  readonly kind: 'settle-drift';
  readonly family: string;
  /** The version to take. */
  readonly version: string;
  /** The versions that give way; all others when absent. */
  readonly from?: readonly string[];
  readonly pages?: readonly string[];
}

export type SettleProblem =
  | { readonly kind: 'no-such-version'; readonly family: string }
  | { readonly kind: 'nothing-to-settle' };

export interface SettlePlan {
  readonly changes: ChangeSet;
  readonly label: string;
  readonly pages: readonly string[];
}

export function planSettleDrift(site: Site, operation: SettleDrift): Result<SettlePlan, SettleProblem> {
  const found = rulesOfFamily(site, operation.family);
  const kept = found.find(({ unit }) => unit.version === operation.version && unit.closed);
  if (!kept) return fail({ kind: 'no-such-version', family: operation.family });
  const wanted = operation.pages && new Set(operation.pages);
  const givingWay = found.filter(
    ({ file, unit }) =>
      unit.version !== operation.version &&
      (operation.from?.includes(unit.version) ?? true) &&
      (wanted?.has(file.path) ?? true),
  );
  const byFile = new Map<SiteFile, FileEdits>();
  for (const other of givingWay) {
    const text = asWrittenIn(other, indentationAt(other.text, other.unit.span.start), kept);
    if (text === undefined) continue;
    const edits = byFile.get(other.file)?.edits ?? [];
    byFile.set(other.file, {
      path: other.file.path,
      hash: other.file.hash,
      edits: [...edits, { span: other.unit.span, text }],
    });
  }
  if (byFile.size === 0) return fail({ kind: 'nothing-to-settle' });
  return succeed({
    changes: { created: [], edited: [...byFile.values()], deleted: [] },
    label: kept.unit.label,
    pages: [...byFile.keys()].map((file) => file.path),
  });
}

export const settleProblems: ProblemSentences<SettleProblem> = {
  'no-such-version': (problem) => `No page holds ${problem.family} in the version that was chosen.`,
  'nothing-to-settle': () => 'No page holds another version of this rule.',
};

export const settleDrift = operationType<SettleDrift, SettleProblem>()({
  kind: 'settle-drift',
  choosesLook: true,
  schema: Type.Object(
    {
      kind: Type.Literal('settle-drift'),
      family: Type.String(),
      version: Type.String(),
      from: Type.Optional(Type.Array(Type.String(), { maxItems: 10_000 })),
      pages: fields.somePages,
    },
    closed,
  ),
  plan(site, operation) {
    const plan = planSettleDrift(site, operation);
    if (!plan.ok) return plan;
    const { changes, label, pages } = plan.value;
    return succeed({ changes, sentence: `Let ${label} say the same on ${count(pages.length, 'more page')}` });
  },
  problems: settleProblems,
});
