import { Refusal } from '../../http/refusal.ts';
import type { DraftService } from '../drafts/index.ts';
import type { RevisionStore } from '../../stores/revisionStore.ts';

/** The bytes of a file in a state of a site: a revision (`r3`) or the draft. Refused when there is none. */
export type FileReader = (siteId: string, state: string, path: string) => Promise<Buffer>;

/** No thread of the analysis is asked as long as the draft was made before: a page is shown while others are computed. */
export function makeFileReader({
  drafts,
  revisions,
}: {
  readonly drafts: DraftService;
  readonly revisions: RevisionStore;
}): FileReader {
  return async (siteId, state, path) => {
    const found =
      state === 'draft'
        ? await drafts.file(siteId, path)
        : await revisions.file(siteId, (await drafts.state(siteId, state)).number, path);
    if (!found)
      throw new Refusal('file-not-found', `There is no file ${path} in ${state === 'draft' ? 'the draft' : state}.`);
    return Buffer.from(found.buffer, found.byteOffset, found.byteLength);
  };
}
