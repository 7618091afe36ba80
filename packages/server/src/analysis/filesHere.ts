import type { Site, SiteFile } from '@syndeton/core';
import { sha256 } from '../stores/sha256.ts';

/**
 * The files of a manifest (path → SHA-256 of its bytes) that states of the site hold already, with all that is known of them. A page
 * that a server runs is one only where somebody decided so.
 */
export function filesHere(
  manifest: Readonly<Record<string, string>>,
  states: readonly Site[],
): ReadonlyMap<string, SiteFile> {
  const here = new Map<string, SiteFile>();
  for (const [path, hash] of Object.entries(manifest)) {
    const tried = new Set<SiteFile>();
    for (const { files } of states) {
      const file = files.get(path);
      if (!file || file.isRun || tried.has(file)) continue;
      tried.add(file);
      if (sha256(file.bytes) !== hash) continue;
      here.set(path, file);
      break;
    }
  }
  return here;
}
