import type { KeptOutcomes } from './keptOutcomes.ts';
import type { Kind, KindPage } from './kindTable.ts';

/** Where each kind of element stands: pages with the number of its elements, and the first of them. */
export type Places = ReadonlyMap<
  Kind,
  { readonly pages: Map<string, number>; readonly first: { page: string; index: number } }
>;

/** Of all kinds that any declaration reaches. */
export function placesOf(kept: KeptOutcomes, wanted: (page: KindPage) => boolean): Places {
  const places = new Map<Kind, { pages: Map<string, number>; first: { page: string; index: number } }>();
  const counts = new Int32Array(kept.kinds.length);
  const firsts = new Int32Array(kept.kinds.length);
  for (const page of kept.pages) {
    if (!wanted(page)) continue;
    const here: number[] = [];
    for (let i = 0; i < page.cells.length; i++) {
      const { number } = kept.kindOfCell(page.cells[i]!);
      if (counts[number]!++ > 0) continue;
      here.push(number);
      firsts[number] = i;
    }
    for (const number of here) {
      const kind = kept.kinds[number]!;
      if (kind.contenders.size > 0) {
        let place = places.get(kind);
        if (!place)
          places.set(
            kind,
            (place = { pages: new Map<string, number>(), first: { page: page.path, index: firsts[number]! } }),
          );
        place.pages.set(page.path, counts[number]!);
      }
      counts[number] = 0;
    }
  }
  return places;
}

/** Elements of these kinds. */
export function countOf(kinds: ReadonlySet<Kind>, places: Places): number {
  let sum = 0;
  for (const kind of kinds) for (const n of places.get(kind)!.pages.values()) sum += n;
  return sum;
}
