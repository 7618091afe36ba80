import { parseSheet } from '../../sheet/parseSheet.ts';
import { pagesOf, sheetsOf, type Site } from '../../source/site.ts';
import { madeNames } from '../../survey/madeNames.ts';
import { readingOf } from '../../survey/pageReading.ts';
import { classesOf } from '../../survey/selectorNames.ts';

/** Class names that a page has, a selector asks for, or a script says that makes elements, in lower case. */
export function takenClassNames(site: Site): Set<string> {
  const taken = new Set<string>();
  for (const file of sheetsOf(site)) for (const name of classesOf(parseSheet(file.text ?? '').rules)) taken.add(name);
  for (const file of pagesOf(site)) {
    const page = readingOf(file);
    if (!page) continue;
    for (const word of madeNames(page, site) ?? []) taken.add(word);
    for (const name of page.names) if (name.startsWith('.')) taken.add(name.slice(1));
    for (const block of page.blocks)
      for (const { rule } of block.units) for (const name of rule.classes) taken.add(name);
  }
  return taken;
}
