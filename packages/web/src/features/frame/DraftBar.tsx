import { useState } from 'react';
import type { DraftReply, ProofReply } from '@syndeton/contract';
import { Act } from '../../ui/Act.tsx';
import { Button } from '../../ui/Button.tsx';
import { Box } from '../../ui/Box.tsx';
import { count } from '../../ui/format.ts';
import { useKeys } from '../../ui/useKeys.ts';
import type { DraftProblem } from '../drafts/index.ts';
import { DraftReview } from './DraftReview.tsx';
import { proofWords } from './proofWords.ts';
import { SaveWithNote } from './SaveWithNote.tsx';

interface Props {
  readonly draft: DraftReply | undefined;
  readonly proof: ProofReply | undefined;
  readonly progress: { readonly done: number; readonly total: number } | undefined;
  readonly failed: string | undefined;
  readonly revision: number;
  readonly idle: string;
  /** What could not be done last. */
  readonly problem: DraftProblem | undefined;
  /** Changes are on their way. */
  readonly busy: boolean;
  /** With what its author says about a change of look. */
  readonly onSave: (note: string) => void;
  readonly onDiscard: () => void;
  readonly onRedo: () => void;
  readonly onLeave: () => void;
  readonly onRemove: (index: number) => void;
  /** Puts back what was taken out last. */
  readonly onAgain: (() => void) | undefined;
  readonly onProof: () => void;
  /** To a line of a sheet. */
  readonly onLine: (path: string, line: number) => void;
  /** Sheets with text that is not in the draft yet. */
  readonly unfinished: readonly string[];
  readonly onBroughtIn: () => void;
  /** Files before and after as text: of the draft from this file on, or of what was saved last. */
  readonly onTexts: (path?: string) => void;
}

/** What is in the draft, in words, with what the proof says of it; nothing is half-saved. */
export function DraftBar({
  draft,
  proof,
  progress,
  failed,
  revision,
  idle,
  problem,
  busy,
  onSave,
  onDiscard,
  onRedo,
  onLeave,
  onRemove,
  onAgain,
  onProof,
  onLine,
  unfinished,
  onBroughtIn,
  onTexts,
}: Props) {
  const [reviewing, setReviewing] = useState(false);
  const [asking, setAsking] = useState(false);
  const [noting, setNoting] = useState(false);
  const looksOther = proof !== undefined && proof.verdict !== 'same';
  const lined = draft?.operations.length ?? 0;
  const late = problem?.late === true;
  const save = (): void => (looksOther && lined > 0 && !late && !busy ? setNoting(true) : onSave(''));
  useKeys({ 'ctrl+enter': save });
  return (
    <section
      className={`relative z-4 flex items-center gap-3.5 bg-ground px-4 max-phone:flex-wrap max-phone:gap-y-1 max-phone:py-2 [&>p]:min-w-0 [&>p]:text-ink-2 max-phone:[&>p]:flex-[1_1_60%] [&>p_b]:font-semibold [&>p_b]:text-ink ${late ? 'min-h-16.5' : 'min-h-(--h-draft)'}`}
      aria-label="Draft"
      aria-live="polite"
    >
      <Seam state={late ? 'torn' : lined === 0 ? 'empty' : 'tacked'} />
      <b>Draft</b>
      {late ? (
        <p>
          <span className="font-medium text-error">Not done.</span> {problem.detail}
        </p>
      ) : lined === 0 ? (
        <p>
          {idle}
          <Waiting sheets={unfinished} onLine={onLine} />
          {problem !== undefined && <span className="font-medium text-error"> {problem.detail}</span>}
        </p>
      ) : (
        <p>
          <b>{count(lined, 'operation')}</b> {lined === 1 ? 'changes' : 'change'} {count(draft!.changes.length, 'file')}
          .{' '}
          {failed ? (
            <span className="font-medium text-error">{failed}</span>
          ) : (
            <ProofSentence proof={proof} progress={progress} onProof={onProof} />
          )}
          <Waiting sheets={unfinished} onLine={onLine} />
          {draft!.mistakes.length > 0 && <Mistakes mistakes={draft!.mistakes} onLine={onLine} />}
          {problem !== undefined && <span className="font-medium text-error"> {problem.detail}</span>}
        </p>
      )}
      <div className="ml-auto flex flex-none items-center gap-4.5">
        {late ? (
          <>
            <Act onClick={onLeave}>{problem.redo === undefined ? 'Look at it as it is now' : 'Leave mine'}</Act>
            {problem.redo !== undefined && (
              <Button next onClick={onRedo}>
                Redo mine on top
              </Button>
            )}
          </>
        ) : lined > 0 ? (
          <>
            <Act onClick={() => setReviewing(true)}>Review</Act>
            {onAgain && <Act onClick={onAgain}>Put back</Act>}
            <Act onClick={() => (lined > 1 ? setAsking(true) : onDiscard())}>Discard</Act>
            <Button next={proof?.verdict === 'same' || proof?.verdict === 'intended'} onClick={save} disabled={busy}>
              Save as r{revision + 1} <kbd>Ctrl ↵</kbd>
            </Button>
          </>
        ) : (
          <>
            {onAgain && <Act onClick={onAgain}>Put back</Act>}
            {revision > 1 && <Act onClick={() => onTexts()}>What r{revision} changed</Act>}
            <Act onClick={onBroughtIn}>Files of the site</Act>
          </>
        )}
      </div>
      <Box open={asking} onClose={() => setAsking(false)} title={`Discard ${count(lined, 'operation')}?`}>
        <p className="text-table">
          Nothing was saved of them. They can be put back as long as nothing else is done here.
        </p>
        <div className="mt-4 flex items-center gap-4">
          <Button
            next
            onClick={() => {
              setAsking(false);
              onDiscard();
            }}
          >
            Discard them
          </Button>
          <Act onClick={() => setAsking(false)}>Cancel</Act>
        </div>
      </Box>
      {noting && proof && (
        <SaveWithNote
          proof={proof}
          revision={revision + 1}
          onClose={() => setNoting(false)}
          onSave={(note) => {
            setNoting(false);
            onSave(note);
          }}
        />
      )}
      {draft && (
        <DraftReview
          open={reviewing}
          onClose={() => setReviewing(false)}
          draft={draft}
          onRemove={onRemove}
          onTexts={(path) => {
            setReviewing(false);
            onTexts(path);
          }}
        />
      )}
    </section>
  );
}

/** What is typed is in no draft and in no save until its author says so. */
function Waiting({ sheets, onLine }: { readonly sheets: readonly string[] } & Pick<Props, 'onLine'>) {
  const [first] = sheets;
  if (first === undefined) return null;
  return (
    <>
      {' '}
      <Act onClick={() => onLine(first, 1)}>
        {sheets.length === 1 ? `The edit of ${first}` : `Edits of ${sheets.length} sheets`}
      </Act>{' '}
      {sheets.length === 1 ? 'waits' : 'wait'} for your word.
    </>
  );
}

/** What is wrong can be saved, but not unseen. */
function Mistakes({ mistakes, onLine }: { readonly mistakes: DraftReply['mistakes'] } & Pick<Props, 'onLine'>) {
  const [first] = mistakes;
  const files = new Set(mistakes.map(({ path }) => path));
  return (
    <>
      {' '}
      <Act className="text-error!" title={first!.sentence} onClick={() => onLine(first!.path, first!.line)}>
        {count(mistakes.length, 'mistake')} in {files.size === 1 ? first!.path : `${files.size} sheets`}
      </Act>
    </>
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
          <Act onClick={onProof}>{words.differs}</Act>
        </>
      )}
    </>
  );
}

/** A running stitch while something is only tacked; torn when it could not be saved. */
function Seam({ state }: { readonly state: 'torn' | 'empty' | 'tacked' }) {
  return (
    <svg
      className={`absolute -top-px left-0 h-0.5 w-full overflow-visible fill-none ${state === 'empty' ? 'stroke-line-2' : 'stroke-thread stroke-[1.8]'}`}
      strokeDasharray={state === 'empty' ? undefined : '11 7'}
      strokeDashoffset="4"
      aria-hidden="true"
    >
      {state === 'torn' ? (
        <>
          <path d="M0 1H420" />
          <path d="M420 1c8 0 10 -7 16 -6M452 9c4 2 8 -8 14 -8" strokeDasharray="none" />
          <path d="M466 1H4000" />
        </>
      ) : (
        <path d="M0 1H4000" />
      )}
    </svg>
  );
}
