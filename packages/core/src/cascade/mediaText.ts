import { foldedText } from '../sheet/tokens.ts';

/** A media query list in one spelling: lower case, white space folded, none after `(` or before `)` and around `,` and `:`. */
export function mediaText(text: string): string {
  return foldedText(text)
    .toLowerCase()
    .replace(/\s*([(),:])\s*/g, (_all, sign: string) =>
      sign === ')' ? ') ' : sign === '(' ? ' (' : sign === ':' ? ': ' : ', ',
    )
    .replace(/\s+/g, ' ')
    .replace(/ ([),])/g, '$1')
    .replace(/\( /g, '(')
    .trim();
}

/** An empty list and `all` hold always. Media Queries 5, "Media Query Lists". */
export const isAllMedia = (text: string): boolean => /^(all)?$/.test(mediaText(text));
