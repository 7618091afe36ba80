import { useEffect, useRef, useState } from 'react';
import { addressOf, type ChangedSiteReply, type OutsideChangesReply, type RecipeReply } from '@syndeton/contract';
import { problemText } from '../../app/api.ts';
import { Act } from '../../ui/Act.tsx';
import { Box } from '../../ui/Box.tsx';
import { Problem } from '../../ui/Said.tsx';
import type { DraftInHand } from '../drafts/index.ts';
import {
  filesOfChooser,
  filesOfFolder,
  FilesChanged,
  folderOfSite,
  packFiles,
  useCompareOutsideMutation,
  useTakeOutsideMutation,
  type DroppedFile,
  type SiteView,
  type WorkFolder,
} from '../site/index.ts';
import { useFitRecipeMutation } from './handoffApi.ts';
import { OutsideList } from './OutsideList.tsx';

interface Props {
  readonly view: SiteView;
  readonly inHand: DraftInHand;
}

/** The site as it is outside by now, brought in again: what others changed there is shown, then taken as a revision. */
export function ComingBack({ view, inHand }: Props) {
  const { id, revision: base, name } = view.site!;
  const [work, setWork] = useState<WorkFolder | undefined>(undefined);
  const [found, setFound] = useState<
    { readonly archive: Blob; readonly against: number; readonly changes: OutsideChangesReply } | undefined
  >();
  const [done, setDone] = useState<ChangedSiteReply | undefined>(undefined);
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const [compare, comparing] = useCompareOutsideMutation();
  const [take, taking] = useTakeOutsideMutation();
  const [fit, fitting] = useFitRecipeMutation();
  const zip = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);
  useEffect(() => void folderOfSite(id).then(setWork, () => undefined), [id]);
  const attempt = async (act: () => Promise<void>): Promise<void> => {
    setProblem(undefined);
    try {
      await act();
    } catch (error) {
      setProblem(problemText(error));
    }
  };
  const look = (files: () => Promise<readonly DroppedFile[]>): Promise<void> =>
    attempt(async () => {
      const { archive } = await packFiles(await files());
      setFound({ archive, against: base, changes: await compare({ id, base, archive }).unwrap() });
    });
  /** What was saved has come back from the server, with the draft on it. */
  const isShown = ({ number }: ChangedSiteReply): boolean => base === number && inHand.draft?.base === number;
  const close = (): void => {
    setFound(undefined);
    setDone(undefined);
    setProblem(undefined);
  };
  const chosen = (input: HTMLInputElement): void => {
    const files = filesOfChooser(input.files!);
    input.value = '';
    if (files.length > 0) void look(() => Promise.resolve(files));
  };
  /** What the saved revisions did, tried on the site as it is with the new pages. */
  const doLikewise = (): Promise<void> =>
    attempt(async () => {
      const reply = await fetch(`${addressOf('readRecipe', { id, number: base })}?since=1`);
      if (!reply.ok) throw new Error('What was done before could not be read. Try again.');
      const recipe = (await reply.json()) as RecipeReply;
      const { base: on, version } = inHand.draft!;
      const { operations } = await fit({ id, base: on, version, recipe }).unwrap();
      if (operations.length === 0) throw new Error('Nothing of what was done before fits them.');
      await inHand.addToDraft(operations);
      close();
      view.go('proof');
    });
  const linkAlike = (reply: ChangedSiteReply): Promise<void> =>
    attempt(async () => {
      await inHand.addToDraft([{ kind: 'link-alike', pages: reply.lacking.map(({ page }) => page) }]);
      close();
      view.go('links');
    });
  return (
    <section aria-labelledby="coming-back">
      <h2 id="coming-back" className="mt-5 mb-1.5">
        Coming back
      </h2>
      <p className="text-table text-ink-2">
        Was the site changed outside since? Bring it in again: what changed there is shown first, and becomes r
        {base + 1} when you take it.
      </p>
      <p className="mt-1.5 flex flex-wrap gap-x-5 gap-y-1">
        <Act disabled={comparing.isLoading} onClick={() => zip.current!.click()}>
          Compare a zip
        </Act>
        <Act disabled={comparing.isLoading} onClick={() => folder.current!.click()}>
          Compare a folder
        </Act>
        {work && (
          <Act disabled={comparing.isLoading} onClick={() => void look(() => filesOfFolder(work.folder))}>
            Read {work.folder.name} again
          </Act>
        )}
        {comparing.isLoading && <span role="status">Comparing every file …</span>}
      </p>
      <input
        ref={zip}
        type="file"
        accept=".zip"
        hidden
        aria-label="A zip of the site as it is outside"
        onChange={(event) => chosen(event.target)}
      />
      <input
        ref={folder}
        type="file"
        hidden
        {...{ webkitdirectory: '' }}
        aria-label="The folder of the site as it is outside"
        onChange={(event) => chosen(event.target)}
      />
      {problem !== undefined && !found && <Problem>{problem}</Problem>}
      {found && (
        <Box open onClose={close} title={`What changed outside, against r${found.against} of ${name}`}>
          {done ? (
            <>
              <FilesChanged done={done} onLink={() => void linkAlike(done)} />
              {done.added.length > 0 && base > 1 && (
                <p className="mt-3">
                  <Act disabled={fitting.isLoading || !isShown(done)} onClick={() => void doLikewise()}>
                    {fitting.isLoading ? 'Trying what fits …' : 'Do with what is new as was done with the rest'}
                  </Act>{' '}
                  <span className="text-note text-ink-3">
                    the steps of all revisions, into the draft; shown in Proof before anything is saved
                  </span>
                </p>
              )}
              <Act className="mt-3" onClick={close}>
                Close
              </Act>
            </>
          ) : (
            <OutsideList
              changes={found.changes}
              busy={taking.isLoading}
              inDraft={inHand.draft!.operations.length}
              onTake={(gone) =>
                void attempt(async () => setDone(await take({ id, base, archive: found.archive, gone }).unwrap()))
              }
              onClose={close}
            />
          )}
          {problem !== undefined && <Problem className="mt-2">{problem}</Problem>}
        </Box>
      )}
    </section>
  );
}
