import { trimmed } from '../../source/space.ts';
import { closingText } from '../gather/printRule.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import { findRule, type EditableSheet, type RuleProblem, type RuleRef } from './ruleRef.ts';
import { withLead } from './sheetRules.ts';

/** Where rules go in a sheet: before another rule and its comments (or the at-rule it stands in), or at the end. */
export function placeForRules(
  path: string,
  { text, sheet }: EditableSheet,
  before: RuleRef | undefined,
): Result<number, RuleProblem> {
  if (!before) return succeed(text.length);
  const found = findRule(sheet, before);
  if (!found) return fail({ kind: 'rule-not-in-sheet', sheet: path, selector: before.selector });
  const [outer] = found.groups;
  return succeed(outer ? outer.span.start : withLead(text, sheet, found.rule).start);
}

/** The text as it is put in at a place between rules: on lines of its own. What is left open at the end of the sheet is closed first. */
export function placedText(text: string, at: number, written: string, lineEnd: string): string {
  if (at < text.length) return written + lineEnd;
  const closing = closingText(text) ?? '';
  const gap = trimmed(text) === '' || (closing === '' && /[\r\n]$/.test(text)) ? '' : lineEnd;
  return closing + gap + written + lineEnd;
}
