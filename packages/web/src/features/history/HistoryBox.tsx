import { useState } from 'react';
import type { SiteDetailReply } from '@syndeton/contract';
import { problemText } from '../../app/api.ts';
import { Button } from '../../ui/Button.tsx';
import { Act } from '../../ui/Act.tsx';
import { Box } from '../../ui/Box.tsx';
import { count } from '../../ui/format.ts';
import { Problem } from '../../ui/Said.tsx';
import { useRestoreRevisionMutation } from '../site/index.ts';
import { useTakeOutOperationMutation, useWordRevisionMutation } from './historyApi.ts';
import { RevisionRow } from './RevisionRow.tsx';

/** Something that makes a new revision, asked for and not yet done. */
type Asked =
  | { readonly does: 'back'; readonly number: number }
  | { readonly does: 'without'; readonly number: number; readonly operation: number; readonly sentence: string };

interface Props {
  readonly site: SiteDetailReply;
  /** Operations in the draft: they would be lost, so nothing is done over them. */
  readonly inDraft: number;
  readonly onClose: () => void;
  /** Files before and after, as text. */
  readonly onTexts: (number: number) => void;
  /** The proof of two revisions. */
  readonly onCompare: (from: number, to: number) => void;
}

/** What was saved, revision by revision: what each did, and the ways back. Nothing of the past is lost by any of them. */
export function HistoryBox({ site, inDraft, onClose, onTexts, onCompare }: Props) {
  const { id, revision: newest, revisions } = site;
  const [asked, setAsked] = useState<Asked | undefined>(undefined);
  const [word] = useWordRevisionMutation();
  const [restore, restoring] = useRestoreRevisionMutation();
  const [takeOut, taking] = useTakeOutOperationMutation();
  const error = restoring.error ?? taking.error;
  const busy = restoring.isLoading || taking.isLoading;
  const ask = (next: Asked | undefined): void => {
    restoring.reset();
    taking.reset();
    setAsked(next);
  };
  const act = async (): Promise<void> => {
    if (!asked) return;
    const at = { id, number: asked.number, base: newest };
    const done = asked.does === 'back' ? await restore(at) : await takeOut({ ...at, operation: asked.operation });
    if (!done.error) setAsked(undefined);
  };
  return (
    <Box closes open onClose={onClose} title={`${count(revisions.length, 'revision')} of ${site.name}`} wide>
      {asked ? (
        <section className="grid max-w-[640px] content-start gap-3">
          <p>
            {asked.does === 'back' ? (
              <>
                r{newest + 1} would be what <b>r{asked.number}</b> was.
              </>
            ) : (
              <>
                r{newest + 1} would be r{newest} as it were without <b>{asked.sentence}</b>. What came after it is done
                again; where that cannot be, nothing is changed.
              </>
            )}{' '}
            Everything saved since stays in this list, and you can go back to it.
          </p>
          {inDraft > 0 && (
            <p className="font-medium text-error">
              {count(inDraft, 'operation')} of the draft {inDraft === 1 ? 'is' : 'are'} not saved. Save or discard the
              draft first.
            </p>
          )}
          {error !== undefined && <Problem>{problemText(error)}</Problem>}
          <div className="flex items-center gap-4">
            <Button next disabled={busy || inDraft > 0} onClick={() => void act()}>
              Save r{newest + 1} so
            </Button>
            <Act onClick={() => ask(undefined)}>Cancel</Act>
          </div>
        </section>
      ) : (
        <ol className="min-h-0 overflow-auto" aria-label="Revisions, the newest first">
          {revisions.map((revision) => (
            <RevisionRow
              key={revision.number}
              revision={revision}
              newest={newest}
              onWords={(words) => void word({ id, number: revision.number, ...words })}
              onTexts={() => onTexts(revision.number)}
              onCompare={(to) => onCompare(revision.number, to)}
              onBack={() => ask({ does: 'back', number: revision.number })}
              onWithout={(operation) =>
                ask({ does: 'without', number: revision.number, operation, sentence: revision.steps[operation]! })
              }
            />
          ))}
        </ol>
      )}
    </Box>
  );
}
