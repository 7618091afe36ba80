import { lowered } from '../source/asciiCase.ts';
import type { KeptLooks, KeptTree, Look } from '../page/keptTree.ts';
import { matchList } from '../selectors/matchSelector.ts';
import { stateClasses } from '../selectors/pseudoTable.ts';
import type { ComplexSelector, SelectorList, SimpleSelector } from '../selectors/selector.ts';

/** Elements by page: their numbers in document order. */
export type Reached = ReadonlyMap<string, readonly number[]>;

interface MatchedPage {
  readonly path: string;
  readonly quirks: boolean;
  readonly tree: KeptTree;
}

/** The elements of kept pages that a selector list reaches in some state or always. */
export function reachedBy(list: SelectorList, pages: readonly MatchedPage[], looks: KeptLooks): Reached {
  const modes = new Set(pages.map((page) => page.quirks));
  const marked = [false, true].map((quirks) => (modes.has(quirks) ? markPaths(list, quirks, looks) : undefined));
  const exact = list.every(hangsOnPathOnly);
  const reached = new Map<string, number[]>();
  for (const { path, quirks, tree } of pages) {
    const context = { quirks, state: 'any' } as const;
    const mayMatch = marked[quirks ? 1 : 0]!;
    let found: number[] | undefined;
    for (let i = 0; i < tree.count; i++)
      if (mayMatch[tree.pathOf(i)] === 1 && (exact || matchList(tree.element(i), list, context) > 0))
        (found ??= []).push(i);
    if (found) reached.set(path, found);
    if (!exact) tree.release();
  }
  return reached;
}

/** 1 for each path whose elements the list reaches, or may reach where siblings and children decide. */
export function markPaths(list: SelectorList, quirks: boolean, looks: KeptLooks): Uint8Array {
  const context = { quirks, state: 'any' } as const;
  const marked = new Uint8Array(looks.pathCount);
  const looser = list.map((selector) => (hangsOnPathOnly(selector) ? selector : lastByPath(selector)));
  const reaching = Uint8Array.from({ length: looks.lookCount }, (_, i) => (mayReach(list, looks.look(i)) ? 1 : 0));
  for (const element of looks.pathElements())
    if (reaching[looks.lookOfPath(element.index)] === 1 && matchList(element, looser, context) > 0)
      marked[element.index] = 1;
  return marked;
}

/** Whether an element of this look has the name, ID and classes that a last compound asks for. */
const mayReach = (list: SelectorList, { tag, id, classes }: Look): boolean =>
  list.some((selector) =>
    selector.compounds.at(-1)!.simples.every((simple) => {
      if (simple.kind === 'type') return simple.lower === lowered(tag);
      if (simple.kind === 'id') return id !== undefined && lowered(simple.name) === lowered(id);
      return simple.kind !== 'class' || classes.some((name) => lowered(name) === lowered(simple.name));
    }),
  );

/** Whether the element and its ancestors alone decide. */
export const hangsOnPathOnly = ({ compounds, combinators }: ComplexSelector): boolean =>
  combinators.every((c) => c === ' ' || c === '>') && compounds.every((c) => c.simples.every(isByPath));

function isByPath(simple: SimpleSelector): boolean {
  switch (simple.kind) {
    case 'has':
    case 'nth':
      return false;
    case 'matches':
      return simple.list.every(hangsOnPathOnly);
    case 'pseudo-class':
      return stateClasses.has(simple.name) || /^(any-link|root)$/.test(simple.name);
    default:
      return true;
  }
}

/** What of a selector's last compound the path decides: it reaches all that the selector reaches, and more. */
function lastByPath(selector: ComplexSelector): ComplexSelector {
  const last = selector.compounds.at(-1)!;
  return { ...selector, combinators: [], compounds: [{ ...last, simples: last.simples.filter(isByPath) }] };
}
