import type { Rule, Sheet } from '../../sheet/sheet.ts';
import { wholeLines } from '../../source/removal.ts';
import { code } from '../words.ts';
import { severityOf } from '../finding.ts';
import type { TextFinding } from './textFinding.ts';

/**
 * `@charset`, `@import` and `@namespace` where browsers drop them. CSS Syntax 3, "The @charset Rule": the very first bytes, spelt
 * exactly; CSS Cascading 5, "@import": before all else but `@charset` and `@layer` names; CSS Namespaces 3, "Syntax": after imports.
 */
export function misplacedRules(text: string, sheet: Sheet): readonly TextFinding[] {
  const out: TextFinding[] = [];
  let before: Rule | undefined;
  let namespaced = false;
  for (const rule of sheet.rules) {
    const name = rule.kind === 'statement' ? rule.name : rule.kind === 'import' ? 'import' : '';
    if (name === 'charset') {
      const first = rule.span.start === 0 || (rule.span.start === 1 && text[0] === '\ufeff');
      if (!first || !/^@charset "[^"\n]*";/.test(text.slice(rule.span.start)))
        out.push(misplaced(text, rule, first ? spelling : '`@charset` counts only as the very first thing in a file.'));
      continue;
    }
    if (name === 'import' && (before || namespaced)) out.push(importAfter(text, sheet, rule, before));
    else if (name === 'namespace' && before)
      out.push(misplaced(text, rule, `Browsers drop ${code('@namespace')} after other rules.`));
    else if (name === 'namespace') namespaced = true;
    else if (rule.kind !== 'import' && !(name === 'layer') && rule.kind !== 'dropped') before ??= rule;
  }
  return out;
}

const spelling = 'Browsers read `@charset` only in small letters, with one space and double quotes.';

const misplaced = (text: string, { span }: Rule, sentence: string): TextFinding => ({
  kind: 'misplaced-rule',
  severity: severityOf['misplaced-rule'],
  span,
  sentence,
  mend: { label: 'Remove it', edits: [{ span: wholeLines(text, span), text: '' }] },
});

/** Moving it to the top makes it count: the look changes, so its label says so. */
function importAfter(text: string, sheet: Sheet, rule: Rule, before: Rule | undefined): TextFinding {
  const what = before?.kind === 'style' ? code(before.selector) : 'other rules';
  const first = before ?? sheet.rules[0]!;
  const written = text.slice(rule.span.start, rule.span.end);
  const lineEnd = text.includes('\r\n') ? '\r\n' : '\n';
  return {
    kind: 'misplaced-rule',
    severity: severityOf['misplaced-rule'],
    span: rule.span,
    sentence: `Browsers drop an ${code('@import')} that comes after ${what}.`,
    mend: {
      label: 'Move it to the top, where it counts',
      edits: [
        { span: { start: first.span.start, end: first.span.start }, text: written + lineEnd },
        { span: wholeLines(text, rule.span), text: '' },
      ],
    },
  };
}
