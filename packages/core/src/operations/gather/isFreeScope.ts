import { parsePage } from '../../page/parsePage.ts';
import { pagesOf, type Site } from '../../source/site.ts';
import { isPlainClassName } from './className.ts';

/** Whether pages can have the class on their `body` or root: no other element has it. */
export function isFreeScope(site: Site, name: string): boolean {
  if (!isPlainClassName(name)) return false;
  return pagesOf(site).every((file) => {
    if (file.text === undefined || !file.text.includes(name)) return true;
    return parsePage(file.text).elements.every((e) => /^(body|html)$/.test(e.tag) || !e.classes.includes(name));
  });
}
