import { useState } from 'react';
import { listRowLook } from '../../ui/looks.ts';
import { Act } from '../../ui/Act.tsx';
import { Field } from '../../ui/Field.tsx';
import { Button } from '../../ui/Button.tsx';
import { Box } from '../../ui/Box.tsx';
import { Problem } from '../../ui/Said.tsx';
import { useAddPersonMutation, usePeopleQuery, useRemovePersonMutation } from './peopleApi.ts';
import { leastPassword } from './PasswordBox.tsx';
import { useAttempt } from './useAttempt.ts';

interface Props {
  /** The id of who looks. */
  readonly own: string;
  readonly onClose: () => void;
}

/** Who may sign in; somebody is let in with a first password, or removed. */
export function PeopleBox({ own, onClose }: Props) {
  const { data: people = [] } = usePeopleQuery();
  const [add] = useAddPersonMutation();
  const [remove] = useRemovePersonMutation();
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const [isAdministrator, setAdministrator] = useState(false);
  const [asked, setAsked] = useState<string | undefined>(undefined);
  const { problem, attempt } = useAttempt();
  const letIn = async (): Promise<void> => {
    if (!(await attempt(() => add({ name: name.trim(), password, isAdministrator }).unwrap()))) return;
    setName('');
    setPassword('');
    setAdministrator(false);
  };
  return (
    <Box closes open onClose={onClose} title="People">
      <div className="grid gap-3 text-table">
        <ul>
          {people.map((one) => (
            <li key={one.id} className={listRowLook}>
              <span>
                {one.name}
                {one.isAdministrator && <span className="text-note text-ink-3"> administrator</span>}
              </span>
              {one.id === own ? (
                <span className="text-note text-ink-3">you</span>
              ) : asked === one.id ? (
                <Act className="text-error!" onClick={() => void attempt(() => remove(one.id).unwrap())}>
                  Remove {one.name} for good
                </Act>
              ) : (
                <Act onClick={() => setAsked(one.id)}>Remove</Act>
              )}
            </li>
          ))}
        </ul>
        <form
          className="grid gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            void letIn();
          }}
        >
          <h3 className="font-bold">Let somebody in</h3>
          <label className="grid gap-1">
            Name
            <Field autoComplete="off" maxLength={100} value={name} onChange={(event) => setName(event.target.value)} />
          </label>
          <label className="grid gap-1">
            First password, {leastPassword} characters at least
            <Field
              type="password"
              autoComplete="new-password"
              value={password}
              onChange={(event) => setPassword(event.target.value)}
            />
          </label>
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={isAdministrator}
              onChange={(event) => setAdministrator(event.target.checked)}
            />
            An administrator: sees every site, and lets people in
          </label>
          {problem !== undefined && <Problem>{problem}</Problem>}
          <Button
            type="submit"
            next
            className="justify-self-start"
            disabled={name.trim() === '' || password.length < leastPassword}
          >
            Let in
          </Button>
        </form>
      </div>
    </Box>
  );
}
