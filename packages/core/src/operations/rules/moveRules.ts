import { trimmed } from '../../source/space.ts';
import { Type } from '@sinclair/typebox';
import type { ChangeSet, FileEdits } from '../../source/changeSet.ts';
import { lineEndOf, withLineEnds } from '../../source/lineEnds.ts';
import { wholeLinesAndGap } from '../../source/removal.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import type { Edit } from '../../source/span.ts';
import { siteBase } from '../../values/urls.ts';
import { asciiText, closingText, rebasedText } from '../gather/printRule.ts';
import { closed, fields, operationType } from '../operationType.ts';
import { placedText, placeForRules } from './placeForRules.ts';
import {
  editableSheet,
  findRules,
  namesOfRules,
  RuleRefSchema,
  ruleProblems,
  type RuleProblem,
  type RuleRef,
} from './ruleRef.ts';
import type { Sheet } from '../../sheet/sheet.ts';
import { removals, rulesOf, underOf, withLead, type FoundRule } from './sheetRules.ts';

/** Rules with the comments right above them go to another place: in their own sheet or in another one. */
export interface MoveRules {
  readonly kind: 'move-rules';
  readonly sheet: string;
  readonly rules: readonly RuleRef[];
  readonly to: string;
  /** Before this rule; at the end when absent. */
  readonly before?: RuleRef;
}

export type MoveRulesProblem = RuleProblem | { readonly kind: 'rule-not-moved'; readonly selector: string };

export function planMoveRules(site: Site, operation: MoveRules): Result<ChangeSet, MoveRulesProblem> {
  const { sheet: from, rules: refs, to, before } = operation;
  const source = editableSheet(site, from);
  if (!source.ok) return source;
  const target = editableSheet(site, to);
  if (!target.ok) return target;
  const found = findRules(from, source.value.sheet, refs);
  if (!found.ok) return found;
  const place = placeForRules(to, target.value, before);
  if (!place.ok) return place;
  const { text, sheet, file } = source.value;
  const lineEnd = lineEndOf(target.value.text === '' ? text : target.value.text);
  const written: string[] = [];
  const taken: Edit[] = [];
  for (const one of found.value) {
    const lead = withLead(text, sheet, one.rule);
    const moved = movedText(text.slice(lead.start, lead.end), one, from, to, lineEnd);
    if (moved === undefined) return fail({ kind: 'rule-not-moved', selector: one.rule.selector });
    written.push((from === to ? '' : leadOfEmptied(text, sheet, one, found.value, lineEnd)) + moved);
    // the place it is put before may be the rule itself
    if (from === to && place.value > lead.start && place.value < lead.end)
      return fail({ kind: 'rule-not-moved', selector: one.rule.selector });
    taken.push({ span: wholeLinesAndGap(text, lead, { start: 0, end: text.length }), text: '' });
  }
  const put: Edit = {
    span: { start: place.value, end: place.value },
    text: placedText(target.value.text, place.value, written.join(lineEnd), lineEnd),
  };
  const edited: FileEdits[] =
    from === to
      ? [{ path: from, hash: file.hash, edits: [...taken, put] }]
      : [
          {
            path: from,
            hash: file.hash,
            edits: removals(
              text,
              sheet,
              found.value.map(({ rule }) => rule),
            ),
          },
          { path: to, hash: target.value.file.hash, edits: [put] },
        ];
  return succeed({ created: [], edited, deleted: [] });
}

/** The comments above an at-rule of which nothing stays, before the first of its rules. */
function leadOfEmptied(
  text: string,
  sheet: Sheet,
  { rule, groups }: FoundRule,
  moving: readonly FoundRule[],
  lineEnd: string,
): string {
  const [outer] = groups;
  const first = outer && rulesOf(sheet).find((one) => one.groups[0] === outer);
  const isEmptied =
    first?.rule === rule &&
    rulesOf(sheet).every((one) => one.groups[0] !== outer || moving.some((other) => other.rule === one.rule));
  if (!isEmptied) return '';
  const comments = trimmed(text.slice(withLead(text, sheet, outer!).start, outer!.span.start));
  return comments === '' ? '' : withLineEnds(comments, lineEnd) + lineEnd;
}

/** The rule as it may stand in the other sheet, inside the at-rules it stood in; undefined where an address cannot be moved. */
function movedText(
  written: string,
  { rule, groups }: FoundRule,
  from: string,
  to: string,
  lineEnd: string,
): string | undefined {
  const closing = rule.closed ? '' : closingText(written);
  const rebased = closing === undefined ? undefined : rebasedText(written + closing, siteBase(from), to);
  if (rebased === undefined) return undefined;
  const text = withLineEnds(from === to ? rebased : asciiText(rebased), lineEnd);
  return underOf(groups).reduceRight((inner, group) => `${group} {${lineEnd}${inner}${lineEnd}}`, text);
}

export const moveRules = operationType<MoveRules, MoveRulesProblem>()({
  kind: 'move-rules',
  schema: Type.Object(
    {
      kind: Type.Literal('move-rules'),
      sheet: fields.sheet,
      rules: Type.Array(RuleRefSchema, { minItems: 1, maxItems: 10_000 }),
      to: fields.sheet,
      before: Type.Optional(RuleRefSchema),
    },
    closed,
  ),
  plan(site, operation) {
    const plan = planMoveRules(site, operation);
    if (!plan.ok) return plan;
    const { sheet, to, rules, before } = operation;
    const where = before ? `before ${before.selector}` : 'to the end';
    const sentence = `Move ${namesOfRules(rules)} from ${sheet} ${sheet === to ? where : `to ${to}`}`;
    return succeed({ changes: plan.value, sentence });
  },
  problems: {
    ...ruleProblems,
    'rule-not-moved': ({ selector }) =>
      `${selector} cannot be moved there: it would stand before itself, or holds an address or a string that cannot be written at another place.`,
  },
});
