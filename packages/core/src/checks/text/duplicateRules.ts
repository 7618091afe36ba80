import type { Rule, Sheet, StyleRule } from '../../sheet/sheet.ts';
import { wholeLinesAndGap } from '../../source/removal.ts';
import { LineIndex } from '../../source/span.ts';
import { selectorText } from '../../survey/selectorText.ts';
import { comparableValue } from '../../values/comparableValue.ts';
import { code } from '../words.ts';
import { severityOf } from '../finding.ts';
import type { TextFinding } from './textFinding.ts';

/** An earlier rule that a later one says again, word for word, under the same conditions: the later always beats it. */
export interface DuplicateRule {
  readonly early: StyleRule;
  readonly late: StyleRule;
}

export function duplicateRules(sheet: Sheet): readonly DuplicateRule[] {
  const out: DuplicateRule[] = [];
  const walk = (rules: readonly Rule[], under: string, last: Map<string, StyleRule>): void => {
    // from the end: what stands last is what counts
    for (const rule of [...rules].reverse()) {
      if (rule.kind === 'group' && isPlainGroup(rule.name))
        walk(rule.rules, `${under}@${rule.name} ${rule.prelude}{`, last);
      if (rule.kind !== 'style' || rule.nested.length > 0 || !rule.closed || rule.declarations.length === 0) continue;
      const key = under + selectorText(rule.selector) + '{' + sayings(rule);
      const late = last.get(key);
      if (late) out.push({ early: rule, late });
      else last.set(key, rule);
    }
  };
  walk(sheet.rules, '', new Map());
  return out.reverse();
}

/** Groups that say only whether their rules count. In `@layer` and `@scope` order and strength are others. */
const isPlainGroup = (name: string): boolean => name === 'media' || name === 'supports';

const sayings = (rule: StyleRule): string =>
  rule.declarations
    .map(({ property, value, important }) => `${property}:${comparableValue(property, value)}${important ? '!' : ''}`)
    .join(';');

export function duplicateFindings(text: string, sheet: Sheet): readonly TextFinding[] {
  const lines = new LineIndex(text);
  return duplicateRules(sheet).map(({ early, late }) => ({
    kind: 'duplicate-rule',
    severity: severityOf['duplicate-rule'],
    span: early.selectorSpan,
    sentence: `${code(early.selector)} says the same again in line ${lines.placeOf(late.span.start).line}; this one never counts.`,
    mend: {
      label: 'Take this one out',
      edits: [{ span: wholeLinesAndGap(text, early.span, { start: 0, end: text.length }), text: '' }],
    },
  }));
}
