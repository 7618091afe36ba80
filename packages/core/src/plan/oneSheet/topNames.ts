import type { PageReading } from '../../survey/pageReading.ts';
import { PageSet } from '../pageSet.ts';
import type { NameThere } from './marks.ts';

type TopName = NameThere & { readonly on: 'body' | 'root' };
type Readings = readonly (PageReading | undefined)[];

/** Classes and IDs that `body` or the root has on some of the pages and no other element has. */
export function namesThere(readings: Readings): readonly TopName[] {
  const found = new Map<string, TopName>();
  for (const on of ['body', 'root'] as const)
    readings.forEach((reading, page) => {
      const tag = reading?.[on];
      if (!tag) return;
      for (const selector of [
        ...tag.classes.map((name) => `.${name}`),
        ...(tag.id === undefined ? [] : [`#${tag.id}`]),
      ]) {
        if (!/^[.#][a-z][\w-]*$/i.test(selector)) continue;
        const key = `${on} ${selector}`;
        let known = found.get(key);
        if (!known) found.set(key, (known = { selector, on, pages: PageSet.empty(readings.length) }));
        known.pages.add(page);
      }
    });
  return [...found.values()].filter((name) => readings.every((reading) => isOnTopOnly(reading, name)));
}

/** Readings do not tell which element has a name: one that stands in the tag once and in the page's text often is left alone. */
function isOnTopOnly(reading: PageReading | undefined, { selector, on }: TopName): boolean {
  if (!reading?.names.has(selector.toLowerCase())) return true;
  const tag = reading[on];
  if (!tag || !(tag.classes.some((name) => `.${name}` === selector) || `#${tag.id}` === selector)) return false;
  const word = selector.slice(1).toLowerCase();
  const body = reading.text.slice(Math.max(tag.startTagEnd, 0)).toLowerCase();
  return !new RegExp(`(?:class|id)\\s*=\\s*(?:"[^"]*|'[^']*|)(?<![\\w-])${word}(?![\\w-])`).test(body);
}
