import { useState, type ReactNode } from 'react';
import type { EffectReply, OperationBody } from '@syndeton/contract';
import { Button } from '../../ui/Button.tsx';
import { Act } from '../../ui/Act.tsx';
import { Box } from '../../ui/Box.tsx';
import { count, pageName } from '../../ui/format.ts';
import { useLazyEffectQuery } from './draftsApi.ts';
import type { DraftInHand } from './useDraft.ts';

interface Asked {
  readonly title: string;
  readonly how: () => Promise<void>;
  /** What an author wrote beside it. */
  readonly notes: readonly string[];
  readonly effect: EffectReply;
}

interface AskedFirst {
  /** Puts operations in the draft; where a look would change, or somebody left a note there, it asks first. Rejects with the refusal. */
  readonly addToDraft: (
    title: string,
    operations: readonly OperationBody[],
    notes?: readonly string[],
    /** How it is put in the draft; behind all else when absent. */
    how?: () => Promise<void>,
  ) => Promise<void>;
  readonly looking: boolean;
  /** The question, while it is open. */
  readonly question: ReactNode;
}

/** For operations whose name does not say that they change a look. */
export function useAskedFirst(siteId: string, inHand: DraftInHand): AskedFirst {
  const [tryOperations, { isFetching }] = useLazyEffectQuery();
  const [asked, setAsked] = useState<Asked | undefined>(undefined);
  const addToDraft: AskedFirst['addToDraft'] = async (
    title,
    operations,
    notes = [],
    how = () => inHand.addToDraft(operations),
  ) => {
    const { base, version } = inHand.draft!;
    const effect = await tryOperations({ id: siteId, base, version, operations: [...operations] }, true).unwrap();
    if (notes.length + effect.differing.length + effect.unsure.length === 0) return how();
    setAsked({ title, how, notes, effect });
    return undefined;
  };
  return {
    addToDraft,
    looking: isFetching,
    question: asked && (
      <Question
        {...asked}
        onYes={() => {
          setAsked(undefined);
          // what is refused is said in the draft bar
          void asked.how().catch(() => undefined);
        }}
        onNo={() => setAsked(undefined)}
      />
    ),
  };
}

function Question({
  title,
  notes,
  effect,
  onYes,
  onNo,
}: Asked & { readonly onYes: () => void; readonly onNo: () => void }) {
  const { differing, unsure } = effect;
  return (
    <Box open onClose={onNo} title={title} describedBy="asked">
      <div id="asked" className="grid gap-2 text-table">
        {notes.map((note) => (
          <p key={note}>
            Its author wrote there: <q>{note}</q>
          </p>
        ))}
        {differing.length > 0 && (
          <p>
            <b>{count(differing.length, 'page')}</b> will look different: {names(differing)}.
          </p>
        )}
        {unsure.length > 0 && (
          <p>
            Of <b>{count(unsure.length, 'page')}</b> it cannot be told: {names(unsure)}.
          </p>
        )}
        {differing.length + unsure.length === 0 && <p>No page will look different.</p>}
      </div>
      <div className="mt-4 flex items-center gap-4">
        <Button next onClick={onYes}>
          {differing.length > 0 ? 'Put it in the draft all the same' : 'Put it in the draft'}
        </Button>
        <Act onClick={onNo}>Cancel</Act>
      </div>
    </Box>
  );
}

const names = (pages: readonly string[]): string =>
  pages.slice(0, 6).map(pageName).join(', ') + (pages.length > 6 ? ` and ${pages.length - 6} more` : '');
