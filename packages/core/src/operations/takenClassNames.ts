import { eachSelector } from '../survey/selectorNames.ts';
import { openPage } from '../survey/openPage.ts';
import { parseSheet } from '../sheet/parseSheet.ts';
import type { Rule } from '../sheet/sheet.ts';
import { pagesOf, sheetsOf, type Site } from '../source/site.ts';

/** Class names that a page has or a selector asks for, in lower case. */
export function takenClassNames(site: Site): Set<string> {
  const taken = new Set<string>();
  for (const file of sheetsOf(site)) addSelectorClasses(parseSheet(file.text ?? '').rules, taken);
  for (const file of pagesOf(site)) {
    const page = openPage(file);
    for (const block of page?.blocks ?? []) addSelectorClasses(block.sheet.rules, taken);
    for (const element of page?.tree.elements ?? []) for (const name of element.classes) taken.add(name.toLowerCase());
  }
  return taken;
}

export function addSelectorClasses(rules: readonly Rule[], taken: Set<string>): void {
  eachSelector(rules, (selector) => {
    for (const compound of selector.compounds)
      for (const simple of compound.simples) if (simple.kind === 'class') taken.add(simple.name.toLowerCase());
  });
}
