import { folderOf } from '@syndeton/core';

/** A folder stands before its pages; those of the top folder have none. */
export type RailRow =
  | { readonly kind: 'folder'; readonly folder: string; readonly pages: readonly string[] }
  | { readonly kind: 'page'; readonly path: string };

export function railRows(pages: readonly string[]): readonly RailRow[] {
  const rows: RailRow[] = [];
  const inside = new Map<string, string[]>();
  for (const path of pages) {
    const folder = folderOf(path);
    const known = inside.get(folder);
    if (known) known.push(path);
    else {
      const list = [path];
      inside.set(folder, list);
      if (folder !== '') rows.push({ kind: 'folder', folder, pages: list });
    }
    rows.push({ kind: 'page', path });
  }
  return rows;
}

/** The row that a key leads to; with Shift only pages count. */
export function rowAfter(rows: readonly RailRow[], from: number, key: string, onlyPages: boolean): number | undefined {
  const last = rows.length - 1;
  const [start, by] =
    key === 'ArrowDown'
      ? [from + 1, 1]
      : key === 'ArrowUp'
        ? [from - 1, -1]
        : key === 'Home'
          ? [0, 1]
          : key === 'End'
            ? [last, -1]
            : [-1, -1];
  for (let i = start; i >= 0 && i <= last; i += by) if (!onlyPages || rows[i]!.kind === 'page') return i;
  return undefined;
}
