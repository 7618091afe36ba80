import { useEffect, useState } from 'react';
import { count } from '../../ui/format.ts';
import { folderOfSite, type WorkFolder } from '../site/index.ts';
import { writeBack } from './writeBack.ts';

/** The way back into the folder the site was read from, when one was opened to work in. */
export function WriteBackRow({ siteId, revision }: { readonly siteId: string; readonly revision: number }) {
  const [work, setWork] = useState<WorkFolder | undefined>(undefined);
  const [said, setSaid] = useState<{ readonly words: string; readonly bad: boolean } | undefined>(undefined);
  useEffect(() => {
    void folderOfSite(siteId).then(setWork, () => undefined);
  }, [siteId]);
  if (!work) return null;
  const write = async (): Promise<void> => {
    try {
      const done = await writeBack(siteId, revision, work);
      if (done.kind === 'written') {
        setWork({ ...work, revision });
        setSaid({ words: `${count(done.files, 'file')} written into ${work.folder.name}.`, bad: false });
      } else
        setSaid({
          words: `Nothing was written: ${done.paths.slice(0, 5).join(', ')} changed in the folder meanwhile. Bring the site in again, or take the zip.`,
          bad: true,
        });
    } catch (error) {
      setSaid({ words: error instanceof Error ? error.message : 'The folder cannot be written to.', bad: true });
    }
  };
  return (
    <tr>
      <td>
        <b>Back into the folder</b>
      </td>
      <td className="text-ink-2" colSpan={2}>
        {said ? (
          <span className={said.bad ? 'err' : ''} role={said.bad ? 'alert' : 'status'}>
            {said.words}
          </span>
        ) : (
          <>
            <code>{work.folder.name}</code>, as it was at r{work.revision}
          </>
        )}
      </td>
      <td>
        {work.revision === revision ? (
          <span className="note">up to date</span>
        ) : (
          <button type="button" className="act" onClick={() => void write()}>
            Write into it
          </button>
        )}
      </td>
    </tr>
  );
}
