import { hiddenIn, withSemicolon } from '../../checks/hiddenDeclarations.ts';
import { duplicateRules } from '../../checks/text/duplicateRules.ts';
import type { Sheet } from '../../sheet/sheet.ts';
import { wholeLinesAndGap } from '../../source/removal.ts';
import type { Edit } from '../../source/span.ts';
import { rulesOf, withLead } from './sheetRules.ts';

/** The edits that take duplicates out, one for each. */
export function duplicateEdits({ text, sheet }: { readonly text: string; readonly sheet: Sheet }): readonly Edit[] {
  const twice = duplicateRules(sheet).map(({ early }) => early);
  const whole = { start: 0, end: text.length };
  return [
    ...twice.map((rule) => ({ span: wholeLinesAndGap(text, withLead(text, sheet, rule), whole), text: '' })),
    ...rulesOf(sheet)
      .filter(({ rule }) => !twice.includes(rule))
      .flatMap(({ rule }) =>
        hiddenIn(rule.declarations).map(([early]) => ({ span: withSemicolon(text, early), text: '' })),
      ),
  ];
}
