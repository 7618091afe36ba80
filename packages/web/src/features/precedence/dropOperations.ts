import type { ElementTableReply, OperationBody } from '@syndeton/contract';

export interface Drops {
  /** For the page at hand. */
  readonly here: readonly OperationBody[];
  /** For all pages that hold the same, when there are more. */
  readonly all: { readonly operations: readonly OperationBody[]; readonly pages: number } | undefined;
}

/** What would take away for good what is peeled. A declaration of a shared sheet is edited there, not dropped from a page. */
export function dropOperations(table: ElementTableReply, peeled: readonly string[]): Drops {
  const here: OperationBody[] = [];
  const all: OperationBody[] = [];
  let most = 1;
  for (const id of peeled) {
    const source = table.sources.find((one) => one.id === id);
    if (source?.kind === 'attribute') {
      const drop = { kind: 'drop-attribute', page: table.page, element: table.element } as const;
      here.push(drop);
      all.push({ ...drop, pages: source.pages });
    } else if (source?.kind === 'embedded') {
      const drop = { kind: 'drop-block', page: table.page, source: source.place - 1 } as const;
      here.push(drop);
      all.push({ ...drop, pages: source.pages });
    } else if (source?.kind === 'linked') {
      here.push({ kind: 'unlink-sheet', sheet: source.path, pages: [table.page] });
    } else {
      const drop = declarationDrop(table, id);
      if (drop) here.push(drop);
    }
    most = Math.max(most, source?.pages.length ?? 1);
  }
  return { here, all: most > 1 && all.length === here.length ? { operations: all, pages: most } : undefined };
}

function declarationDrop(table: ElementTableReply, id: string): OperationBody | undefined {
  const row = table.rows.find((one) => one.entries.some((entry) => entry.id === id));
  const entry = row?.entries.find((one) => one.id === id);
  if (!row || !entry || entry.file !== table.page) return undefined;
  const where = table.sources.find((one) => one.id === entry.source)?.kind;
  const property = entry.declared === '' ? row.property : entry.declared;
  const { value, important } = entry;
  const common = { property, value, ...(important ? { important } : {}), pages: [table.page] };
  if (where === 'attribute') return { kind: 'drop-declaration', where: 'attribute', ...common };
  if (where !== 'embedded' || entry.rule === null) return undefined;
  return { kind: 'drop-declaration', where: 'block', selector: entry.rule, ...common };
}
