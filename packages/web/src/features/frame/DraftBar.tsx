import { useState } from 'react';
import type { DraftReply, ProofReply } from '@syndeton/contract';
import { isConflict, problemText } from '../../app/api.ts';
import { count } from '../../ui/format.ts';
import { DraftReview } from './DraftReview.tsx';
import { proofWords } from './proofWords.ts';

interface Props {
  readonly draft: DraftReply | undefined;
  readonly proof: ProofReply | undefined;
  readonly progress: { readonly done: number; readonly total: number } | undefined;
  readonly failed: string | undefined;
  readonly revision: number;
  readonly idle: string;
  readonly error: unknown;
  readonly saving: boolean;
  readonly onSave: () => void;
  readonly onDiscard: () => void;
  readonly onRedo: () => void;
  readonly onRemove: (index: number) => void;
  readonly onProof: () => void;
  readonly onBroughtIn: () => void;
}

/** What is lined up, in words, with what the proof says of it; nothing is half-saved. */
export function DraftBar({
  draft,
  proof,
  progress,
  failed,
  revision,
  idle,
  error,
  saving,
  onSave,
  onDiscard,
  onRedo,
  onRemove,
  onProof,
  onBroughtIn,
}: Props) {
  const [reviewing, setReviewing] = useState(false);
  const lined = draft?.operations.length ?? 0;
  const conflict = isConflict(error) || (draft !== undefined && lined > 0 && draft.base !== revision);
  const state = conflict ? 'torn' : lined === 0 ? 'empty' : '';
  return (
    <section className={`draft ${state}`} aria-label="Draft" aria-live="polite">
      <Seam torn={conflict} />
      <b>Draft</b>
      {conflict ? (
        <p>
          <span className="err">Not saved.</span> Someone saved r{revision} meanwhile; your {count(lined, 'operation')}{' '}
          {lined === 1 ? 'was' : 'were'} lined up on r{draft?.base}.
        </p>
      ) : lined === 0 ? (
        <p>{idle}</p>
      ) : (
        <p>
          <b>{count(lined, 'operation')}</b> {lined === 1 ? 'changes' : 'change'} {count(draft!.changes.length, 'file')}
          .{' '}
          {failed ? (
            <span className="err">{failed}</span>
          ) : (
            <ProofSentence proof={proof} progress={progress} onProof={onProof} />
          )}
          {error !== undefined && <span className="err"> {problemText(error)}</span>}
        </p>
      )}
      <div className="acts">
        {conflict ? (
          <>
            <button type="button" className="act" onClick={onDiscard}>
              Discard mine
            </button>
            <button type="button" className="btn next" onClick={onRedo}>
              Redo mine on top of r{revision}
            </button>
          </>
        ) : lined > 0 ? (
          <>
            <button type="button" className="act" onClick={() => setReviewing(true)}>
              Review
            </button>
            <button type="button" className="act" onClick={onDiscard}>
              Discard
            </button>
            <button
              type="button"
              className={`btn${proof?.verdict === 'same' ? ' next' : ''}`}
              onClick={onSave}
              disabled={saving}
            >
              Save as r{revision + 1} <kbd>Ctrl ↵</kbd>
            </button>
          </>
        ) : (
          <button type="button" className="act" onClick={onBroughtIn}>
            What was brought in
          </button>
        )}
      </div>
      {draft && <DraftReview open={reviewing} onClose={() => setReviewing(false)} draft={draft} onRemove={onRemove} />}
    </section>
  );
}

function ProofSentence({
  proof,
  progress,
  onProof,
}: {
  readonly proof: ProofReply | undefined;
  readonly progress: Props['progress'];
  readonly onProof: () => void;
}) {
  if (!proof)
    return (
      <>{progress && progress.total > 0 ? `Proving, ${progress.done} of ${progress.total} pages …` : 'Proving …'}</>
    );
  const words = proofWords(proof);
  return (
    <>
      {words.same}
      {words.differs !== undefined && (
        <>
          {' '}
          <button type="button" className="act" onClick={onProof}>
            {words.differs}
          </button>
        </>
      )}
    </>
  );
}

/** A running stitch while something is only tacked; torn when it could not be saved. */
function Seam({ torn }: { readonly torn: boolean }) {
  return (
    <svg className="seam" aria-hidden="true">
      {torn ? (
        <>
          <path d="M0 1H420" />
          <path d="M420 1c8 0 10 -7 16 -6M452 9c4 2 8 -8 14 -8" style={{ strokeDasharray: 'none' }} />
          <path d="M466 1H4000" />
        </>
      ) : (
        <path d="M0 1H4000" />
      )}
    </svg>
  );
}
