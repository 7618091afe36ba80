import { featureNames } from '../../cascade/mediaFeatures.ts';
import { mediaTroubles, type MediaTrouble } from '../../cascade/mediaTroubles.ts';
import { near } from '../nearest.ts';
import { code } from '../words.ts';

/** A media query that holds nowhere, in words, and the list as it was probably meant. */
export interface MediaSlip {
  readonly sentence: string;
  readonly right: string | undefined;
}

/** The first thing browsers do not take of a media query list; undefined when they take it all. */
export function mediaSlip(text: string): MediaSlip | undefined {
  const [trouble] = mediaTroubles(text);
  if (!trouble) return undefined;
  const right = [...guesses(text, trouble)].find((guess) => mediaTroubles(guess).length === 0);
  return { sentence: sentenceOf(trouble), right };
}

function sentenceOf({ query, what, name }: MediaTrouble): string {
  switch (what) {
    case 'malformed':
      return `Browsers cannot read the media query ${code(query)}, so it never holds.`;
    case 'unknown-type':
      return `No medium is called ${code(name)}, so ${code(query)} never holds.`;
    case 'unknown-feature':
      return name === ''
        ? `Browsers do not know what ${code(query)} asks for, so it never holds.`
        : `Browsers do not know ${code(name)} with this value, so ${code(query)} never holds.`;
  }
}

function* guesses(text: string, { what, name }: MediaTrouble): Generator<string> {
  if (what !== 'malformed' && name !== '') {
    const right = near(name, what === 'unknown-type' ? ['all', 'screen', 'print'] : featureNames);
    if (right !== undefined) yield text.replace(new RegExp(`\\b${escaped(name)}\\b`, 'gi'), right);
  }
  // a number without its unit
  yield text.replace(/:\s*(\d+)\s*\)/g, ': $1px)');
  // `and(`, `screen (…)`, `(…) (…)`, `max-width: 600px` without its parentheses, a colon left out
  const spaced = text.replace(/\b(and|or|not)\(/gi, '$1 (');
  yield spaced;
  const joined = spaced
    .replace(/\b(all|screen|print)\s+\(/gi, '$1 and (')
    .replace(/\)\s*\(/g, ') and (')
    .replace(/&&|\bAND\b/g, 'and');
  yield joined;
  const bare = joined
    .replace(/(^|,|\band\s)\s*((?:min-|max-)?[a-z-]+\s*:\s*[^,()]+?)(?=\s*(?:,|\band\b|$))/gi, '$1 ($2)')
    .trim();
  yield bare;
  yield bare.replace(/\(\s*([a-z-]+)[\s=]+(\d[\w.]*)\s*\)/gi, '($1: $2)');
}

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
