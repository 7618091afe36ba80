import { useEffect, useState } from 'react';
import { addressOf, type UploadReply } from '@syndeton/contract';
import { problemText } from '../../app/api.ts';
import { followEvents } from '../../app/followEvents.ts';
import { Act } from '../../ui/Act.tsx';
import { count } from '../../ui/format.ts';
import { UploadBox } from './UploadBox.tsx';
import { useStopUploadMutation } from './handoffApi.ts';

interface Props {
  readonly siteId: string;
  readonly revision: number;
  readonly changed: number;
}

/** The changed files onto a server: asked where to, and how far it is. */
export function UploadRow({ siteId, revision, changed }: Props) {
  const [asking, setAsking] = useState(false);
  const [state, setState] = useState<UploadReply | undefined>(undefined);
  const [stop, stopping] = useStopUploadMutation();
  useEffect(() => followEvents<UploadReply>(addressOf('followUpload', { id: siteId }), setState), [siteId]);
  const running = state?.status === 'running';
  return (
    <tr>
      <td>
        <b>Onto a server</b>
      </td>
      <td className="text-ink-2" colSpan={2}>
        {!state || state.status === 'none' ? (
          'SFTP or FTPS, sheets first; each file is read back and compared'
        ) : (
          <UploadWords state={state} />
        )}
        {stopping.error !== undefined && <span className="font-medium text-error"> {problemText(stopping.error)}</span>}
      </td>
      <td>
        {running ? (
          <Act onClick={() => void stop(siteId)}>Stop</Act>
        ) : changed === 0 ? (
          <span className="text-note text-ink-3">nothing yet</span>
        ) : (
          <Act onClick={() => setAsking(true)}>{state?.status === 'stopped' ? 'Go on' : 'Upload'}</Act>
        )}
        {asking && <UploadBox siteId={siteId} revision={revision} changed={changed} onClose={() => setAsking(false)} />}
      </td>
    </tr>
  );
}

/** How far it is, or what is there when it stopped. */
export function UploadWords({ state }: { readonly state: UploadReply }) {
  const { status, there, total, path, why, mayGo } = state;
  if (status === 'running')
    return (
      <span role="status" className="flex items-center gap-3">
        <progress max={total} value={there.length} aria-label="Files uploaded" /> {there.length} of {total}
      </span>
    );
  if (status === 'done')
    return (
      <span role="status">
        {count(total, 'file')} on the server, byte for byte.
        {mayGo.length > 0 &&
          ` No page needs ${mayGo.join(', ')} any more: delete ${mayGo.length === 1 ? 'it' : 'them'} there when you like.`}
      </span>
    );
  return (
    <span className="font-medium text-error" role="alert">
      Stopped{path === undefined ? '' : ` at ${path}`}: {why} {there.length} of {count(total, 'file')}{' '}
      {there.length === 1 ? 'is' : 'are'} on the server and whole.
    </span>
  );
}
