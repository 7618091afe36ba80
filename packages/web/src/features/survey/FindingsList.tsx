import { useState } from 'react';
import type { FindingReply } from '@syndeton/contract';
import { describeSeverity, isRemoteAddress, type Severity } from '@syndeton/core';
import { listRowLook, sideHeadLook } from '../../ui/looks.ts';
import { Act } from '../../ui/Act.tsx';
import { FindingSentence } from './FindingSentence.tsx';

interface Props {
  readonly findings: readonly FindingReply[];
  readonly pathOfName: ReadonlyMap<string, string>;
  readonly busy: boolean;
  readonly onPath: (path: string) => void;
  readonly onAct: (finding: FindingReply) => void;
  /** Sheets that are said to be on no server. */
  readonly nowhere: readonly string[];
  readonly onNowhere: (path: string) => void;
}

const severities: readonly Severity[] = ['breaks', 'wrong', 'note'];
/** What breaks a page is always listed whole. */
const most: Readonly<Record<Severity, number>> = { breaks: Infinity, wrong: 8, note: 5 };

/** What is wrong and what is worth knowing, by weight; each with its place and the one action for it. */
export function FindingsList(props: Props) {
  if (props.findings.length === 0) return <p className="text-note text-ink-3">Nothing is wrong here.</p>;
  return severities.map((severity) => {
    const own = props.findings.filter((finding) => finding.severity === severity);
    return own.length === 0 ? null : <Group key={severity} severity={severity} own={own} {...props} />;
  });
}

function Group({
  severity,
  own,
  pathOfName,
  busy,
  onPath,
  onAct,
  nowhere,
  onNowhere,
}: Props & { readonly severity: Severity; readonly own: readonly FindingReply[] }) {
  const [all, setAll] = useState(false);
  const shown = all ? own : own.slice(0, most[severity]);
  const heading = `findings-${severity}`;
  return (
    <section aria-labelledby={heading}>
      <h2 id={heading} className={`${sideHeadLook}${severity === 'breaks' ? ' text-error' : ''}`}>
        {describeSeverity(severity)}
        <span>{own.length}</span>
      </h2>
      <ul>
        {shown.map((finding) => (
          <li className={listRowLook} key={finding.id}>
            <span title={whereOf(finding)}>
              <FindingSentence sentence={finding.sentence} pathOfName={pathOfName} onPath={onPath} />
              <Nowhere path={sheetNotHere(finding)} {...{ nowhere, busy, onNowhere }} />
            </span>
            <Act
              disabled={busy && (finding.action.does === 'mend' || finding.action.does === 'read')}
              onClick={() => onAct(finding)}
            >
              {finding.action.label}
            </Act>
          </li>
        ))}
      </ul>
      {own.length > shown.length && (
        <Act className="mt-1 mb-2" onClick={() => setAll(true)}>
          {own.length - shown.length} more
        </Act>
      )}
    </section>
  );
}

/** The first places, as `path, line 4`. */
function whereOf({ places }: FindingReply): string {
  const lines = places.slice(0, 8).map(({ path, line }) => `${path}, line ${line}`);
  return [...lines, ...(places.length > 8 ? [`and ${places.length - 8} more`] : [])].join('\n');
}

/** The sheet a broken link asks for, or one on another server: it may be nowhere, or say nothing, and then it counts as nothing. */
const sheetNotHere = ({ id }: FindingReply): string | undefined =>
  /^(?:link-(?:missing|wrong-case)|remote-sheet) (.*)$/.exec(id)?.[1];

function Nowhere({
  path,
  nowhere,
  busy,
  onNowhere,
}: Pick<Props, 'nowhere' | 'busy' | 'onNowhere'> & { readonly path: string | undefined }) {
  if (path === undefined) return null;
  const isRemote = isRemoteAddress(path);
  if (nowhere.includes(path))
    return (
      <span className="text-note text-ink-3">
        {' '}
        taken as {isRemote ? 'saying nothing about elements' : 'missing on the server too'}
      </span>
    );
  return (
    <span className="block">
      <Act disabled={busy} onClick={() => onNowhere(path)}>
        {isRemote ? 'It holds fonts alone, or is gone' : 'It is nowhere'}
      </Act>
    </span>
  );
}
