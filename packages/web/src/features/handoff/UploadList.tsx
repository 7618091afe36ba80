import type { ReactNode } from 'react';
import type { ChangedFileReply } from '@syndeton/contract';
import { fileNameOf, folderOf } from '@syndeton/core';

import { pageName } from '../../ui/format.ts';

interface Props {
  readonly sheets: readonly ChangedFileReply[];
  readonly pages: readonly ChangedFileReply[];
  /** Pictures and the like. */
  readonly others: readonly ChangedFileReply[];
  /** Files that no page needs any more. */
  readonly gone: readonly ChangedFileReply[];
}

/** The upload list: sheets before pages, so that no page is ever without its look. Bar = after, outline = what was saved. */
export function UploadList({ sheets, pages, others, gone }: Props) {
  const all = [...others, ...sheets, ...pages, ...gone];
  if (all.length === 0) return <div className="bg-ground" />;
  const most = Math.max(...all.map((file) => Math.max(file.bytesBefore, file.bytesAfter)), 1);
  return (
    <table className="ft self-start bg-ground min-[900px]:border-r min-[900px]:border-line-2">
      <caption className="sr-only">Files to upload</caption>
      <colgroup>
        <col />
        <col style={{ width: 60 }} />
        <col style={{ width: 60 }} />
        <col style={{ width: 280 }} />
      </colgroup>
      <thead>
        <tr>
          <th className="pl-4!">Upload</th>
          <th className="text-right!">before</th>
          <th className="text-right!">after, kB</th>
          <th className="pl-2!">outline before, bar after</th>
        </tr>
      </thead>
      <tbody>
        <Group title="Pictures and others" files={others} why="first, sheets and pages may show them" most={most} />
        <Group title="Sheets" files={sheets} why="before the pages that need them" most={most} />
        <Group title="Pages" files={pages} why="then these, in one go" most={most} />
        <Group title="May be deleted there" files={gone} why="when all else is there" most={most} />
      </tbody>
    </table>
  );
}

function Group({
  title,
  files,
  why,
  most,
}: {
  readonly title: string;
  readonly files: readonly ChangedFileReply[];
  readonly why: string;
  readonly most: number;
}) {
  if (files.length === 0) return null;
  const sum = (read: (file: ChangedFileReply) => number): string =>
    (files.reduce((total, file) => total + read(file), 0) / 1000).toFixed(1);
  return (
    <>
      <Row
        head
        name={
          <>
            <b>{title}</b> <span className="text-note text-ink-3">{files.length}</span>
          </>
        }
        before={sum((f) => f.bytesBefore)}
        after={sum((f) => f.bytesAfter)}
      >
        <span className="text-note text-ink-3">{why}</span>
      </Row>
      {files.map((file) => (
        <Row
          key={file.path}
          name={
            <code className="pl-3">
              <span className="text-ink-3">{folderOf(file.path)}</span>
              {pageName(fileNameOf(file.path))}
            </code>
          }
          before={file.change === 'created' ? 'new' : (file.bytesBefore / 1000).toFixed(1)}
          after={file.change === 'deleted' ? 'gone' : (file.bytesAfter / 1000).toFixed(1)}
        >
          <svg width="264" height="10" aria-hidden="true" className="block">
            {file.change !== 'created' && (
              <rect
                className="fill-none stroke-edge"
                x="0.5"
                y="1"
                width={Math.max(1, (file.bytesBefore / most) * 262)}
                height="8"
              />
            )}
            {file.change !== 'deleted' && (
              <rect
                className={file.kind === 'sheet' ? 'fill-area-linked' : 'fill-tick'}
                x="0"
                y="0.5"
                width={Math.max(1, (file.bytesAfter / most) * 262)}
                height="9"
              />
            )}
          </svg>
        </Row>
      ))}
    </>
  );
}

function Row({
  name,
  before,
  after,
  children,
  head = false,
}: {
  readonly name: ReactNode;
  readonly before: string;
  readonly after: string;
  readonly children: ReactNode;
  readonly head?: boolean;
}) {
  return (
    <tr>
      <td className={head ? 'pl-4! pt-2!' : 'pl-4!'}>{name}</td>
      <td className="text-right text-ink-2">{before}</td>
      <td className="text-right">
        <b>{after}</b>
      </td>
      <td className="pl-2!">{children}</td>
    </tr>
  );
}
