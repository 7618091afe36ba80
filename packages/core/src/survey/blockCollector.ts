import { trimmed } from '../source/space.ts';
import type { EmbeddedBlock } from './blockUnits.ts';
import type { RepeatedBlock } from './survey.ts';

/** Gathers the embedded blocks of pages and says which are pasted into several. */
export class BlockCollector {
  private readonly groups = new Map<
    string,
    { selectors: readonly string[]; versions: Map<string, string[]>; bytes: number }
  >();
  private readonly texts = new Map<string, { count: number; bytes: number }>();

  add(path: string, text: string, block: EmbeddedBlock): void {
    const { start, end } = block.source.contents;
    const contents = trimmed(text.slice(start, end).replace(/[\t\n\f\r ]+/g, ' '));
    const copies = this.texts.get(contents) ?? { count: 0, bytes: end - start };
    copies.count++;
    this.texts.set(contents, copies);
    if (block.units.length === 0) return;
    const selectors = block.units.map((unit) => unit.family);
    const key = selectors.join('\n');
    let group = this.groups.get(key);
    if (!group) this.groups.set(key, (group = { selectors, versions: new Map(), bytes: end - start }));
    const version = block.units.map((unit) => unit.version).join('\n');
    const pages = group.versions.get(version);
    if (pages) pages.push(path);
    else group.versions.set(version, [path]);
  }

  merge(page: BlockCollector): void {
    for (const [contents, { count, bytes }] of page.texts) {
      const known = this.texts.get(contents);
      if (known) known.count += count;
      else this.texts.set(contents, { count, bytes });
    }
    for (const [key, { selectors, versions, bytes }] of page.groups) {
      let group = this.groups.get(key);
      if (!group) this.groups.set(key, (group = { selectors, versions: new Map(), bytes }));
      for (const [version, pages] of versions) {
        const known = group.versions.get(version);
        if (known) known.push(...pages);
        else group.versions.set(version, [...pages]);
      }
    }
  }

  repeated(): readonly RepeatedBlock[] {
    return [...this.groups.values()]
      .map(({ selectors, versions, bytes }) => {
        const sorted = [...versions.values()].sort((a, b) => b.length - a.length).map((pages) => ({ pages }));
        return { selectors, versions: sorted, pages: [...new Set(sorted.flatMap((v) => v.pages))], bytes };
      })
      .filter((block) => block.pages.length > 1)
      .sort((a, b) => b.pages.length * b.bytes - a.pages.length * a.bytes);
  }

  repeatedBytes(): number {
    let total = 0;
    for (const { count, bytes } of this.texts.values()) total += (count - 1) * bytes;
    return total;
  }
}
