import type { ProposalReply } from '@syndeton/contract';
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
export function MissingSheets({ missing, correctable, onNowhere, onCorrect, onBringIn }: Props) {
  return (
    <section className="asking" aria-label="Sheets that are not here">
      <p>
        <b>{count(missing.length, 'sheet')}</b> that pages ask for {missing.length === 1 ? 'is' : 'are'} not here. Such
        a sheet might beat a class, so room is left for it: the style attributes of its pages stay.
      </p>
      <ul>
        {missing.map(({ path, pages }) => (
          <li key={path}>
            <span className="m">{path}</span> <span className="note">asked for by {someNames(pages)}</span>{' '}
            <button type="button" className="act mr-3 ml-2" onClick={() => onNowhere([path])}>
              It is nowhere
            </button>{' '}
            {correctable.has(path) && (
              <button type="button" className="act" onClick={() => onCorrect(path)}>
                Correct the path
              </button>
            )}
          </li>
        ))}
      </ul>
      <p className="flex gap-4">
        {missing.length > 1 && (
          <button type="button" className="act" onClick={() => onNowhere(missing.map(({ path }) => path))}>
            All are nowhere, on the server too
          </button>
        )}
        <button type="button" className="act" onClick={onBringIn}>
          Bring {missing.length === 1 ? 'it' : 'one'} in
        </button>
      </p>
    </section>
  );
}
