import { useState } from 'react';
import { Box } from '../../ui/Box.tsx';
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
        <Field label="Password until now" value={old} onChange={setOld} complete="current-password" />
        <Field
          label={`New password, ${leastPassword} characters at least`}
          value={password}
          onChange={setPassword}
          complete="new-password"
        />
        <Field label="Once more" value={again} onChange={setAgain} complete="new-password" />
        {(problem !== undefined || differ) && (
          <p className="err" role="alert">
            {problem ?? 'These are two passwords.'}
          </p>
        )}
        <p className="note">
          Whoever is signed in elsewhere with the old one is signed out; your keys for programs end.
        </p>
        <div className="flex items-center gap-4">
          <button type="submit" className="btn next" disabled={!isReady || old === ''}>
            Change it
          </button>
          <button type="button" className="act" onClick={onClose}>
            Cancel
          </button>
        </div>
      </form>
    </Box>
  );
}

interface FieldProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly complete: string;
}

function Field({ label, value, onChange, complete }: FieldProps) {
  return (
    <label className="grid gap-1">
      {label}
      <input className="field" type="password" autoComplete={complete} value={value} onChange={(event) => onChange(event.target.value)} />
    </label>
  );
} // prettier-ignore
