import { useState, type FormEvent } from 'react';
import { problemText } from '../../app/api.ts';
import { Field } from '../../ui/Field.tsx';
import { Button } from '../../ui/Button.tsx';
import { Act } from '../../ui/Act.tsx';
import { Box } from '../../ui/Box.tsx';
import { Choice } from '../../ui/Choice.tsx';
import { count } from '../../ui/format.ts';
import { Problem } from '../../ui/Said.tsx';
import { useAskMachineMutation, useStartUploadMutation } from './handoffApi.ts';

interface Props {
  readonly siteId: string;
  readonly revision: number;
  readonly changed: number;
  readonly onClose: () => void;
}

interface Machine {
  readonly protocol: 'sftp' | 'ftps';
  readonly host: string;
  readonly port: string;
  readonly user: string;
  readonly folder: string;
}

const usualPort = { sftp: '22', ftps: '21' } as const;
const kept = 'syndeton-machine';

/** Asked last in this browser; the password never is. */
function lastMachine(siteId: string): Machine {
  const none: Machine = { protocol: 'sftp', host: '', port: usualPort.sftp, user: '', folder: '/' };
  try {
    return { ...none, ...(JSON.parse(localStorage.getItem(`${kept} ${siteId}`) ?? '{}') as Partial<Machine>) };
  } catch {
    return none;
  }
}

/** Where to and as whom; then the machine's key is shown, and only with the owner's word is anything sent. */
export function UploadBox({ siteId, revision, changed, onClose }: Props) {
  const [machine, setMachine] = useState(() => lastMachine(siteId));
  const [password, setPassword] = useState('');
  const [key, setKey] = useState<string | undefined>(undefined);
  const [ask, asking] = useAskMachineMutation();
  const [start, starting] = useStartUploadMutation();
  const error = asking.error ?? starting.error;
  const { protocol, host, user, folder } = machine;
  const at = { id: siteId, protocol, host: host.trim(), port: Number(machine.port) };
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    if (key === undefined) {
      const asked = await ask(at);
      if (!asked.error) setKey(asked.data.key);
      return;
    }
    localStorage.setItem(`${kept} ${siteId}`, JSON.stringify(machine));
    const begun = await start({ ...at, number: revision, user, password, folder, key, since: 1 });
    if (!begun.error) onClose();
  };
  const field = (label: string, name: 'host' | 'port' | 'user' | 'folder', placeholder: string) => (
    <label className="block text-table">
      {label}
      <Field
        className="mt-1"
        required
        value={machine[name]}
        placeholder={placeholder}
        inputMode={name === 'port' ? 'numeric' : undefined}
        pattern={name === 'port' ? '[0-9]{1,5}' : undefined}
        onChange={(event) => {
          setKey(undefined);
          setMachine({ ...machine, [name]: event.target.value });
        }}
      />
    </label>
  );
  return (
    <Box open onClose={onClose} title={`Upload ${count(changed, 'file')}`}>
      <form className="grid gap-3" onSubmit={(event) => void submit(event)}>
        <Choice<'sftp' | 'ftps'>
          label="How"
          value={protocol}
          options={[
            ['sftp', 'SFTP, over SSH'],
            ['ftps', 'FTPS, FTP with TLS'],
          ]}
          onChange={(next) => {
            setKey(undefined);
            setMachine({ ...machine, protocol: next, port: usualPort[next] });
          }}
        />
        <div className="grid grid-cols-[1fr_90px] gap-3">
          {field('Machine', 'host', 'www.example.org')}
          {field('Port', 'port', '22')}
        </div>
        {field('The folder there in which the site begins', 'folder', '/var/www')}
        {field('Name', 'user', '')}
        <label className="block text-table">
          Password, used for this upload and kept nowhere
          <Field
            className="mt-1"
            type="password"
            autoComplete="off"
            value={password}
            onChange={(event) => setPassword(event.target.value)}
          />
        </label>
        {key !== undefined && (
          <p className="text-table">
            The machine shows the key <code className="break-all">{key}</code>. Compare it with what its keeper told
            you: only then is it the right one.
          </p>
        )}
        {error !== undefined && <Problem className="text-table">{problemText(error)}</Problem>}
        <div className="flex items-center gap-4">
          <Button type="submit" next disabled={asking.isLoading || starting.isLoading}>
            {key === undefined ? 'Ask for its key' : 'It is the right one: upload'}
          </Button>
          <Act onClick={onClose}>Cancel</Act>
        </div>
      </form>
    </Box>
  );
}
