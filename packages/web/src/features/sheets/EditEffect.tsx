import type { ProofReply } from '@syndeton/contract';
import { count, pageName } from '../../ui/format.ts';

interface Props {
  readonly changed: boolean;
  readonly busy: boolean;
  readonly problem: string | undefined;
  readonly linedUp: boolean;
  readonly proof: ProofReply | undefined;
  readonly onLineUp: () => void;
  readonly onPutBack: () => void;
  readonly onPage: (path: string) => void;
}

/** What the edit does to the pages, before anything is saved. */
export function EditEffect({ changed, busy, problem, linedUp, proof, onLineUp, onPutBack, onPage }: Props) {
  const differing =
    proof?.pages.filter(
      (page) => page.verdict !== 'same' && page.verdict !== 'unsure' && page.verdict !== 'intended',
    ) ?? [];
  const unsure = proof?.pages.filter((page) => page.verdict === 'unsure') ?? [];
  const elements = differing.reduce((sum, page) => sum + page.differingElements, 0);
  return (
    <aside
      className="overflow-auto border-t border-line-2 px-5 py-3 max-[1099px]:col-span-2 min-[1100px]:border-t-0 min-[1100px]:border-l"
      aria-label="What the edit does"
    >
      {changed ? (
        <>
          <h2>This sheet has been edited</h2>
          <p className="mt-1 text-table text-ink-2">
            Line the change up to see every page and element it touches. Nothing is saved by that.
          </p>
          <div className="mt-3 flex items-center gap-4">
            <button type="button" className="btn next" onClick={onLineUp} disabled={busy}>
              Line up this change
            </button>
            <button type="button" className="act" onClick={onPutBack}>
              Put it back
            </button>
          </div>
        </>
      ) : linedUp && proof ? (
        <>
          <h2>
            {differing.length === 0
              ? unsure.length === 0
                ? 'With the draft, no page looks different'
                : `With the draft, no page is known to look different; of ${count(unsure.length, 'page')} it cannot be told`
              : `With the draft, ${count(elements, 'element')} on ${count(differing.length, 'page')} ${elements === 1 ? 'changes' : 'change'}`}
          </h2>
          <ul className="mt-2 text-table">
            {differing.map((page) => (
              <li key={page.path} className="border-t border-line py-1.5">
                <button type="button" className="act" onClick={() => onPage(page.path)}>
                  {pageName(page.path)}
                </button>{' '}
                <span className="text-ink-3">{count(page.differingElements, 'element')}</span>
                {page.causes.slice(0, 3).map((cause, i) => (
                  <p key={i} className="note">
                    <code>{cause.elements[0]!.name}</code> {cause.property}: {cause.before?.value ?? 'not set'} →{' '}
                    <b className="text-ink">{cause.after?.value ?? 'not set'}</b>
                  </p>
                ))}
              </li>
            ))}
          </ul>
        </>
      ) : linedUp ? (
        <p className="say" role="status">
          Proving every page …
        </p>
      ) : (
        <p className="text-table text-ink-2">
          Change a value: before it is saved you see every page and element it changes.
        </p>
      )}
      {problem !== undefined && (
        <p className="err mt-3 text-table" role="alert">
          {problem}
        </p>
      )}
    </aside>
  );
}
