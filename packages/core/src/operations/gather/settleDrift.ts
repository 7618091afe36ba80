import { count } from '../../checks/words.ts';
import { closed, fields, operationType, type ProblemSentences } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import { parseFile } from '../../page/parsePage.ts';
import { styleSources } from '../../page/styleSources.ts';
import type { ChangeSet, FileEdits } from '../../source/changeSet.ts';
import { lineEndOf } from '../../source/lineEnds.ts';
import { indentationAt } from '../../source/removal.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import { pagesOf, type Site, type SiteFile } from '../../source/site.ts';
import { textOf } from '../../source/span.ts';
import { embeddedBlocks, type BlockUnit } from '../../survey/blockUnits.ts';
import type { Base } from '../../values/urls.ts';
import { dedented, indented, rebasedText } from './printRule.ts';

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
  { readonly kind: 'no-such-version'; readonly family: string } | { readonly kind: 'nothing-to-settle' };

export interface SettlePlan {
  readonly changes: ChangeSet;
  readonly label: string;
  readonly pages: readonly string[];
}

interface Found {
  readonly file: SiteFile;
  readonly text: string;
  readonly base: Base;
  readonly unit: BlockUnit;
}

export function planSettleDrift(site: Site, operation: SettleDrift): Result<SettlePlan, SettleProblem> {
  const found = pagesOf(site).flatMap((file) => unitsOf(file, operation.family));
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
    const text = inPlaceOf(other, kept);
    if (text === undefined) continue;
    const edits = byFile.get(other.file)?.edits ?? [];
    byFile.set(other.file, { path: other.file.path, hash: other.file.hash, edits: [...edits, { span: other.unit.span, text }] }); // prettier-ignore
  }
  if (byFile.size === 0) return fail({ kind: 'nothing-to-settle' });
  return succeed({
    changes: { created: [], edited: [...byFile.values()], deleted: [] },
    label: kept.unit.label,
    pages: [...byFile.keys()].map((file) => file.path),
  });
}

function unitsOf(file: SiteFile, family: string): readonly Found[] {
  const { text } = file;
  if (text === undefined || !/<style/i.test(text)) return [];
  const tree = parseFile(file);
  const sources = styleSources(tree, file.path);
  return embeddedBlocks(tree, file.path, sources)
    .filter((block) => !block.source.foreign && block.source.idle === undefined)
    .flatMap((block) => block.units.filter((unit) => unit.family === family))
    .map((unit) => ({ file, text, base: sources.base, unit }));
}

/** The kept rule's text, its references counted from the other page, at that page's indentation and line ends. */
function inPlaceOf(other: Found, kept: Found): string | undefined {
  const target = other.base.kind === 'site' ? other.base.path : undefined;
  if (target === undefined) return undefined;
  const moved = rebasedText(textOf(kept.text, kept.unit.span), kept.base, target);
  if (moved === undefined) return undefined;
  const lineEnd = lineEndOf(other.text);
  const plain = dedented(moved, indentationAt(kept.text, kept.unit.span.start), lineEnd);
  const own = indentationAt(other.text, other.unit.span.start);
  return indented(plain, own, lineEnd).slice(own.length);
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
