import { trimmed } from '../source/space.ts';
import { attributeOf } from '../page/nodes.ts';
import { elementAt } from '../page/parsePage.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { openPage } from '../survey/openPage.ts';

/**
 * The pages that hold the same block as one of a page: where a peel might go on. Told by the text alone, so that thousands of
 * pages need not be read; the operation that drops it looks again.
 */
export function pagesWithBlock(site: Site, page: string, source: number): readonly string[] {
  const model = openPage(site.files.get(page)!);
  const block = model?.sources.sheets[source];
  if (!model || block?.kind !== 'embedded') return [];
  const said = trimmed(model.text.slice(block.contents.start, block.contents.end));
  const holds = (text: string): boolean => {
    for (let at = text.indexOf(said); at >= 0; at = text.indexOf(said, at + 1))
      if (
        />[\t\n\f\r ]*$/.test(text.slice(Math.max(0, at - 40), at)) &&
        /^[\t\n\f\r ]*<\/style/i.test(text.slice(at + said.length, at + said.length + 60))
      )
        return true;
    return false;
  };
  return pagesOf(site).flatMap(({ path, text }) =>
    path === page || (text !== undefined && holds(text)) ? [path] : [],
  );
}

/** The same for a style attribute, as it is written between its quotes. */
export function pagesWithAttribute(site: Site, page: string, element: string): readonly string[] {
  const opened = openPage(site.files.get(page)!);
  const own = opened && elementAt(opened.tree, element);
  const value = own && attributeOf(own, 'style');
  if (value === undefined) return [];
  return pagesOf(site).flatMap(({ path, text = '' }) =>
    path === page || text.includes(`"${value}"`) || text.includes(`'${value}'`) ? [path] : [],
  );
}
