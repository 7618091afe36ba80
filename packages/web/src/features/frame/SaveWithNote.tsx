import { useState } from 'react';
import type { ProofReply } from '@syndeton/contract';
import { fieldLook } from '../../ui/looks.ts';
import { Button } from '../../ui/Button.tsx';
import { Act } from '../../ui/Act.tsx';
import { Box } from '../../ui/Box.tsx';
import { proofWords } from './proofWords.ts';

interface Props {
  readonly proof: ProofReply;
  /** The one it becomes. */
  readonly revision: number;
  readonly onSave: (note: string) => void;
  readonly onClose: () => void;
}

/** Before a draft is saved that changes looks: its author may say why, for those who read the history and the report. */
export function SaveWithNote({ proof, revision, onSave, onClose }: Props) {
  const [note, setNote] = useState('');
  const { same, differs } = proofWords(proof);
  return (
    <Box open onClose={onClose} title={`Save as r${revision}?`}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          onSave(note);
        }}
      >
        <p>
          {same} {differs}
        </p>
        <label className="block text-table">
          Why, if it is meant so. It stays with the revision and stands in the report.
          <textarea
            className={`${fieldLook} mt-1 h-20! py-1!`}
            autoFocus
            maxLength={5000}
            value={note}
            onChange={(event) => setNote(event.target.value)}
            onKeyDown={(event) => {
              if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey)) return;
              // once this box is gone the keys would be the draft's own
              event.preventDefault();
              event.currentTarget.form?.requestSubmit();
            }}
          />
        </label>
        <div className="flex items-center gap-4">
          <Button type="submit" next>
            Save as r{revision}
          </Button>
          <Act onClick={onClose}>Cancel</Act>
        </div>
      </form>
    </Box>
  );
}
