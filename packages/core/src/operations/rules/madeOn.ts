import type { Site } from '../../source/site.ts';
import { madeNames } from '../../survey/madeNames.ts';
import { readingOf } from '../../survey/pageReading.ts';
import { neededNames, selectorsOf } from '../../survey/selectorNames.ts';

/** Whether a script of one of these pages may make an element that a selector list reaches. */
export function madeOn(site: Site, pages: readonly string[]): (selector: string) => boolean {
  const names = pages.flatMap((page) => {
    const reading = readingOf(site.files.get(page)!);
    return (reading && madeNames(reading, site)) ?? [];
  });
  return (selector) =>
    (selectorsOf(selector) ?? []).some((one) => {
      const needed = neededNames(one).map((name) => name.replace(/^[.#]/, ''));
      return names.some((made) => needed.every((name) => made.has(name)));
    });
}
