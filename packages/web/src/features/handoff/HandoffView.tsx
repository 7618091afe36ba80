import { addressOf, type ChangedFileReply, type ReportReply, type SiteDetailReply } from '@syndeton/contract';
import type { ReactNode } from 'react';
import { byPath } from '@syndeton/core';
import { actLook, buttonLook, leavingLook, nextLook, sayLook } from '../../ui/looks.ts';
import { Button } from '../../ui/Button.tsx';
import { Act } from '../../ui/Act.tsx';
import { count, inWords, kB } from '../../ui/format.ts';
import { Problem } from '../../ui/Said.tsx';
import { CheckedRows } from './CheckedRows.tsx';
import { VisitorChart } from './VisitorChart.tsx';
import { WriteBackRow } from './WriteBackRow.tsx';
import { UploadList } from './UploadList.tsx';

interface Props {
  readonly site: SiteDetailReply;
  readonly changes: readonly ChangedFileReply[] | undefined;
  readonly inDraft: number;
  /** Undefined while it is being made. */
  readonly report: ReportReply | undefined;
  /** Why it could not be made. */
  readonly failed: string | undefined;
  readonly onProof: (page: string | undefined) => void;
  readonly onPlace: (path: string, line: number) => void;
  /** More rows of ways out. */
  readonly more: ReactNode;
  /** At the end. */
  readonly below?: ReactNode;
  readonly onGather: () => void;
  readonly onTexts: () => void;
}

/** What leaves Syndeton: the files to upload together, sheets before pages, and the ways out. */
export function HandoffView({
  site,
  changes,
  inDraft,
  report,
  failed,
  onProof,
  onPlace,
  more,
  below,
  onGather,
  onTexts,
}: Props) {
  const reportAt = (format: string): string =>
    `${addressOf('downloadReport', { id: site.id, number: site.revision, format })}?since=1`;
  const archive = addressOf('downloadArchive', { id: site.id, number: site.revision });
  const patch = addressOf('downloadPatch', { id: site.id, number: site.revision });
  const files = [...(changes ?? [])].sort(byPath);
  const leaving = files.filter(({ change }) => change !== 'deleted');
  const gone = files.filter(({ change }) => change === 'deleted');
  const sheets = leaving.filter((file) => file.kind === 'sheet');
  const pages = leaving.filter((file) => file.kind === 'page');
  const others = leaving.filter((file) => file.kind === 'other');
  const kinds = [
    ...(sheets.length > 0 ? [count(sheets.length, 'sheet')] : []),
    ...(pages.length > 0 ? [count(pages.length, 'page')] : []),
    ...(others.length > 0 ? [count(others.length, 'other file')] : []),
  ];
  const sum = (read: (file: ChangedFileReply) => number): number =>
    files.reduce((total, file) => total + read(file), 0);
  const total = site.files.reduce((bytes, file) => bytes + file.bytes, 0);
  return (
    <div>
      <div className="flex min-h-[72px] items-center gap-6 border-b border-line px-4 py-3">
        <div>
          <h1 className={sayLook}>
            {changes === undefined ? (
              'Counting what changed …'
            ) : files.length === 0 ? (
              <>
                <b>Nothing has changed</b> since the site was brought in.
              </>
            ) : (
              <>
                <b>{count(leaving.length, 'file')}</b> {leaving.length === 1 ? 'leaves' : 'leave together'}
                {kinds.length > 0 && (
                  <>
                    : <b>{inWords(kinds)}</b>
                  </>
                )}
                , {kB(sum((f) => f.bytesBefore))} → <b>{kB(sum((f) => f.bytesAfter))}</b>.
                {gone.length > 0 && ` ${count(gone.length, 'file')} may be deleted on the server.`}
              </>
            )}
          </h1>
          <p className="text-note text-ink-3">
            r{site.revision} against r1, as it was brought in. {count(site.files.length - leaving.length, 'other file')}{' '}
            stay as they are on the server.
            {inDraft > 0 ? ` ${count(inDraft, 'operation')} in the draft, not saved: not in here.` : ''}
          </p>
        </div>
        <div className="ml-auto">
          {leaving.length > 0 ? (
            <a className={`${buttonLook} ${nextLook} inline-flex items-center`} href={`${archive}?since=1`} download>
              {leaving.length === 1 ? 'Download the file' : `Download the ${count(leaving.length, 'file')}`}
            </a>
          ) : (
            <Button next onClick={onGather}>
              Gather the rules
            </Button>
          )}
        </div>
      </div>
      <div className="grid min-[900px]:grid-cols-[minmax(0,606fr)_minmax(0,674fr)]">
        <UploadList sheets={sheets} pages={pages} others={others} gone={gone} />
        <section className="px-6 py-4">
          {files.length > 0 && (
            <p className="mb-3">
              <Act onClick={onTexts}>See what changed, file by file</Act>
            </p>
          )}
          {report?.weight.before && report.weight.after && files.length > 0 && (
            <VisitorChart before={report.weight.before} after={report.weight.after} />
          )}
          <h2 className="mt-5 mb-1.5">Ways out</h2>
          <table className={`${leavingLook} [&_td:nth-child(n+3)]:whitespace-nowrap`}>
            <tbody>
              <WriteBackRow siteId={site.id} revision={site.revision} />
              <tr>
                <td>
                  <b>The whole site</b>
                </td>
                <td className="text-ink-2">{count(site.files.length, 'file')}, changed or not</td>
                <td>{kB(total)}</td>
                <td>
                  <a className={actLook} href={archive} download>
                    Download zip
                  </a>
                </td>
              </tr>
              <tr>
                <td>
                  <b>A patch</b>
                </td>
                <td className="text-ink-2">for git apply and patch -p1, texts only</td>
                <td />
                <td>
                  {files.length > 0 ? (
                    <a className={actLook} href={`${patch}?since=1`} download>
                      Download patch
                    </a>
                  ) : (
                    <span className="text-note text-ink-3">nothing yet</span>
                  )}
                </td>
              </tr>
              <tr>
                <td>
                  <b>A report</b>
                </td>
                <td className="text-ink-2">what changed and why, the proof, what is still wrong</td>
                <td />
                <td>
                  <span className="flex justify-end gap-4">
                    <a className={actLook} href={reportAt('html')} target="_blank" rel="noreferrer">
                      Print
                    </a>
                    <a className={actLook} href={reportAt('json')} download>
                      JSON
                    </a>
                    <a className={actLook} href={reportAt('csv')} download>
                      CSV
                    </a>
                  </span>
                </td>
              </tr>
              {more}
            </tbody>
          </table>
          {report ? (
            <CheckedRows report={report} onProof={onProof} onPlace={onPlace} />
          ) : failed === undefined ? (
            <p className="text-note text-ink-3" role="status">
              Comparing every page with r1 …
            </p>
          ) : (
            <Problem>{failed}</Problem>
          )}
          {below}
        </section>
      </div>
    </div>
  );
}
