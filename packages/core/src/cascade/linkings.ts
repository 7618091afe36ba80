import type { StyleSources } from '../page/styleSources.ts';
import type { Site } from '../source/site.ts';
import type { SheetCache } from './sheetCache.ts';

/** What pages without blocks come to, by how they link sheets of the site: kept as long as site and cache are. */
export class Linkings<Rules> {
  private readonly kept = new WeakMap<SheetCache, WeakMap<Site, Map<string, Rules>>>();

  of(cache: SheetCache, site: Site): Map<string, Rules> {
    let sites = this.kept.get(cache);
    if (!sites) this.kept.set(cache, (sites = new WeakMap<Site, Map<string, Rules>>()));
    let known = sites.get(site);
    if (!known) sites.set(site, (known = new Map<string, Rules>()));
    return known;
  }
}

/** Equal for pages that link the same sheets alike and have no block; undefined for others. */
export function linkingKey({ sheets, preferredTitle, imports }: StyleSources, encoding: string): string | undefined {
  let key = `${encoding} ${imports}`;
  for (const source of sheets) {
    if (source.idle !== undefined) key += '\n';
    else if (source.kind === 'embedded' || source.target.kind !== 'site') return undefined;
    else {
      const { target, charset, media, title, alternate, integrity, perhaps } = source;
      const parts = [target.path, charset, media, title, alternate, title === preferredTitle, integrity, perhaps];
      key += `\n${JSON.stringify(parts)}`;
    }
  }
  return key;
}
