import { sheetsOf } from './pageDom.ts';

export type Medium = 'screen' | 'print';

/** Media as they were written, for lists that were changed. */
const written = new WeakMap<MediaList, string>();

/**
 * Lets a document in a frame apply what is for a medium: its sheets, imports and `@media` rules ask for another one then, since a frame is
 * always shown on screen. Pages are not broken into sheets of paper by this.
 */
export function showMedium(document: Document, medium: Medium): void {
  const set = (list: MediaList | undefined): void => {
    if (!list) return;
    const own = written.get(list) ?? list.mediaText;
    const wanted = medium === 'print' ? asPrinted(own) : own;
    if (!written.has(list)) {
      if (wanted === own) return;
      written.set(list, own);
    }
    if (list.mediaText !== wanted) list.mediaText = wanted;
  };
  const look = (sheet: CSSStyleSheet | null): void => {
    if (!sheet) return;
    set(sheet.media);
    walk(rulesOf(sheet));
  };
  const walk = (rules: Iterable<CSSRule>): void => {
    for (const rule of rules) {
      if ('styleSheet' in rule) {
        set((rule as CSSImportRule).media);
        look((rule as CSSImportRule).styleSheet);
      } else if ('media' in rule) set((rule as CSSMediaRule).media);
      if ('cssRules' in rule) walk((rule as CSSGroupingRule).cssRules);
    }
  };
  for (const sheet of sheetsOf(document)) look(sheet);
}

function rulesOf(sheet: CSSStyleSheet): Iterable<CSSRule> {
  try {
    return sheet.cssRules;
  } catch {
    // a sheet of another server cannot be read
    return [];
  }
}

/** What a list of media queries has to say on screen to hold where it holds in print. Media Queries 4, "Media Query Syntax". */
export function asPrinted(list: string): string {
  if (list.trim() === '') return '';
  return list
    .split(/,(?![^(]*\))/)
    .map((query) => {
      const found = /^\s*(?:(not|only)\s+)?([a-z-]+)((?:\s+and\s+.*)?)$/is.exec(query);
      const type = found?.[2]!.toLowerCase();
      if (!found || type === 'all' || type === 'not') return query.trim();
      const isNot = found[1]?.toLowerCase() === 'not';
      if (type !== 'print') return isNot ? 'all' : 'not all';
      return `${isNot ? 'not ' : ''}all${found[3]}`;
    })
    .join(', ');
}
