import { attributeOf, type ElementNode } from '../page/nodes.ts';
import type { PageState } from './explainDifference.ts';
import { isStyleSource } from './pairElements.ts';

/**
 * Links and `style` elements make no box by default (HTML Standard, "Rendering", "Hidden elements"). A page may show them, as
 * `* { all: unset }` does: then the text of a block, and every link, is part of what is seen. Sentences.
 */
export function compareShownSources(before: PageState, after: PageState): readonly string[] {
  if (before.cascade.tree.text === after.cascade.tree.text) return [];
  if (writtenSources(before).join('\n') === writtenSources(after).join('\n')) return [];
  const shown = [before, after].some((state) => sourcesOf(state).some((element) => mayBeShown(state, element)));
  return shown
    ? ['The page shows its style or link elements (a rule sets their display), and these are not the same.']
    : [];
}

const sourcesOf = ({ cascade }: PageState): readonly ElementNode[] => cascade.tree.elements.filter(isStyleSource);

const writtenSources = (state: PageState): readonly string[] =>
  sourcesOf(state).map(({ start, end }) => state.cascade.tree.text.slice(Math.max(start, 0), end));

function mayBeShown({ cascade }: PageState, element: ElementNode): boolean {
  if (/display|all/i.test(attributeOf(element, 'style') ?? '')) return true;
  return cascade
    .matched(element)
    .some(({ indexed }) =>
      indexed.rule.compiled.block.declarations.some(
        ({ declaration, longhands, comparable }) =>
          declaration.property === 'all' || (longhands.includes('display') && comparable !== 'none'),
      ),
    );
}
