import { isServedAsXml, type SiteFile } from '../source/site.ts';
import { sameBytes } from '../source/textCoding.ts';
import type { PageProof } from './proof.ts';

/** What is said of a page that nobody had to look at. */
export const unseen = (path: string): PageProof => ({
  path,
  verdict: 'same',
  elements: 0,
  differingElements: 0,
  causes: [],
  notes: [],
  doubts: [],
});

/** A page that cannot be read is the same only when it did not change and names no file that did. */
export function proveOpaque(file: SiteFile, now: SiteFile, isTouched: boolean): PageProof {
  if (sameBytes(file.bytes, now.bytes) && !isTouched) return unseen(file.path);
  const why =
    file.isTooMuch || now.isTooMuch
      ? 'The page holds more than a million tags, more than is looked at, so it cannot be compared.'
      : isServedAsXml(file.path)
        ? 'The page is sent as XML (its name ends in .xhtml), which is not read here, so it cannot be compared.'
        : 'The page does not encode back to its own bytes, or browsers do not agree on its encoding, so it cannot be compared.';
  return { ...unseen(file.path), verdict: 'unsure', doubts: [{ sentence: why, elements: [] }] };
}
