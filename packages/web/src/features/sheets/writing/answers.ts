import {
  completionsAt,
  parseSheet,
  sheetOutline,
  textFindings,
  type Completions,
  type OutlinedRule,
  type SiteWords,
  type TextFinding,
} from '@syndeton/core';

/** What is asked about a sheet's text while it is written. Offsets count with one code unit for each line end. */
export type Question =
  | { readonly asks: 'look'; readonly text: string; readonly inQuirks: boolean }
  | { readonly asks: 'complete'; readonly text: string; readonly offset: number; readonly words: SiteWords };

/** All that a text shows by itself. */
export interface Looked {
  readonly findings: readonly TextFinding[];
  readonly rules: readonly OutlinedRule[];
  /** The text of each rule at the top, as a browser may be given it. */
  readonly top: readonly string[];
}

export type Answer<Asked extends Question> = Asked extends { readonly asks: 'look' } ? Looked : Completions | undefined;

/** Pure: what the worker answers. */
export function answerTo<Asked extends Question>(question: Asked): Answer<Asked>;
export function answerTo(question: Question): Looked | Completions | undefined {
  if (question.asks === 'complete') return completionsAt(question.text, question.offset, question.words);
  const { text, inQuirks } = question;
  return {
    findings: textFindings(text, inQuirks),
    rules: sheetOutline(text),
    top: parseSheet(text).rules.map(({ span }) => text.slice(span.start, span.end)),
  };
}
