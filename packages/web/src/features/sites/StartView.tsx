import { useRef, useState, type DragEvent, type ReactNode } from 'react';
import { Link, useNavigate } from 'react-router';
import type { ImportReply, SiteSummaryReply } from '@syndeton/contract';
import { actLook, frameLook, headLook, headNameLook, sayLook, threadBoxLook } from '../../ui/looks.ts';
import { Brand } from '../../ui/Brand.tsx';
import { FindButton } from '../../ui/FindButton.tsx';
import { Act } from '../../ui/Act.tsx';
import { Button } from '../../ui/Button.tsx';
import { Finder } from '../../ui/Finder.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { ThemeButton } from '../../ui/ThemeButton.tsx';
import { Logo, Strand } from '../../ui/Thread.tsx';
import { count } from '../../ui/format.ts';
import { Problem } from '../../ui/Said.tsx';
import {
  canOpenFolder,
  filesOfChooser,
  filesOfDrop,
  leftOutWords,
  LeftOutList,
  type DroppedFile,
} from '../site/index.ts';
import { SitesTable } from './SitesTable.tsx';

interface Props {
  /** Who is signed in, in the head. */
  readonly person?: ReactNode;
  readonly sites: readonly SiteSummaryReply[] | undefined;
  /** Files on their way to the server. */
  readonly sending: { readonly name: string; readonly files: number } | undefined;
  readonly reading: readonly ImportReply[];
  /** A site that came without some files. */
  readonly brought: ImportReply | undefined;
  readonly taking: boolean;
  readonly problem: string | undefined;
  readonly removed: SiteSummaryReply | undefined;
  readonly onBring: (files: readonly DroppedFile[]) => void;
  readonly onDemo: () => void;
  readonly onOpenFolder: () => void;
  readonly onStop: (id: string) => void;
  readonly onRename: (id: string, name: string) => void;
  readonly onRemove: (site: SiteSummaryReply) => void;
  readonly onBringBack: (site: SiteSummaryReply) => void;
  readonly onTake: (path: string) => void;
}

/** The start: the sites that are here, and the place to drop another. */
export function StartView(props: Props) {
  const { sites, sending, reading, brought, problem, removed, onBring, onDemo } = props;
  const [over, setOver] = useState(false);
  const [finding, setFinding] = useState(false);
  const navigate = useNavigate();
  useKeys({ 'ctrl+k': () => setFinding(true) });
  const folder = useRef<HTMLInputElement>(null);
  const files = useRef<HTMLInputElement>(null);
  const drop = async (event: DragEvent): Promise<void> => {
    event.preventDefault();
    setOver(false);
    onBring(await filesOfDrop(event.dataTransfer));
  };
  return (
    <div
      className={frameLook}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => void drop(event)}
    >
      <header className={headLook}>
        <Brand />
        <span className={headNameLook}>moves styling out of the pages, and proves the look stays</span>
        <FindButton label="Find a site, or something to do" onClick={() => setFinding(true)} />
        {props.person}
        <ThemeButton />
      </header>
      <svg
        className={threadBoxLook}
        fill="none"
        strokeLinecap="round"
        width="1280"
        height="180"
        viewBox="0 0 1280 180"
        aria-hidden="true"
      >
        {[
          'M19 24 C10.5 24 11.5 33 12.5 40 C15 62 26 72 50 72 C180 72 200 84 330 80 S520 70 600 76 S800 92 905 78 C925 75 944 71 958 71 C978 73 974 101 950 101 C922 101 926 73 955 72 C1010 70 1030 100 1064 167',
        ].map((d) => (
          <Strand key={d} d={d} />
        ))}
        <Logo />
      </svg>
      <div />
      <main className="grid grid-cols-[minmax(0,848fr)_minmax(360px,432fr)] min-h-0 border-t border-line-2 max-phone:block max-phone:overflow-auto">
        <section
          className="px-6 pt-4.5 border-r border-line-2 bg-panel overflow-auto max-phone:border-r-0 max-phone:overflow-x-auto"
          aria-label="Sites"
        >
          <h1 className={`${sayLook} pb-3.5`}>
            <StartSentence sites={sites} reading={reading.length + (sending ? 1 : 0)} />
          </h1>
          {(sites?.length ?? 0) + reading.length > 0 && (
            <SitesTable
              sites={sites ?? []}
              reading={reading}
              onStop={props.onStop}
              onRename={props.onRename}
              onRemove={props.onRemove}
            />
          )}
          {sending && (
            <p className="py-4" role="status">
              <b>{sending.name}</b> is being sent, {count(sending.files, 'file')} …
            </p>
          )}
          {removed && (
            <p className="py-4" role="status">
              <b>{removed.name}</b> was removed. It can be brought back for a week.{' '}
              <Act onClick={() => props.onBringBack(removed)}>Bring it back</Act>
            </p>
          )}
          {problem !== undefined && <Problem className="py-4">{problem}</Problem>}
          {[...reading, ...(brought ? [brought] : [])]
            .filter((one) => one.leftOut.length > 0)
            .map((one) => (
              <div key={one.id} className="py-3 text-table text-ink-2" role="status">
                <p className="pb-1.5">
                  <b className="text-ink">{leftOutWords(one.leftOut)}</b> {one.leftOut.length === 1 ? 'was' : 'were'}{' '}
                  left out of{' '}
                  {one.siteId === undefined ? (
                    <>{one.name} so far; the rest goes on.</>
                  ) : (
                    <Link className={actLook} to={`/sites/${one.siteId}/survey`}>
                      {one.name}
                    </Link>
                  )}
                </p>
                <LeftOutList
                  files={one.siteId === undefined ? one.leftOut.map((f) => ({ ...f, kept: false })) : one.leftOut}
                  onTake={props.onTake}
                  busy={props.taking}
                />
              </div>
            ))}
        </section>
        <section
          className="relative min-w-0 px-8 pt-14.25 pb-6 overflow-auto max-phone:pt-6"
          aria-label="Bring a site in"
        >
          <div className="relative rounded-[9px] bg-panel px-8 pt-10 pb-6">
            <svg
              className={`pointer-events-none absolute inset-0 size-full overflow-visible fill-none stroke-thread ${over ? 'stroke-[2.6]' : 'stroke-[1.8]'}`}
              strokeDasharray={over ? undefined : '11 7'}
              aria-hidden="true"
            >
              <rect width="100%" height="100%" rx="9" />
            </svg>
            <h2 className="text-say! leading-7!">Drop a folder, zip or files</h2>
            <p className="mt-1.5">Handing it off at once gives back the same bytes.</p>
            <div className="mt-5 flex flex-wrap items-center gap-4">
              <Button next={sites?.length !== 0} onClick={() => folder.current?.click()}>
                Choose a folder
              </Button>
              <Act onClick={() => files.current?.click()}>Choose a zip or files</Act>
            </div>
            <input
              ref={folder}
              type="file"
              hidden
              aria-label="Folder"
              {...{ webkitdirectory: '' }}
              multiple
              onChange={(event) => onBring(filesOfChooser(event.target.files!))}
            />
            <input
              ref={files}
              type="file"
              hidden
              aria-label="Zip or files"
              multiple
              onChange={(event) => onBring(filesOfChooser(event.target.files!))}
            />
            <p className="text-note text-ink-3 mt-6">
              HTML, CSS, pictures and whatever else lies beside them; nothing in it is altered. Up to 200 MB and 10,000
              files.
            </p>
          </div>
          <h3 className="mt-6 font-bold">No site at hand</h3>
          <p className="text-table text-ink-2">
            Brindle Sound Ferry: 26 pages by several hands over ten years, with the mistakes people make most.
          </p>
          <Button next={sites?.length === 0} className="mt-2" onClick={onDemo}>
            Load the demo
          </Button>
          {canOpenFolder() && (
            <>
              <h3 className="mt-6 font-bold">Work in a folder on this computer</h3>
              <p className="text-table text-ink-2">Open it, and Hand-off writes the changed files back into it.</p>
              <Act className="mt-1" onClick={props.onOpenFolder}>
                Open a folder to work in
              </Act>
            </>
          )}
        </section>
      </main>
      {finding && (
        <Finder
          open
          onClose={() => setFinding(false)}
          hint="Find a site, or something to do"
          things={[
            ...(sites ?? []).map((site) => ({
              group: 'Sites',
              label: site.name,
              hint: `r${site.revision}`,
              run: () => void navigate(`/sites/${site.id}/survey`),
            })),
            { group: 'To do', label: 'Choose a folder to bring in', run: () => folder.current?.click() },
            { group: 'To do', label: 'Choose a zip or files to bring in', run: () => files.current?.click() },
            { group: 'To do', label: 'Load the demo', run: onDemo },
          ]}
        />
      )}
    </div>
  );
}

function StartSentence({
  sites,
  reading,
}: {
  readonly sites: readonly SiteSummaryReply[] | undefined;
  readonly reading: number;
}) {
  if (sites === undefined) return <>Looking for sites …</>;
  if (sites.length === 0)
    return <>{reading > 0 ? 'A site is being read.' : 'No site is here yet. Drop one to begin, or load the demo.'}</>;
  const next = sites.find((site) => (site.figures.waiting?.drifted ?? 0) > 0);
  const others =
    reading === 0 ? '.' : reading === 1 ? ', and another is being read.' : `, and ${reading} more are being read.`;
  return (
    <>
      <b>{count(sites.length, 'site')}</b> {sites.length === 1 ? 'is' : 'are'} here{others}
      {next && (
        <>
          <br />
          <b>{next.name}</b> waits for <b>{count(next.figures.waiting!.drifted, 'decision')}</b>.
        </>
      )}
    </>
  );
}
