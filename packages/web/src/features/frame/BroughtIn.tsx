import { useRef, useState } from 'react';
import type { ChangedSiteReply, SiteDetailReply } from '@syndeton/contract';
import { problemText } from '../../app/api.ts';
import { Button } from '../../ui/Button.tsx';
import { Act } from '../../ui/Act.tsx';
import { actLook, listRowLook } from '../../ui/looks.ts';
import { Box } from '../../ui/Box.tsx';
import { count, kB } from '../../ui/format.ts';
import { Problem } from '../../ui/Said.tsx';
import type { DraftInHand } from '../drafts/index.ts';
import {
  filesOfChooser,
  FilesChanged,
  filesOfDrop,
  leftOutWords,
  LeftOutList,
  packFiles,
  usePutInMutation,
  useTakeInMutation,
  useTakeOutMutation,
  type DroppedFile,
  type SiteView,
} from '../site/index.ts';

interface Props {
  readonly view: SiteView;
  readonly inHand: DraftInHand;
  readonly onClose: () => void;
}

/** What the site holds and what was left out of it; files put in, replaced or taken out later make a new revision. */
export function BroughtIn({ view, inHand, onClose }: Props) {
  const site = view.site!;
  const base = site.revision;
  const [putIn, putting] = usePutInMutation();
  const [takeOut, takingOut] = useTakeOutMutation();
  const [takeIn, takingIn] = useTakeInMutation();
  const [done, setDone] = useState<ChangedSiteReply | undefined>(undefined);
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const chooser = useRef<HTMLInputElement>(null);
  const busy = putting.isLoading || takingOut.isLoading || takingIn.isLoading;
  const attempt = async (what: () => Promise<ChangedSiteReply>): Promise<void> => {
    setProblem(undefined);
    try {
      setDone(await what());
    } catch (error) {
      setProblem(problemText(error));
    }
  };
  const put = (files: readonly DroppedFile[]): void => {
    if (files.length > 0)
      void attempt(async () => putIn({ id: site.id, base, archive: (await packFiles(files)).archive }).unwrap());
  };
  const link = async ({ lacking }: ChangedSiteReply): Promise<void> => {
    setProblem(undefined);
    try {
      await inHand.addToDraft([{ kind: 'link-alike', pages: lacking.map((one) => one.page) }]);
      onClose();
    } catch (error) {
      setProblem(problemText(error));
    }
  };
  const chosen = view.scoped ? view.scope : [];
  return (
    <Box closes open onClose={onClose} title={`What ${site.name} holds`}>
      <div
        className="grid gap-4 text-table text-ink-2"
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          void filesOfDrop(event.dataTransfer).then(put);
        }}
      >
        <p>
          {kinds(site)} as of <b className="text-ink">r{base}</b>. Handing it off gives back the same bytes for all that
          no operation changed.
        </p>
        {site.leftOut.length > 0 && (
          <section>
            <h3 className="font-bold text-ink">
              {leftOutWords(site.leftOut)} {site.leftOut.length === 1 ? 'was' : 'were'} left out
            </h3>
            <LeftOutList
              files={site.leftOut}
              busy={busy}
              onTake={(path) => void attempt(() => takeIn({ id: site.id, base, path }).unwrap())}
            />
          </section>
        )}
        <section>
          <h3 className="font-bold text-ink">Put files in, or replace them</h3>
          <p>
            Choose or drop new pages and sheets, or newer ones of the same name. A folder keeps its name. This makes r
            {base + 1}.
          </p>
          <div className="mt-2 flex flex-wrap items-center gap-4">
            <Button disabled={busy} onClick={() => chooser.current?.click()}>
              Choose files or a zip
            </Button>
            {chosen.length > 0 && (
              <Act
                disabled={busy}
                onClick={() => void attempt(() => takeOut({ id: site.id, base, paths: chosen }).unwrap())}
              >
                Take the {count(chosen.length, 'chosen page')} out
              </Act>
            )}
          </div>
          <input
            ref={chooser}
            type="file"
            hidden
            multiple
            aria-label="Files to put in"
            onChange={(event) => put(filesOfChooser(event.target.files!))}
          />
        </section>
        <details>
          <summary className={actLook}>All {count(site.files.length, 'file')}</summary>
          <ul className="mt-1">
            {site.files.slice(0, 500).map((file) => (
              <li key={file.path} className={listRowLook}>
                <span>
                  <code>{file.path}</code> {file.kind === 'other' ? '' : `${file.kind}, `}
                  {kB(file.bytes)}
                </span>
                <Act
                  disabled={busy}
                  onClick={() => void attempt(() => takeOut({ id: site.id, base, paths: [file.path] }).unwrap())}
                >
                  Remove from the site
                </Act>
              </li>
            ))}
          </ul>
          {site.files.length > 500 && (
            <p className="text-note text-ink-3">The first 500; choose pages in the rail to take others out.</p>
          )}
        </details>
        {busy && <p role="status">Reading, and comparing with the site …</p>}
        {problem !== undefined && <Problem>{problem}</Problem>}
        {done && !busy && <FilesChanged done={done} onLink={() => void link(done)} />}
      </div>
    </Box>
  );
}

function kinds(site: SiteDetailReply): string {
  const of = (kind: string): number => site.files.filter((file) => file.kind === kind).length;
  return `${count(of('page'), 'page')}, ${count(of('sheet'), 'sheet')} and ${count(of('other'), 'other file')}`;
}
