import type { ProposalReply } from '@syndeton/contract';
import { askingLook } from '../../ui/looks.ts';
import { Act } from '../../ui/Act.tsx';
import { count, someNames } from '../../ui/format.ts';

interface Props {
  readonly missing: ProposalReply['missing'];
  /** Those whose links have a path that can be corrected. */
  readonly correctable: ReadonlySet<string>;
  readonly onNowhere: (paths: readonly string[]) => void;
  readonly onCorrect: (path: string) => void;
  readonly onBringIn: () => void;
}

/** Sheets that pages ask for and that are not here: what they are said to be decides what a plan may move. */
export function MissingSheets({ missing, ...on }: Props) {
  const [gone, elsewhere] = [missing.filter(({ isRemote }) => !isRemote), missing.filter(({ isRemote }) => isRemote)];
  return (
    <>
      {gone.length > 0 && (
        <section className={askingLook} aria-label="Sheets that are not here">
          <p>
            <b>{count(gone.length, 'sheet')}</b> that pages ask for {gone.length === 1 ? 'is' : 'are'} not here. Such a
            sheet might beat a class, so room is left for it: the style attributes of its pages stay.
          </p>
          <Asked sheets={gone} answer="It is nowhere" {...on} />
          <p className="flex gap-4">
            {gone.length > 1 && (
              <Act onClick={() => on.onNowhere(gone.map(({ path }) => path))}>All are nowhere, on the server too</Act>
            )}
            <Act onClick={on.onBringIn}>Bring {gone.length === 1 ? 'it' : 'one'} in</Act>
          </p>
        </section>
      )}
      {elsewhere.length > 0 && (
        <section className={askingLook} aria-label="Sheets on other servers">
          <p>
            <b>{count(elsewhere.length, 'sheet')}</b> that pages ask for {elsewhere.length === 1 ? 'is' : 'are'} on
            another server, and what {elsewhere.length === 1 ? 'it says' : 'they say'} is not known here. A sheet of
            fonts alone says nothing about the elements of a page, and neither does one that is gone.
          </p>
          <Asked sheets={elsewhere} answer="It holds fonts alone, or is gone" {...on} />
        </section>
      )}
    </>
  );
}

interface AskedProps extends Pick<Props, 'correctable' | 'onNowhere' | 'onCorrect'> {
  readonly sheets: Props['missing'];
  readonly answer: string;
}

function Asked({ sheets, answer, correctable, onNowhere, onCorrect }: AskedProps) {
  return (
    <ul>
      {sheets.map(({ path, pages }) => (
        <li key={path}>
          <span className="m break-all">{path}</span>{' '}
          <span className="text-note text-ink-3">asked for by {someNames(pages)}</span>{' '}
          <Act className="mr-3 ml-2" onClick={() => onNowhere([path])}>
            {answer}
          </Act>{' '}
          {correctable.has(path) && <Act onClick={() => onCorrect(path)}>Correct the path</Act>}
        </li>
      ))}
    </ul>
  );
}
