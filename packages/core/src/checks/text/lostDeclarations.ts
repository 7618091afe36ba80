import type { Declaration, Rule } from '../../sheet/sheet.ts';
import { wholeLines } from '../../source/removal.ts';
import { longhandsOf } from '../../values/longhands.ts';
import { severityOf } from '../finding.ts';
import { code } from '../words.ts';
import type { TextFinding } from './textFinding.ts';

/**
 * What stands among the declarations of a rule and is none: a colon forgotten, an equals sign in its place, a `//`, a stray sign. CSS
 * Syntax 3, "Consume the remnants of a bad declaration". A sign before a name that only old browsers passed over (`*zoom: 1`) was meant so.
 */
export function lostDeclarations(text: string, nested: readonly Rule[]): readonly TextFinding[] {
  return nested.flatMap((rule): readonly TextFinding[] => {
    if (rule.kind !== 'dropped') return [];
    const written = text.slice(rule.span.start, rule.span.end).replace(/[\s;]+$/, '');
    if (
      written === '' ||
      /^[*#+&!$/.](?![/*])-?[a-z-]+\s*:/i.test(written) ||
      /<[?%!/a-z]|\{\{|\{%|[{}]/i.test(written)
    )
      return [];
    const span = { start: rule.span.start, end: rule.span.start + written.length };
    return [
      { kind: 'lost-declaration', severity: severityOf['lost-declaration'], span, ...saidOf(text, written, span) },
    ];
  });
}

function saidOf(text: string, written: string, span: TextFinding['span']): Pick<TextFinding, 'sentence' | 'mend'> {
  if (written.startsWith('//')) {
    const line = /^[^\r\n]*/.exec(written)![0].trimEnd();
    const edits = [
      { span: { start: span.start, end: span.start + line.length }, text: `/* ${line.slice(2).trim()} */` },
    ];
    return {
      sentence: 'CSS has no comments that begin with `//`: all up to the next semicolon is lost.',
      ...(line.includes('*/') ? {} : { mend: { label: 'Make it a comment', edits } }),
    };
  }
  const [, name, value] = /^([a-z-]+)(?:\s*=\s*|\s+)([^=\s][^]*)$/i.exec(written) ?? [];
  if (name !== undefined && longhandsOf(name.toLowerCase()).length > 0 && !value!.includes(':')) {
    const right = `${name}: ${value!}`;
    return {
      sentence: `${code(written)} has no colon, so browsers pass over it.`,
      mend: { label: `Make it ${code(right)}`, edits: [{ span, text: right }] },
    };
  }
  const end = /^\s*;/.exec(text.slice(span.end))?.[0].length ?? 0;
  return {
    sentence: `${code(written.length > 40 ? `${written.slice(0, 40)}…` : written)} is no declaration, so browsers pass over it.`,
    mend: {
      label: 'Remove it',
      edits: [{ span: wholeLines(text, { start: span.start, end: span.end + end }), text: '' }],
    },
  };
}

/** Two declarations that are one to browsers: nothing ends the first. */
export function missingSemicolon({
  value,
  valueSpan,
}: Declaration): Pick<TextFinding, 'span' | 'sentence' | 'mend'> | undefined {
  const [, first, name] = /^([^:;]*?)\s*[\r\n]\s*(-?[a-z-]+)\s*:/i.exec(value) ?? [];
  if (first === undefined || first === '' || longhandsOf(name!.toLowerCase()).length === 0) return undefined;
  const end = valueSpan.start + first.length;
  return {
    span: { start: valueSpan.start, end },
    sentence: `A semicolon is missing after ${code(first)}, so browsers drop both lines.`,
    mend: { label: 'Put it in', edits: [{ span: { start: end, end }, text: ';' }] },
  };
}
