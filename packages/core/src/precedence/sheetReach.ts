import type { KeptOutcomes } from './keptOutcomes.ts';

/** Pages that hold elements a selector reaches, in some state or always. */
export interface SelectorReach {
  readonly elements: number;
  readonly pages: readonly { readonly path: string; readonly elements: number }[];
}

/** On these pages only, when given. Undefined when browsers refuse the selector. */
export function selectorReach(
  kept: KeptOutcomes,
  selector: string,
  pages?: ReadonlySet<string>,
): SelectorReach | undefined {
  const reaching = kept.reach(selector);
  if (!reaching) return undefined;
  const found: { path: string; elements: number }[] = [];
  let sum = 0;
  for (const page of kept.pages) {
    if (pages && !pages.has(page.path)) continue;
    let elements = 0;
    if (reaching.by === 'element') elements = reaching.elements.get(page.path)?.length ?? 0;
    else for (const cell of page.cells) elements += reaching.cells[cell]!;
    if (elements > 0) found.push({ path: page.path, elements });
    sum += elements;
  }
  return { elements: sum, pages: found };
}
