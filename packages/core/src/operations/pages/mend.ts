import { closed, fields, operationType, type Known, type ProblemSentences } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import type { FoundFinding } from '../../checks/finding.ts';
import { markupFindings } from '../../checks/pageMarkup.ts';
import type { ChangeSet } from '../../source/changeSet.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';

/** Mends what one finding says, on all files it names or only on some pages and sheets. */
export interface MendFinding {
  readonly kind: 'mend';
  readonly finding: string;
  readonly files?: readonly string[];
}

export type MendProblem =
  | { readonly kind: 'no-such-finding'; readonly finding: string }
  | { readonly kind: 'nothing-to-mend'; readonly finding: string };

export interface MendPlan {
  readonly changes: ChangeSet;
  readonly sentence: string;
}

/** Looks for the finding on the site as it is now, so that a mend fits whatever stands before it in the draft. */
export function planMend(site: Site, { finding, files }: MendFinding, known: Known): Result<MendPlan, MendProblem> {
  const found = findingsFor(site, { finding, files }, known).find((one) => one.id === finding);
  if (!found) return fail({ kind: 'no-such-finding', finding });
  const mends = found.mends.filter(({ path }) => files === undefined || files.includes(path));
  if (found.action.does !== 'mend' || mends.length === 0) return fail({ kind: 'nothing-to-mend', finding });
  const edited = mends.map(({ path, edits }) => ({ path, hash: site.files.get(path)!.hash, edits: [...edits] }));
  return succeed({ changes: { created: [], edited, deleted: [] }, sentence: sentenceFor(found) });
}

/** What a validator says is no part of the check: it is asked about the pages named. */
const findingsFor = (
  site: Site,
  { finding, files }: Pick<MendFinding, 'finding' | 'files'>,
  known: Known,
): readonly FoundFinding[] =>
  finding.startsWith('page-markup ')
    ? markupFindings(site, undefined, files && new Set(files))
    : known.check(site).findings;

const sentenceFor = ({ action, sentence }: FoundFinding): string => `${action.label}: ${sentence.replaceAll('`', '')}`;

export const mendProblems: ProblemSentences<MendProblem> = {
  'no-such-finding': (problem) =>
    `The site no longer has the finding "${problem.finding}". It was mended already, or its files changed.`,
  'nothing-to-mend': (problem) =>
    `The finding "${problem.finding}" cannot be mended by itself on these files. Look at its place and change it by hand.`,
};

export const mend = operationType<MendFinding, MendProblem>()({
  kind: 'mend',
  schema: Type.Object(
    { kind: Type.Literal('mend'), finding: Type.String({ maxLength: 20_000 }), files: fields.somePages },
    closed,
  ),
  plan: planMend,
  problems: mendProblems,
});
