import type { PageCascade } from '../cascade/pageCascade.ts';
import { attributeOf, type ElementNode } from '../page/nodes.ts';
import { serverCode } from '../scripts/serverCode.ts';
import { placeOf } from '../source/span.ts';
import { isStyleSource, type ElementPair } from './pairElements.ts';
import type { ScriptDoubt } from './scriptDoubts.ts';
import { writtenSources } from './shownSources.ts';

/**
 * What a server writes into a page may be sheets. They come before or after the page's own, which may change places among themselves
 * but not with these; and a style attribute beats them, a presentational one loses to them, where a rule might not.
 */
export function serverDoubts(
  before: PageCascade,
  after: PageCascade,
  pairs: readonly ElementPair[],
): readonly ScriptDoubt[] {
  const places = serverCode(before.tree)?.sheets ?? [];
  if (places.length === 0) return [];
  const where = `${before.path}, line ${placeOf(before.tree.text, Math.max(places[0]!, 0)).line}: a server writes something here, perhaps sheets`;
  const out: ScriptDoubt[] = [];
  const [old, now] = [before, after].map(gapsOf);
  const keepTheirPlace =
    old!.length < 2 && now!.length < 2 && (old!.length === 0 || now!.length === 0 || old![0] === now![0]);
  if (!keepTheirPlace && writtenSources(before) !== writtenSources(after))
    out.push({ sentence: `${where}, and the links and blocks before and after it are not the same.`, elements: [] });
  const elements = pairs.flatMap(({ before: one, after: two }): readonly ElementNode[] =>
    saysOtherwise(one, two) ? [one] : [],
  );
  if (elements.length > 0)
    out.push({ sentence: `${where}, which stand otherwise to a rule than to an attribute.`, elements });
  return out;
}

/** A style attribute is another, or an attribute went that may have said how it looks. */
const saysOtherwise = (one: ElementNode, two: ElementNode): boolean =>
  attributeOf(one, 'style') !== attributeOf(two, 'style') ||
  one.attributes.some(({ name }) => name !== 'class' && attributeOf(two, name) === undefined);

/** Between which places where a server writes the links and blocks of a page stand, as numbers of places before them. */
function gapsOf({ tree }: PageCascade): readonly number[] {
  const places = serverCode(tree)?.sheets ?? [];
  return [
    ...new Set(tree.elements.filter(isStyleSource).map(({ start }) => places.filter((one) => one < start).length)),
  ];
}
