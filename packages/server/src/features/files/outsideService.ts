import { outsideChanges, type OutsideChanges } from '@syndeton/core';
import type { ChangedSiteReply, OutsideChangesReply } from '@syndeton/contract';
import type { OldNameEncoding } from '../../archive/entryNames.ts';
import { readArchive } from '../../archive/readArchive.ts';
import type { Turns } from '../../archive/turns.ts';
import { Refusal } from '../../http/refusal.ts';
import type { Manifest, RevisionStore } from '../../stores/revisionStore.ts';
import { noSuchSite, siteChanged, type SiteService } from '../sites/index.ts';
import type { FileChanges } from './fileChanges.ts';
import { innerFolder } from './innerFolder.ts';
import { sha256 } from '../../stores/sha256.ts';

/** A site that was handed off and comes back: what others changed there meanwhile is told, and taken as a revision when asked. */
export interface OutsideService {
  compare(
    siteId: string,
    base: number,
    archive: string,
    names: OldNameEncoding | undefined,
  ): Promise<OutsideChangesReply>;
  /** `gone`: files that are no more there go as well. */
  take(
    siteId: string,
    base: number,
    archive: string,
    how: { readonly gone?: boolean; readonly names?: OldNameEncoding },
  ): Promise<ChangedSiteReply>;
}

interface Parts {
  readonly sites: SiteService;
  readonly revisions: RevisionStore;
  readonly turns: Turns;
}

interface Found {
  readonly files: ReadonlyMap<string, Buffer>;
  readonly changes: OutsideChanges;
}

/** So many revisions before the newest are looked through for what never got there, and the first. */
const mostEarlier = 50;

export function makeOutsideService({ open, write }: FileChanges, { sites, revisions, turns }: Parts): OutsideService {
  async function look(
    siteId: string,
    base: number,
    archive: string,
    names: OldNameEncoding | undefined,
  ): Promise<Found> {
    const site = await sites.get(siteId);
    const numbers = (await revisions.revisions(siteId)).map(({ number }) => number);
    if (numbers[0] !== base) throw siteChanged(base, numbers[0] ?? 0);
    const now = await manifestOf(siteId, base);
    const before = numbers.slice(1);
    const earlier = [...before.slice(0, mostEarlier), ...(before.length > mostEarlier ? [before.at(-1)!] : [])];
    const older = await Promise.all(
      earlier.map(async (number) => ({ number, files: await manifestOf(siteId, number) })),
    );
    return turns.run(async () => {
      const read = await readArchive(archive, { names });
      const inner = innerFolder(read, site, (path) => now[path] !== undefined);
      const files = new Map([...read.files].map(([path, bytes]) => [inner + path, bytes]));
      const found = Object.fromEntries([...files].map(([path, bytes]) => [path, sha256(bytes)]));
      return { files, changes: outsideChanges(now, found, older) };
    });
  }

  async function manifestOf(siteId: string, number: number): Promise<Manifest> {
    const manifest = await revisions.manifest(siteId, number);
    if (!manifest) throw noSuchSite(siteId);
    return manifest;
  }

  return {
    async compare(siteId, base, archive, names) {
      const { changes } = await look(siteId, base, archive, names);
      const { same, changed, fresh, gone, moved, older } = changes;
      return { same, changed: [...changed], fresh: [...fresh], gone: [...gone], moved: [...moved], older: [...older] };
    },
    async take(siteId, base, archive, { gone: goneToo = false, names }) {
      const opened = await open(siteId, base);
      const { files, changes } = await look(siteId, base, archive, names);
      const { changed, fresh, moved } = changes;
      const gone = goneToo ? changes.gone : [];
      const taken = [...changed, ...fresh, ...moved.map(({ to }) => to)];
      const removed = [...gone, ...moved.map(({ from }) => from)];
      if (taken.length + removed.length === 0)
        throw new Refusal('bad-request', `Nothing was changed there since r${base}. Nothing was taken.`);
      return write(opened, {
        files: new Map(taken.map((path) => [path, files.get(path)!])),
        removed,
        message: inWords({ changed, fresh, gone, moved }),
        leftOut: opened.site.leftOut,
      });
    },
  };
}

/** “Changed outside: 2 changed, 1 new”. */
function inWords({
  changed,
  fresh,
  gone,
  moved,
}: Pick<OutsideChanges, 'changed' | 'fresh' | 'gone' | 'moved'>): string {
  const parts = [
    [changed.length, 'changed'],
    [fresh.length, 'new'],
    [moved.length, 'moved'],
    [gone.length, 'gone'],
  ] as const;
  return `Changed outside: ${parts.flatMap(([n, what]) => (n === 0 ? [] : [`${n} ${what}`])).join(', ')}`;
}
