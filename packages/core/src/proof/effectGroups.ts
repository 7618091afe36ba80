import type { Cause, PageProof } from './proof.ts';

/** One change of look over all pages: what a property says before and after, and on how many elements. */
export interface ChangeOfLook {
  readonly pseudoElement: string;
  readonly property: string;
  /** Undefined where nothing says it. */
  readonly before: string | undefined;
  readonly after: string | undefined;
  /** Why the first of them changes. */
  readonly reason: string;
  readonly elements: number;
  readonly pages: readonly { readonly path: string; readonly elements: number }[];
  /** One of the elements, on the page as it was before. */
  readonly sample: { readonly page: string; readonly element: string; readonly name: string };
}

/** The causes of all pages by what changes, the widest first. */
export function changesOfLook(pages: readonly PageProof[]): readonly ChangeOfLook[] {
  const groups = new Map<string, { cause: Cause; page: string; pages: Map<string, number> }>();
  for (const { path, causes } of pages)
    for (const cause of causes) {
      const key = [cause.pseudoElement, cause.property, valueOf(cause.before), valueOf(cause.after)].join('\0');
      let group = groups.get(key);
      if (!group) groups.set(key, (group = { cause, page: path, pages: new Map() }));
      group.pages.set(path, (group.pages.get(path) ?? 0) + cause.elements.length);
    }
  return [...groups.values()]
    .map(({ cause, page, pages: counts }): ChangeOfLook => {
      const [first] = cause.elements;
      const byPage = [...counts].map(([path, elements]) => ({ path, elements }));
      return {
        pseudoElement: cause.pseudoElement,
        property: cause.property,
        before: valueOf(cause.before),
        after: valueOf(cause.after),
        reason: cause.reason,
        elements: byPage.reduce((sum, one) => sum + one.elements, 0),
        pages: byPage,
        sample: { page, element: first?.path ?? '', name: first?.name ?? '' },
      };
    })
    .sort((a, b) => b.elements - a.elements);
}

const valueOf = (decider: Cause['before']): string | undefined => decider?.value;
