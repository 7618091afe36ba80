import { useState } from 'react';
import type { RevisionWordsRequest, SiteDetailReply } from '@syndeton/contract';
import { Act } from '../../ui/Act.tsx';
import { Field } from '../../ui/Field.tsx';
import { count, savedWhen } from '../../ui/format.ts';

interface Props {
  readonly revision: SiteDetailReply['revisions'][number];
  readonly newest: number;
  readonly onWords: (words: RevisionWordsRequest) => void;
  readonly onTexts: () => void;
  readonly onCompare: (to: number) => void;
  readonly onBack: () => void;
  readonly onWithout: (operation: number) => void;
}

/** One revision: its name, what it did in sentences, its author's note, and what can be done about it. */
export function RevisionRow({ revision, newest, onWords, onTexts, onCompare, onBack, onWithout }: Props) {
  const { number, message, savedAt, changedFiles, steps, note, by } = revision;
  const [writing, setWriting] = useState<string | undefined>(undefined);
  const finish = (): void => {
    const said = (writing ?? '').trim();
    if (said !== '' && said !== message) onWords({ message: said });
    setWriting(undefined);
  };
  return (
    <li className="grid grid-cols-[44px_minmax(0,1fr)_auto] items-start gap-x-3 border-t border-line py-2.5 [&_ol]:list-decimal [&_ol]:pt-1 [&_ol]:pb-0.5 [&_ol]:pl-5.5 [&_summary]:cursor-pointer">
      <b className="m">r{number}</b>
      <div className="min-w-0">
        {writing === undefined ? (
          <p>
            <b>{message}</b>{' '}
            <Act aria-label={`Name r${number}`} onClick={() => setWriting(message)}>
              Name it
            </Act>
          </p>
        ) : (
          <Field
            aria-label={`Name of r${number}`}
            autoFocus
            maxLength={500}
            value={writing}
            onChange={(event) => setWriting(event.target.value)}
            onBlur={finish}
            onKeyDown={(event) => {
              if (event.key === 'Enter') finish();
              if (event.key !== 'Escape') return;
              event.stopPropagation();
              setWriting(undefined);
            }}
          />
        )}
        <p className="text-note text-ink-3">
          {savedWhen(savedAt)}
          {by === '' ? '' : ` by ${by}`}, {count(changedFiles, 'file')}
          {number === newest ? ', the newest' : ''}
        </p>
        {note !== '' && <p className="text-table text-ink-2">“{note}”</p>}
        {steps.length > 0 && (
          <details>
            <summary className="text-note text-ink-3">{count(steps.length, 'operation')}</summary>
            <ol className="text-table">
              {steps.map((sentence, i) => (
                <li key={i}>
                  {sentence}{' '}
                  <Act aria-label={`Undo “${sentence}” of r${number}`} onClick={() => onWithout(i)}>
                    Undo this one
                  </Act>
                </li>
              ))}
            </ol>
          </details>
        )}
      </div>
      <div className="flex gap-4 text-table/[inherit]">
        {number > 1 && (
          <Act aria-label={`Texts that r${number} changed`} onClick={() => onTexts()}>
            See the texts
          </Act>
        )}
        {number < newest && (
          <>
            <Act aria-label={`Compare r${number} with r${newest}`} onClick={() => onCompare(newest)}>
              Compare with r{newest}
            </Act>
            <Act aria-label={`Go back to r${number}`} onClick={() => onBack()}>
              Go back to it
            </Act>
          </>
        )}
      </div>
    </li>
  );
}
