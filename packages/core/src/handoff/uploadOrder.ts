/** What is to be done on a server, in an order that never leaves a page without its sheet. */
export interface UploadOrder {
  /** Paths of new and changed files: pictures and the like first, then sheets, then pages. */
  readonly put: readonly string[];
  /** Files that no page needs any more: may be deleted once all else is there. */
  readonly mayGo: readonly string[];
}

interface Changed {
  readonly path: string;
  readonly change: 'created' | 'edited' | 'deleted';
  readonly kind: string;
}

const ranks: Readonly<Record<string, number>> = { other: 0, sheet: 1, page: 2 };

export function uploadOrder(changes: readonly Changed[]): UploadOrder {
  const put = changes.filter(({ change }) => change !== 'deleted');
  return {
    put: [...put].sort((a, b) => ranks[a.kind]! - ranks[b.kind]! || (a.path < b.path ? -1 : 1)).map(({ path }) => path),
    mayGo: changes.filter(({ change }) => change === 'deleted').map(({ path }) => path),
  };
}
