import { useEffect, useState } from 'react';
import { Act } from '../../ui/Act.tsx';
import { count } from '../../ui/format.ts';
import { folderBackups, folderOfSite, rememberFolder, type WorkFolder } from '../site/index.ts';
import { putBack, writeBack, type WrittenBack } from './writeBack.ts';

interface Said {
  readonly words: string;
  readonly bad: boolean;
}

/** The way back into the folder the site was read from, when one was opened to work in. */
export function WriteBackRow({ siteId, revision }: { readonly siteId: string; readonly revision: number }) {
  const [work, setWork] = useState<WorkFolder | undefined>(undefined);
  const [said, setSaid] = useState<Said | undefined>(undefined);
  const [half, setHalf] = useState(false);
  const [busy, setBusy] = useState(false);
  useEffect(() => {
    void folderOfSite(siteId).then(setWork, () => undefined);
    void folderBackups.find(siteId).then(
      (before) => setHalf(before !== undefined),
      () => undefined,
    );
  }, [siteId]);
  if (!work) return null;
  const attempt = async (act: () => Promise<Said>): Promise<void> => {
    setBusy(true);
    try {
      setSaid(await act());
    } catch (error) {
      setSaid({ words: error instanceof Error ? error.message : 'The folder cannot be written to.', bad: true });
    } finally {
      setBusy(false);
    }
  };
  const write = async (): Promise<Said> => {
    const done = await writeBack(siteId, revision, work, folderBackups);
    if (done.kind === 'written') {
      setWork({ ...work, revision });
      await rememberFolder(siteId, { ...work, revision });
    }
    setHalf(done.kind === 'stopped');
    return sayWritten(done, work.folder.name);
  };
  const back = async (): Promise<Said> => {
    const files = await putBack(siteId, work, folderBackups);
    setHalf(false);
    return {
      words: `${count(files, 'file')} put back: ${work.folder.name} is as it was at r${work.revision}.`,
      bad: false,
    };
  };
  return (
    <tr>
      <td>
        <b>Back into the folder</b>
      </td>
      <td className="text-ink-2" colSpan={2}>
        {said ? (
          <span className={said.bad ? 'font-medium text-error' : ''} role={said.bad ? 'alert' : 'status'}>
            {said.words}
          </span>
        ) : half ? (
          <span className="font-medium text-error">
            Writing into <code>{work.folder.name}</code> was stopped half way. What was there before is kept.
          </span>
        ) : (
          <>
            <code>{work.folder.name}</code>, as it was at r{work.revision}
          </>
        )}
      </td>
      <td>
        {work.revision === revision && !half ? (
          <span className="text-note text-ink-3">up to date</span>
        ) : (
          <Act disabled={busy} onClick={() => void attempt(write)}>
            {half ? 'Write the rest' : 'Write into it'}
          </Act>
        )}
        {half && (
          <Act className="mt-1 ml-auto block" disabled={busy} onClick={() => void attempt(back)}>
            Put it back as it was
          </Act>
        )}
      </td>
    </tr>
  );
}

function sayWritten(done: WrittenBack, folder: string): Said {
  switch (done.kind) {
    case 'written':
      return { words: `${count(done.files, 'file')} written into ${folder}.`, bad: false };
    case 'changed-there':
      return {
        words: `Nothing was written: ${listed(done.paths)} changed in the folder meanwhile. Bring the site in again, or take the zip.`,
        bad: true,
      };
    case 'stopped':
      return {
        words: `The browser stopped writing (${done.why}). New in ${folder}: ${done.written.length === 0 ? 'nothing' : listed(done.written)}. As before: ${listed(done.left)}.`,
        bad: true,
      };
  }
}

/** Files as they are called in the folder, endings and all. */
const listed = (paths: readonly string[]): string =>
  paths.length <= 5 ? paths.join(', ') : `${paths.slice(0, 5).join(', ')} and ${paths.length - 5} more`;
