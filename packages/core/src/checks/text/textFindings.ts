import { parseSelectorList } from '../../selectors/parseSelector.ts';
import { parseSheet } from '../../sheet/parseSheet.ts';
import type { Declaration, Rule, Sheet } from '../../sheet/sheet.ts';
import { tokensOf, tokenTypes as T } from '../../sheet/tokens.ts';
import { wholeLines } from '../../source/removal.ts';
import type { Span } from '../../source/span.ts';
import { declarationSlips } from '../declarationSlips.ts';
import { hiddenIn, withSemicolon } from '../hiddenDeclarations.ts';
import { blanked, pageMarkup } from '../sheetFiles.ts';
import { code } from '../words.ts';
import { braceFindings } from './braces.ts';
import { duplicateFindings } from './duplicateRules.ts';
import { lostDeclarations, missingSemicolon } from './lostDeclarations.ts';
import { mediaSlip } from './mediaSlips.ts';
import { misplacedRules } from './misplacedRules.ts';
import { strangeSpaces } from './strangeSpaces.ts';
import { severityOf } from '../finding.ts';
import type { TextFinding } from './textFinding.ts';

/**
 * All that is wrong with a sheet's text by itself, in the order of the text: what browsers drop, what they read otherwise than it
 * looks, and what never counts. `inQuirks`: some page that links it is in quirks mode.
 */
export function textFindings(text: string, inQuirks = false): readonly TextFinding[] {
  const sheet = parseSheet(text);
  const declared = declarationsIn(sheet.rules).flatMap((list) => declarationFindings(text, list, inQuirks));
  return inOrder([...structureIn(text, sheet), ...markupFindings(text, sheet), ...declared]);
}

/** What is wrong with how a text is put together: all of the above but page markup and single declarations. */
export const structureFindings = (text: string): readonly TextFinding[] => inOrder(structureIn(text, parseSheet(text)));

const structureIn = (text: string, sheet: Sheet): readonly TextFinding[] => [
  ...braceFindings(text),
  ...strangeSpaces(text),
  ...unclosedTexts(text),
  ...misplacedRules(text, sheet),
  ...duplicateFindings(text, sheet),
  ...ruleFindings(text, sheet.rules, false),
];

const inOrder = (found: readonly TextFinding[]): readonly TextFinding[] =>
  [...found].sort((a, b) => a.span.start - b.span.start || a.span.end - b.span.end);

function declarationsIn(rules: readonly Rule[]): readonly (readonly Declaration[])[] {
  return rules.flatMap((rule) => {
    if (rule.kind === 'style') return [rule.declarations, ...declarationsIn(rule.nested)];
    if (rule.kind === 'declarations') return [rule.declarations];
    return rule.kind === 'group' ? declarationsIn(rule.rules) : [];
  });
}

function ruleFindings(text: string, rules: readonly Rule[], nested: boolean): readonly TextFinding[] {
  return rules.flatMap((rule): readonly TextFinding[] => {
    switch (rule.kind) {
      case 'style':
        return [
          ...selectorFindings(text, rule.selector, rule.selectorSpan, nested),
          ...lostDeclarations(text, rule.nested),
          ...ruleFindings(text, rule.nested, true),
        ];
      case 'group':
        return [
          ...(rule.name === 'media'
            ? mediaFindings(text, preludeSpan(text, rule.span.start + 6, rule.blockSpan.start - 1))
            : []),
          ...ruleFindings(text, rule.rules, nested || rule.name === 'scope'),
        ];
      case 'import':
        return mediaFindings(text, rule.media === '' ? undefined : lastOf(text, rule.media, rule.span));
      default:
        return [];
    }
  });
}

function declarationFindings(text: string, list: readonly Declaration[], inQuirks: boolean): readonly TextFinding[] {
  const slips = declarationSlips(list, inQuirks).map(({ declaration, kind, span, nearest }): TextFinding => {
    const unended = kind === 'invalid-value' ? missingSemicolon(declaration) : undefined;
    if (unended) return { kind, severity: 'wrong', ...unended };
    const right = nearest();
    const sentence =
      kind === 'unknown-property'
        ? 'No property has this name, so the line does nothing.'
        : `${code(declaration.property)} does not take ${code(declaration.value)}, so browsers drop the line.`;
    const mend =
      right === undefined ? {} : { mend: { label: `Make it ${code(right)}`, edits: [{ span, text: right }] } };
    return {
      kind,
      severity: 'wrong',
      span: span.end > span.start ? span : declaration.span,
      sentence,
      ...mend,
    };
  });
  const hidden = hiddenIn(list).map(([early, late]): TextFinding => ({
    kind: 'hidden-declaration',
    severity: severityOf['hidden-declaration'],
    span: early.span,
    sentence: `${code(`${late.property}: ${late.value}`)} further down in this rule beats it, so it never counts.`,
    mend: { label: 'Remove it', edits: [{ span: withSemicolon(text, early), text: '' }] },
  }));
  return [...slips, ...hidden];
}

function selectorFindings(text: string, selector: string, span: Span, nested: boolean): readonly TextFinding[] {
  if (nested || parseSelectorList(selector) !== undefined) return [];
  const line = /(^|\n)\s*\/\/[^\n]*/.exec(text.slice(span.start, span.end));
  if (line) {
    const start = span.start + line.index + line[0].indexOf('//');
    const end = span.start + line.index + line[0].length;
    const said = text.slice(start + 2, end).trim();
    return [
      {
        kind: 'refused-selector',
        severity: severityOf['refused-selector'],
        span: { start, end },
        sentence: 'CSS has no comments that begin with `//`: the rule after it is lost.',
        mend: { label: 'Make it a comment', edits: [{ span: { start, end }, text: `/* ${said} */` }] },
      },
    ];
  }
  // page markup and braces say it better; other browsers know their own names
  if (selector === '' || /[<}]/.test(selector) || /:-(moz|ms|o|webkit|khtml)-/i.test(selector)) return [];
  const right = [/\.\s+(?=[\w-])/g, /#\s+(?=[\w-])/g].reduce(
    (said, slip) => said.replace(slip, (found) => found[0]!),
    selector.replace(/,\s*$|^\s*,/, ''),
  );
  const isRight = right !== selector && parseSelectorList(right) !== undefined;
  return [
    {
      kind: 'refused-selector',
      severity: severityOf['refused-selector'],
      span,
      sentence: `Browsers cannot read the selector ${code(selector)}, so they drop the whole rule.`,
      ...(isRight ? { mend: { label: `Make it ${code(right)}`, edits: [{ span, text: right }] } } : {}),
    },
  ];
}

function mediaFindings(text: string, span: Span | undefined): readonly TextFinding[] {
  const slip = span && mediaSlip(text.slice(span.start, span.end));
  if (!slip) return [];
  const { sentence, right } = slip;
  const mend = right === undefined ? {} : { mend: { label: `Make it ${code(right)}`, edits: [{ span, text: right }] } };
  return [{ kind: 'media-query', severity: severityOf['media-query'], span, sentence, ...mend }];
}

/** Without the white space around it; undefined when nothing is left. */
function preludeSpan(text: string, from: number, to: number): Span | undefined {
  let [start, end] = [from, to];
  while (start < end && /\s/.test(text[start]!)) start++;
  while (end > start && /\s/.test(text[end - 1]!)) end--;
  return end > start ? { start, end } : undefined;
}

function lastOf(text: string, part: string, within: Span): Span | undefined {
  const at = text.slice(within.start, within.end).lastIndexOf(part);
  return at < 0 ? undefined : { start: within.start + at, end: within.start + at + part.length };
}

function markupFindings(text: string, sheet: Sheet): readonly TextFinding[] {
  return [...blanked(text, sheet.comments).matchAll(pageMarkup)].map((found) => {
    const span = { start: found.index, end: found.index + found[0].length };
    return {
      kind: 'markup-in-sheet',
      severity: severityOf['markup-in-sheet'],
      span,
      sentence: `${code(text.slice(span.start, span.end))} is page markup; the rule after it is lost.`,
      mend: { label: 'Remove it', edits: [{ span: wholeLines(text, span), text: '' }] },
    };
  });
}

/** A comment that goes on to the end of the text, and strings that the end of their line spoils. */
function unclosedTexts(text: string): readonly TextFinding[] {
  const tokens = tokensOf(text);
  const out: TextFinding[] = [];
  for (let i = 0; i < tokens.count; i++) {
    const [type, start, end] = [tokens.type[i], tokens.start[i]!, tokens.end[i]!];
    const written = text.slice(start, end);
    if (type === T.Comment && !(written.length >= 4 && written.endsWith('*/'))) {
      const line = { start, end: start + /^[^\r\n]*/.exec(written)![0].length };
      const edits = [{ span: { start: line.end, end: line.end }, text: ' */' }];
      out.push({
        kind: 'unclosed',
        severity: severityOf.unclosed,
        span: line,
        sentence: 'This comment is never closed, so all that follows is lost.',
        mend: { label: 'Close it at the end of this line', edits },
      });
    } else if (type === T.BadString) {
      const quote = written[0]!;
      const stop = start + /^[^\r\n;}]*/.exec(text.slice(start))![0].length;
      const edits = [{ span: { start: stop, end: stop }, text: quote }];
      out.push({
        kind: 'unclosed',
        severity: severityOf.unclosed,
        span: { start, end: Math.max(stop, start + 1) },
        sentence: 'This string is not closed in its line, so the line is lost.',
        mend: { label: 'Close it', edits },
      });
    }
  }
  return out;
}
