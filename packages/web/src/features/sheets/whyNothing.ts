import type { RuleScoreReply } from '@syndeton/contract';
import type { OutlinedRule, TextFinding } from '@syndeton/core';
import { beaterWords } from './beaterWords.ts';

/** Why an edit of a rule changes no page, in one sentence; code between backticks. */
export function whyNothing(
  rule: OutlinedRule,
  changed: readonly string[],
  {
    score,
    elements,
    findings,
  }: {
    readonly score: RuleScoreReply | undefined;
    /** Elements that the rule reaches; undefined when that is not known. */
    readonly elements: number | undefined;
    readonly findings: readonly TextFinding[];
  },
): string {
  const own = findings.find(
    ({ kind, span }) =>
      /^(strange-space|unknown-property|invalid-value|lost-declaration|hidden-declaration|refused-selector|brace|unclosed|media-query)$/.test(
        kind,
      ) &&
      span.start >= rule.start &&
      span.start <= rule.end,
  );
  if (own) return own.sentence;
  if (elements === 0) return `No page has an element for \`${rule.selector}\`.`;
  const beater = score?.beaters.find(({ properties }) => changed.some((name) => properties.includes(name)));
  const said = score?.declarations.filter(({ property }) => changed.includes(property)) ?? [];
  if (beater && said.every(({ wins }) => wins === 0)) return `${beaterWords(beater)} wherever it applies.`;
  if (rule.under.length > 0)
    return `It counts under \`${rule.under.join(' ')}\` only, and there nothing looks different.`;
  return 'What it says is what these elements look like already.';
}
