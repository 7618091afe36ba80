import { useState } from 'react';
import { listRowLook } from '../../ui/looks.ts';
import { Act } from '../../ui/Act.tsx';
import { Field } from '../../ui/Field.tsx';
import { Button } from '../../ui/Button.tsx';
import { Box } from '../../ui/Box.tsx';
import { savedWhen } from '../../ui/format.ts';
import { Problem } from '../../ui/Said.tsx';
import { useDropTokenMutation, useMakeTokenMutation, useTokensQuery } from './peopleApi.ts';
import { useAttempt } from './useAttempt.ts';

/** Keys that stand for oneself in programs: a build server, a script. Each is told once. */
export function KeysBox({ onClose }: { readonly onClose: () => void }) {
  const { data: tokens = [] } = useTokensQuery();
  const [make, made] = useMakeTokenMutation();
  const [drop] = useDropTokenMutation();
  const [label, setLabel] = useState('');
  const { problem, attempt } = useAttempt();
  return (
    <Box closes open onClose={onClose} title="Keys for programs">
      <div className="grid gap-3 text-table">
        <p>
          A program that sends <code>Authorization: Bearer KEY</code> may do what you may.
        </p>
        <ul>
          {tokens.map(({ id, label, createdAt }) => (
            <li key={id} className={listRowLook}>
              <span>
                {label} <span className="text-note text-ink-3">made {savedWhen(createdAt)}</span>
              </span>
              <Act onClick={() => void attempt(() => drop(id).unwrap())}>Take it back</Act>
            </li>
          ))}
        </ul>
        {made.data && (
          <p role="status">
            The key of {made.data.label}, shown this once: <code className="break-all">{made.data.token}</code>
          </p>
        )}
        <form
          className="flex items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            void attempt(() => make(label.trim()).unwrap()).then((done) => done && setLabel(''));
          }}
        >
          <label className="grid flex-1 gap-1">
            What it is for
            <Field maxLength={100} value={label} onChange={(event) => setLabel(event.target.value)} />
          </label>
          <Button type="submit" disabled={label.trim() === ''}>
            Make a key
          </Button>
        </form>
        {problem !== undefined && <Problem>{problem}</Problem>}
      </div>
    </Box>
  );
}
