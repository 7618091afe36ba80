import { useState } from 'react';
import type { OutsideChangesReply } from '@syndeton/contract';
import { sideHeadLook } from '../../ui/looks.ts';
import { Button } from '../../ui/Button.tsx';
import { Act } from '../../ui/Act.tsx';
import { count } from '../../ui/format.ts';

interface Props {
  readonly changes: OutsideChangesReply;
  readonly busy: boolean;
  /** Operations in the draft: no file can be taken while there are any. */
  readonly inDraft: number;
  /** `gone`: with the files that are no more there. */
  readonly onTake: (gone: boolean) => void;
  readonly onClose: () => void;
}

const mostShown = 12;

/** What became of the site outside: what can be taken, and what never got there. */
export function OutsideList({ changes, busy, inDraft, onTake, onClose }: Props) {
  const { same, changed, fresh, moved, gone, older } = changes;
  // most of it missing is rather a part of the site than the whole
  const [goneToo, setGoneToo] = useState(gone.length <= same + changed.length);
  const takes = changed.length + fresh.length + moved.length + (goneToo ? gone.length : 0);
  const isQuiet = takes === 0 && gone.length === 0;
  return (
    <div className="grid gap-3 text-table">
      <p>
        {isQuiet ? <b>Nothing was changed there.</b> : null} {count(same, 'file')} {same === 1 ? 'is' : 'are'} as here.
      </p>
      <Group title="Changed there" names={changed} />
      <Group title="New there" names={fresh} />
      <Group title="Moved there" names={moved.map(({ from, to }) => `${from} → ${to}`)} />
      <Group title="Gone there" names={gone} />
      {gone.length > 0 && (
        <label className="flex items-center gap-2">
          <input type="checkbox" checked={goneToo} onChange={(event) => setGoneToo(event.target.checked)} />
          Take {gone.length === 1 ? 'it' : 'them'} out here too
        </label>
      )}
      <Group
        title="Not there yet: as in an earlier revision, left as here"
        names={older.map(({ path, revision }) => `${path}, as in r${revision}`)}
      />
      {inDraft > 0 && takes > 0 && (
        <p className="text-note text-ink-3">
          {count(inDraft, 'operation')} {inDraft === 1 ? 'is' : 'are'} in the draft. Save or discard{' '}
          {inDraft === 1 ? 'it' : 'them'} first.
        </p>
      )}
      <div className="mt-1 flex items-center gap-4">
        {takes > 0 && (
          <Button next disabled={busy || inDraft > 0} onClick={() => onTake(goneToo)}>
            {busy ? 'Taking …' : `Take ${takes === 1 ? 'the change' : `all ${takes} changes`}`}
          </Button>
        )}
        <Act onClick={onClose}>{takes > 0 ? 'Cancel' : 'Close'}</Act>
      </div>
    </div>
  );
}

function Group({ title, names }: { readonly title: string; readonly names: readonly string[] }) {
  const [all, setAll] = useState(false);
  if (names.length === 0) return null;
  const shown = all ? names : names.slice(0, mostShown);
  return (
    <section>
      <h3 className={sideHeadLook}>
        {title}
        <span>{names.length}</span>
      </h3>
      <ul>
        {shown.map((name) => (
          <li key={name}>
            <code>{name}</code>
          </li>
        ))}
      </ul>
      {names.length > shown.length && <Act onClick={() => setAll(true)}>{names.length - shown.length} more</Act>}
    </section>
  );
}
