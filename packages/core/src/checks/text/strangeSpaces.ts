import { tokensOf, tokenTypes as T } from '../../sheet/tokens.ts';
import { severityOf } from '../finding.ts';
import type { TextFinding } from './textFinding.ts';

/** Spaces that CSS has not: pasted from texts, or left between files that were joined. CSS Syntax 3, "whitespace". */
const strange = /[\v\u0085\u00a0\u1680\u2000-\u200b\u2028\u2029\u202f\u205f\u3000\ufeff]+/g;

const names: Readonly<Record<string, string>> = {
  '\u00a0': 'A no-break space',
  '\u200b': 'A zero-width space',
  '\u3000': 'An ideographic space',
  '\ufeff': 'A byte order mark',
};
/** Nothing is seen of them, so nothing is put in their place. */
const invisible = /^[\u200b\ufeff]+$/;

/** What looks like a space, or like nothing, and is none to browsers: what it stands at does not count. */
export function strangeSpaces(text: string): readonly TextFinding[] {
  if (text.search(strange) < 0) return [];
  const tokens = tokensOf(text, 0, text.length, true);
  const out: TextFinding[] = [];
  for (let i = 0; i < tokens.count; i++) {
    if (tokens.type[i] === T.Comment || tokens.type[i] === T.String) continue;
    const [start, end] = [tokens.start[i]!, tokens.end[i]!];
    for (const found of text.slice(start, end).matchAll(strange)) {
      const at = start + found.index;
      const [run] = found;
      const first = run[0]!;
      const name =
        names[first] ??
        `A space of another kind (U+${first.charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')})`;
      const isUnseen = invisible.test(run);
      out.push({
        kind: 'strange-space',
        severity: severityOf['strange-space'],
        span: { start: at, end: at + run.length },
        sentence: `${name} is no space to browsers, so what it stands at does not count.`,
        mend: {
          label: isUnseen ? 'Remove it' : 'Make it a space',
          edits: [{ span: { start: at, end: at + run.length }, text: isUnseen ? '' : ' ' }],
        },
      });
    }
  }
  return out;
}
