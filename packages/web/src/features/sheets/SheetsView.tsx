import type { DraftReply, FileTextReply, ProofReply } from '@syndeton/contract';
import { Mark } from '../../ui/Mark.tsx';
import { count, kB, pageName } from '../../ui/format.ts';
import { EditEffect } from './EditEffect.tsx';
import { SheetEditor } from './SheetEditor.tsx';

interface Props {
  readonly sheets: DraftReply['sheets'];
  readonly path: string | undefined;
  readonly file: FileTextReply | undefined;
  readonly changed: boolean;
  readonly busy: boolean;
  readonly problem: string | undefined;
  readonly linedUp: boolean;
  readonly proof: ProofReply | undefined;
  readonly onOpen: (path: string) => void;
  readonly onType: (text: string) => void;
  readonly onLineUp: () => void;
  readonly onPutBack: () => void;
  readonly onPage: (path: string) => void;
}

/** The shared sheets and the text of one, edited as an operation of the draft. */
export function SheetsView(props: Props) {
  const { sheets, path, file } = props;
  const sheet = sheets.find((one) => one.path === path);
  if (!sheet) return <h1 className="say p-6">The site has no sheet yet. Gather rules from the pages to make one.</h1>;
  return (
    <div className="grid h-full grid-rows-[56px_minmax(0,1fr)]">
      <div className="flex items-center border-b border-line px-5">
        <h1 className="say">
          <b>{sheet.path}</b> dresses <b>{count(sheet.pages.length, 'page')}</b> with{' '}
          <b>{count(sheet.rules, 'rule')}</b>.
        </h1>
      </div>
      <div className="grid min-h-0 grid-cols-[188px_minmax(0,1fr)] min-[1100px]:grid-cols-[188px_minmax(0,550fr)_minmax(260px,326fr)]">
        <nav className="shlist" aria-label="Sheets">
          <h2 className="px-4 pb-1.5 text-body!">Sheets</h2>
          {sheets.map((one) => (
            <button
              key={one.path}
              type="button"
              className={`shrow${one.path === path ? ' on' : ''}`}
              aria-current={one.path === path}
              onClick={() => props.onOpen(one.path)}
            >
              <span className="m pl-0!">
                <Mark kind="linked" hidden /> {one.path}
              </span>
              <span>
                {count(one.rules, 'rule')}, {kB(one.bytes)}
              </span>
              <span>
                {one.pages.length === 0
                  ? 'no page links it'
                  : one.pages.length === 1
                    ? pageName(one.pages[0]!)
                    : `${one.pages.length} pages`}
              </span>
            </button>
          ))}
        </nav>
        <div className="min-h-0 min-w-0 overflow-hidden">
          {file === undefined ? (
            <p className="note p-4" role="status">
              Reading {path} …
            </p>
          ) : file.text === null ? (
            <p className="p-4">
              <span className="err">This sheet does not encode back to its own bytes,</span> so it is carried along and
              never edited.
            </p>
          ) : (
            <SheetEditor
              key={`${file.path} ${file.hash}`}
              text={file.text}
              onChange={props.onType}
              onLineUp={props.onLineUp}
              label={`Text of ${file.path}`}
            />
          )}
        </div>
        <EditEffect {...props} />
      </div>
    </div>
  );
}
