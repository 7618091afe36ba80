import type { OperationBody } from '@syndeton/contract';
import { parseSheet } from '@syndeton/core';

type Rule = ReturnType<typeof parseSheet>['rules'][number];
type Written = Extract<OperationBody, { kind: 'gather-sheet' }>['rules'][number];

/** A line of the sheet. `rule`: what begins on it; null for a rule that came from style attributes. */
export interface SheetLine {
  readonly number: number;
  readonly text: string;
  readonly rule: Written | null | undefined;
}

/**
 * The lines of a plan's new sheet, each rule tied to what it was written from: rules stand in the order of the plan, those of style
 * attributes behind them.
 */
export function sheetLines(text: string, rules: readonly Written[]): readonly SheetLine[] {
  const written = rules.filter(({ only, dead }) => !dead && only?.length !== 0);
  const starts = unitStarts(parseSheet(text).rules);
  const lines = text.split(/\r\n|\n|\r/);
  const offsets = [0, ...[...text.matchAll(/\r\n|\n|\r/g)].map(({ index, 0: end }) => index + end.length)];
  const ruleAt = new Map<number, Written | null>();
  let line = 0;
  starts.forEach((start, i) => {
    while (line + 1 < offsets.length && offsets[line + 1]! <= start) line++;
    if (!ruleAt.has(line)) ruleAt.set(line, written[i] ?? null);
  });
  return lines.map((one, i) => ({ number: i + 1, text: one, rule: ruleAt.get(i) }));
}

/** Where style rules and definitions begin, those in conditional groups included. */
function unitStarts(rules: readonly Rule[]): readonly number[] {
  return rules.flatMap((rule) =>
    rule.kind === 'group'
      ? unitStarts(rule.rules)
      : rule.kind === 'style' || rule.kind === 'definition'
        ? [rule.span.start]
        : [],
  );
}
