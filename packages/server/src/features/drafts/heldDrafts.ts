import type { DraftReply } from '@syndeton/contract';
import type { SiteDecisions } from '@syndeton/core';
import type { MadeDraft } from '../../analysis/tasks.ts';

/** A draft as it was last made: its reply, and the files it changes. */
export interface HeldDraft {
  readonly reply: DraftReply;
  readonly decisions: SiteDecisions;
  /** By path; null for files it takes out. A file that is not in here is the revision's. */
  readonly files: ReadonlyMap<string, Uint8Array | null>;
}

export interface HeldDrafts {
  get(siteId: string, version: number): HeldDraft | undefined;
  /** Hashes of the changed files whose bytes are here. */
  known(siteId: string): readonly string[];
  put(siteId: string, version: number, made: MadeDraft): HeldDraft;
}

interface Kept extends HeldDraft {
  readonly version: number;
  readonly byHash: ReadonlyMap<string, Uint8Array>;
  readonly size: number;
}

/** The bytes of drafts are held up to this many for all sites together; one draft is held whatever its size. */
const mostBytes = 256e6;

/**
 * The last draft of the sites in use, so that previews, texts and saves need nothing computed again: a save writes the bytes that
 * were proved.
 */
export function makeHeldDrafts(): HeldDrafts {
  const kept = new Map<string, Kept>();
  return {
    get(siteId, version) {
      const found = kept.get(siteId);
      return found?.version === version ? found : undefined;
    },
    known: (siteId) => [...(kept.get(siteId)?.byHash.keys() ?? [])],
    put(siteId, version, { draft, decisions, files, bytes }) {
      const old = kept.get(siteId)?.byHash;
      const fresh = new Map(bytes);
      const byHash = new Map<string, Uint8Array>();
      const held = new Map<string, Uint8Array | null>();
      let size = 0;
      for (const [path, hash] of files) {
        const content = hash === null ? null : (fresh.get(hash) ?? old?.get(hash));
        if (content === undefined) throw new Error(`the bytes of ${path} did not come with the draft`);
        held.set(path, content);
        if (content === null || hash === null) continue;
        byHash.set(hash, content);
        size += content.length;
      }
      const one = { reply: { ...draft, version }, decisions, files: held, version, byHash, size };
      kept.delete(siteId);
      kept.set(siteId, one);
      let total = [...kept.values()].reduce((sum, { size: bytes }) => sum + bytes, 0);
      for (const [id, { size: bytes }] of [...kept].slice(0, -1)) {
        if (total <= mostBytes) break;
        kept.delete(id);
        total -= bytes;
      }
      return one;
    },
  };
}
