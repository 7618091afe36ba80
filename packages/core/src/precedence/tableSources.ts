import { trimmed } from '../source/space.ts';
import type { Contender } from '../cascade/contenders.ts';
import type { PageCascade } from '../cascade/pageCascade.ts';
import type { ElementNode } from '../page/nodes.ts';
import { LineIndex } from '../source/span.ts';
import type { Site } from '../source/site.ts';

/** A column of the table: a place declarations come from, weakest first. */
export interface TableSource {
  /** `browser`, `presentational`, `attribute`, or the number of the link or block and the file: `2:css/site.css`. */
  readonly id: string;
  readonly kind: 'browser' | 'presentational' | 'linked' | 'imported' | 'embedded' | 'attribute';
  /** The sheet's path; empty for what stands in the page. */
  readonly path: string;
  /** Number among the page's links and blocks, from 1; 0 for the others. */
  readonly place: number;
  readonly media: string;
  /** The line in the page. */
  readonly line: number;
  /** Declarations for this element. */
  readonly says: number;
  readonly peeled: boolean;
}

export function sourceIdOf({ origin, source }: Contender): string {
  if (origin === 'attribute') return 'attribute';
  return origin === 'hint' ? 'presentational' : `${source!.sourceIndex}:${source!.path}`;
}

/** All sources of the page that bring rules, and the element's own attributes. */
export function readSources(
  site: Site,
  page: PageCascade,
  contenders: readonly Contender[],
  peeled: ReadonlySet<string>,
  element: ElementNode,
): readonly TableSource[] {
  const says = new Map<string, number>();
  for (const one of contenders) says.set(sourceIdOf(one), (says.get(sourceIdOf(one)) ?? 0) + 1);
  const lines = new LineIndex(site.files.get(page.path)!.text!);
  const out: TableSource[] = [];
  const add = (source: Omit<TableSource, 'says' | 'peeled'>): void =>
    void out.push({ ...source, says: says.get(source.id) ?? 0, peeled: peeled.has(source.id) });
  const none = { path: '', place: 0, media: '' };
  add({ id: 'browser', kind: 'browser', line: 0, ...none });
  const line = lines.placeOf(Math.max(element.start, 0)).line;
  if (says.has('presentational')) add({ id: 'presentational', kind: 'presentational', line, ...none });
  const seen = new Set<string>();
  for (const { source } of page.rules.rules) {
    const id = `${source.sourceIndex}:${source.path}`;
    if (seen.has(id)) continue;
    seen.add(id);
    const written = page.rules.sources.sheets[source.sourceIndex]!;
    const path = source.kind === 'embedded' ? '' : source.path;
    const { line: at } = lines.placeOf(Math.max(written.span.start, 0));
    add({ id, kind: source.kind, path, place: source.sourceIndex + 1, media: trimmed(written.media), line: at });
  }
  if (says.has('attribute')) add({ id: 'attribute', kind: 'attribute', line, ...none });
  return out;
}
