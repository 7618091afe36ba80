import { attributeOf, type ElementNode } from '../page/nodes.ts';
import type { PageCascade } from '../cascade/pageCascade.ts';
import type { PageTree } from '../page/parsePage.ts';
import type { PageState } from './explainDifference.ts';
import { isStyleSource } from './pairElements.ts';

/**
 * Links and `style` elements make no box by default (HTML Standard, "Rendering", "Hidden elements"). A page may show them, as
 * `* { all: unset }` does: then the text of a block, and every link, is part of what is seen. Sentences.
 */
export function compareShownSources(before: PageState, after: PageState): readonly string[] {
  const [old, now] = [before.cascade, after.cascade];
  if (old.tree.text === now.tree.text || shownText(old) === shownText(now)) return [];
  return sourcesMayBeShown(old) || sourcesMayBeShown(now)
    ? [
        'The page shows its head, or its style or link elements (a rule sets their display), and these are not the same.',
      ]
    : [];
}

/** The links and blocks of a page as they are written. */
export const writtenSources = ({ tree }: PageCascade): string =>
  sourcesOf(tree)
    .map(({ start, end }) => tree.text.slice(Math.max(start, 0), end))
    .join('\n');

/** With the head, for white space in it may show as well. */
export const shownText = (cascade: PageCascade): string =>
  writtenSources(cascade) +
  cascade.tree.elements
    .filter(({ tag }) => tag === 'head')
    .map((head) => cascade.tree.text.slice(Math.max(head.start, 0), head.end))
    .join('');

/** Whether some rule may give one of the page's links or blocks a box. */
export const sourcesMayBeShown = (cascade: PageCascade): boolean =>
  cascade.tree.elements.some(
    (element) => (isStyleSource(element) || element.tag === 'head') && mayBeShown(cascade, element),
  );

const sourcesOf = (tree: PageTree): readonly ElementNode[] => tree.elements.filter(isStyleSource);

function mayBeShown(cascade: PageCascade, element: ElementNode): boolean {
  if (/display|all/i.test(attributeOf(element, 'style') ?? '')) return true;
  return cascade
    .matchedAlike(element)
    .some(({ indexed }) =>
      indexed.rule.compiled.block.declarations.some(
        ({ declaration, longhands, comparable }) =>
          declaration.property === 'all' || (longhands.includes('display') && comparable !== 'none'),
      ),
    );
}
