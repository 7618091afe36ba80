import type { ChangedSiteReply } from '@syndeton/contract';
import { Button } from '../../ui/Button.tsx';
import { count, someNames } from '../../ui/format.ts';

/** What a change of files came to; new pages that lack what those beside them link are offered it. */
export function FilesChanged({ done, onLink }: { readonly done: ChangedSiteReply; readonly onLink: () => void }) {
  const parts = [
    done.added.length > 0 ? `${count(done.added.length, 'file')} put in (${someNames(done.added)})` : '',
    done.replaced.length > 0 ? `${count(done.replaced.length, 'file')} replaced (${someNames(done.replaced)})` : '',
    done.removed.length > 0 ? `${count(done.removed.length, 'file')} taken out (${someNames(done.removed)})` : '',
  ].filter((part) => part !== '');
  return (
    <div role="status">
      <p>
        Saved as <b className="text-ink">r{done.number}</b>: {parts.join(', ')}.
      </p>
      {done.lacking.length > 0 && (
        <>
          <p className="mt-2">
            {someNames(done.lacking.map((one) => one.page))} {done.lacking.length === 1 ? 'does' : 'do'} not link{' '}
            <code>{[...new Set(done.lacking.flatMap((one) => one.sheets))].join(', ')}</code>, as the pages beside{' '}
            {done.lacking.length === 1 ? 'it' : 'them'} do.
          </p>
          <Button next className="mt-2" onClick={onLink}>
            Link {done.lacking.length === 1 ? 'it' : 'them'} alike
          </Button>
        </>
      )}
    </div>
  );
}
