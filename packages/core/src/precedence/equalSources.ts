import { attributeOf } from '../page/nodes.ts';
import { elementPath } from '../page/parsePage.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { openPage } from '../survey/openPage.ts';

/** The pages that hold the same block as one of a page, and those with an equal style attribute: where a peel might go on. */
export function pagesWithBlock(site: Site, page: string, source: number): readonly string[] {
  const model = openPage(site.files.get(page)!);
  const block = model?.sources.sheets[source];
  if (!model || block?.kind !== 'embedded') return [];
  const said = model.text.slice(block.contents.start, block.contents.end).trim();
  return pagesOf(site).flatMap((file) => {
    if (!file.text?.includes(said)) return [];
    const other = openPage(file);
    const has = other?.sources.sheets.some(
      (s) => s.kind === 'embedded' && other.text.slice(s.contents.start, s.contents.end).trim() === said,
    );
    return has ? [file.path] : [];
  });
}

export function pagesWithAttribute(site: Site, page: string, element: string): readonly string[] {
  const own = openPage(site.files.get(page)!)?.tree.elements.find((one) => elementPath(one) === element);
  const value = own && attributeOf(own, 'style')?.trim();
  if (value === undefined) return [];
  return pagesOf(site).flatMap((file) => {
    if (!/style/i.test(file.text ?? '')) return [];
    return openPage(file)?.tree.elements.some((one) => attributeOf(one, 'style')?.trim() === value) ? [file.path] : [];
  });
}
