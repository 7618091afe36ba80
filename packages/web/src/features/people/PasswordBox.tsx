import { useState } from 'react';
import { Button } from '../../ui/Button.tsx';
import { Act } from '../../ui/Act.tsx';
import { Field } from '../../ui/Field.tsx';
import { Box } from '../../ui/Box.tsx';
import { Problem } from '../../ui/Said.tsx';
import { useChangePasswordMutation } from './peopleApi.ts';
import { useAttempt } from './useAttempt.ts';

export const leastPassword = 10;

/** Another password for oneself; whoever is signed in elsewhere with the old one is signed out. */
export function PasswordBox({ onClose }: { readonly onClose: () => void }) {
  const [change] = useChangePasswordMutation();
  const [old, setOld] = useState('');
  const [password, setPassword] = useState('');
  const [again, setAgain] = useState('');
  const { problem, attempt } = useAttempt();
  const differ = again !== '' && again !== password;
  const isReady = password.length >= leastPassword && again === password;
  return (
    <Box open onClose={onClose} title="Change your password">
      <form
        className="grid gap-3 text-table"
        onSubmit={(event) => {
          event.preventDefault();
          void attempt(() => change({ old, password }).unwrap()).then((done) => done && onClose());
        }}
      >
        <PasswordField label="Password until now" value={old} onChange={setOld} complete="current-password" />
        <PasswordField
          label={`New password, ${leastPassword} characters at least`}
          value={password}
          onChange={setPassword}
          complete="new-password"
        />
        <PasswordField label="Once more" value={again} onChange={setAgain} complete="new-password" />
        {(problem !== undefined || differ) && <Problem>{problem ?? 'These are two passwords.'}</Problem>}
        <p className="text-note text-ink-3">
          Whoever is signed in elsewhere with the old one is signed out; your keys for programs end.
        </p>
        <div className="flex items-center gap-4">
          <Button type="submit" next disabled={!isReady || old === ''}>
            Change it
          </Button>
          <Act onClick={onClose}>Cancel</Act>
        </div>
      </form>
    </Box>
  );
}

interface PasswordProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly complete: string;
}

function PasswordField({ label, value, onChange, complete }: PasswordProps) {
  return (
    <label className="grid gap-1">
      {label}
      <Field type="password" autoComplete={complete} value={value} onChange={(event) => onChange(event.target.value)} />
    </label>
  );
}
