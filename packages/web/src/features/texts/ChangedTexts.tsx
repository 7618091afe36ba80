import { useState } from 'react';
import type { ChangedFileReply } from '@syndeton/contract';
import { problemText } from '../../app/api.ts';

import { Box } from '../../ui/Box.tsx';
import { count } from '../../ui/format.ts';
import { useChangesBetweenQuery, useTextInQuery } from './textsApi.ts';
import { TextDiff } from './TextDiff.tsx';

/** Two states of a site, and what is called what. */
export interface TextsBetween {
  readonly siteId: string;
  /** `r3`. */
  readonly from: string;
  /** `r4`, or `draft`. */
  readonly to: string;
  /** The file looked at first. */
  readonly path?: string | undefined;
}

/** Each changed file side by side as text. */
export function ChangedTexts({
  between,
  changes,
  onClose,
}: {
  readonly between: TextsBetween;
  readonly changes: readonly ChangedFileReply[];
  readonly onClose: () => void;
}) {
  const { siteId, from, to } = between;
  const files = [...changes].sort((a, b) => rank(a) - rank(b) || (a.path < b.path ? -1 : 1));
  const [path, setPath] = useState(between.path ?? files[0]?.path);
  const at = files.findIndex((file) => file.path === path);
  const file = files[at];
  const step = (by: number): void => setPath(files[(at + by + files.length) % files.length]?.path);
  const name = (state: string): string => (state === 'draft' ? 'with the draft' : `in ${state}`);
  return (
    <Box
      closes
      open
      onClose={onClose}
      title={`${count(files.length, 'file')}: ${from} and ${to === 'draft' ? 'the draft' : to}`}
      wide
    >
      <div
        className="grid min-h-0 grid-cols-[200px_minmax(0,1fr)] gap-4 max-phone:block max-phone:overflow-auto"
        role="presentation"
        onKeyDown={({ key, ctrlKey, metaKey, altKey }) => {
          if (ctrlKey || metaKey || altKey) return;
          if (key === 'j') step(1);
          if (key === 'k') step(-1);
        }}
      >
        <ul className="overflow-auto text-table/5.5" aria-label="Changed files">
          {files.map((one) => (
            <li key={one.path}>
              <button
                type="button"
                className={`w-full truncate px-1.5 text-left ${one.path === path ? 'bg-picked' : ''}`}
                aria-current={one.path === path}
                onClick={() => setPath(one.path)}
              >
                <code>{one.path}</code>{' '}
                {one.change !== 'edited' && (
                  <span className="text-note text-ink-3">{one.change === 'created' ? 'new' : 'gone'}</span>
                )}
              </button>
            </li>
          ))}
        </ul>
        <section className="min-h-0 min-w-0 overflow-auto" aria-label="Text before and after">
          <p className="text-note text-ink-3 flex justify-between">
            <span>{name(from)}</span>
            <span>Alt ↑ ↓ from change to change, j k from file to file · {name(to)}</span>
          </p>
          {file && (
            <OneText key={file.path} siteId={siteId} from={from} to={to} file={file} names={[name(from), name(to)]} />
          )}
        </section>
      </div>
    </Box>
  );
}

/** Sheets before pages, and what has no text last. */
const rank = ({ kind }: ChangedFileReply): number => (kind === 'sheet' ? 0 : kind === 'page' ? 1 : 2);

function OneText({
  siteId,
  from,
  to,
  file: { path, change, kind },
  names,
}: {
  readonly siteId: string;
  readonly from: string;
  readonly to: string;
  readonly file: ChangedFileReply;
  readonly names: readonly [string, string];
}) {
  const hasNoText = kind === 'other';
  const before = useTextInQuery({ id: siteId, state: from, path }, { skip: hasNoText || change === 'created' });
  const after = useTextInQuery({ id: siteId, state: to, path }, { skip: hasNoText || change === 'deleted' });
  const error = before.error ?? after.error;
  if (hasNoText) return <p className="py-3 text-table">This file is no text: its bytes are others now.</p>;
  if (error !== undefined) return <p className="font-medium text-error py-3 text-table">{problemText(error)}</p>;
  if (before.isFetching || after.isFetching)
    return (
      <p className="text-note text-ink-3 py-3" role="status">
        Reading {path} …
      </p>
    );
  const texts = [before.currentData, after.currentData].map((reply) => (reply ? reply.text : ''));
  if (texts.includes(null))
    return (
      <p className="py-3 text-table">This file does not encode back to its own bytes, so its text is not shown.</p>
    );
  return <TextDiff path={path} before={texts[0]!} after={texts[1]!} beforeName={names[0]} afterName={names[1]} />;
}

/** The same between two revisions, whose changes are asked for. */
export function RevisionTexts({
  siteId,
  from,
  to,
  onClose,
}: {
  readonly siteId: string;
  readonly from: number;
  readonly to: number;
  readonly onClose: () => void;
}) {
  const { data: changes, error } = useChangesBetweenQuery({ id: siteId, number: to, since: from });
  if (changes)
    return <ChangedTexts between={{ siteId, from: `r${from}`, to: `r${to}` }} changes={changes} onClose={onClose} />;
  return (
    <Box closes open onClose={onClose} title={`r${from} and r${to}`}>
      {error === undefined ? (
        <p role="status">Comparing …</p>
      ) : (
        <p className="font-medium text-error">{problemText(error)}</p>
      )}
    </Box>
  );
}
