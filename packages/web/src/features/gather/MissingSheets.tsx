import type { ProposalReply } from '@syndeton/contract';
import { count, someNames } from '../../ui/format.ts';

interface Props {
  readonly missing: ProposalReply['missing'];
  readonly onNowhere: (paths: readonly string[]) => void;
}

/** Sheets that pages ask for and that are not here: what they are said to be decides what a plan may move. */
export function MissingSheets({ missing, onNowhere }: Props) {
  return (
    <section className="asking" aria-label="Sheets that are not here">
      <p>
        <b>{count(missing.length, 'sheet')}</b> that pages ask for {missing.length === 1 ? 'is' : 'are'} not here. Such
        a sheet might beat a class, so the style attributes of its pages stay.
      </p>
      <ul>
        {missing.map(({ path, pages }) => (
          <li key={path}>
            <span className="m">{path}</span> <span className="note">asked for by {someNames(pages)}</span>{' '}
            <button type="button" className="act" onClick={() => onNowhere([path])}>
              It is nowhere
            </button>
          </li>
        ))}
      </ul>
      {missing.length > 1 && (
        <button type="button" className="act" onClick={() => onNowhere(missing.map(({ path }) => path))}>
          All are nowhere, on the server too
        </button>
      )}
    </section>
  );
}
