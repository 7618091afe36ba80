import { useState } from 'react';
import type { ProofReply } from '@syndeton/contract';
import { Act } from '../../../ui/Act.tsx';
import { Button } from '../../../ui/Button.tsx';
import { count, pageName } from '../../../ui/format.ts';
import { disagreements, viewWords, type MeasuredView } from './measuredPages.ts';
import type { Measuring } from './useMeasuring.ts';

interface Props {
  readonly measuring: Measuring;
  readonly proof: ProofReply;
  readonly onPage: (page: string) => void;
  /** What is needed to see a disagreement again, as a file. */
  readonly onSave: (page: string) => void;
}

const views: readonly MeasuredView[] = [
  { width: 1280, medium: 'screen' },
  { width: 700, medium: 'screen' },
  { width: 375, medium: 'screen' },
  { width: 700, medium: 'print' },
];

/** What the author's own browser says of both states, beside the proof. */
export function MeasureSection({ measuring, proof, onPage, onSave }: Props) {
  const { measured, start, stop } = measuring;
  const [chosen, setChosen] = useState<readonly string[]>(() => measured.views.map(viewWords));
  const done = proof.pages.filter(({ path }) => measured.pages[path] !== undefined);
  const failed = done.filter(({ path }) => measured.pages[path]!.failed !== undefined);
  const differing = done.filter(({ path }) => measured.pages[path]!.count > 0);
  const faults = disagreements(proof, measured);
  const isWhole = done.length === proof.pages.length && !measured.running;
  return (
    <section className="mt-6 border-t border-line-2 pt-3 text-table" aria-label="Measured in this browser">
      <h2 className="pb-1.5">Measured in this browser</h2>
      {done.length > 0 && (
        <p role="status">
          {measured.running ? `${done.length} of ${count(proof.pages.length, 'page')}` : count(done.length, 'page')} at{' '}
          {measured.views.map(viewWords).join(', ')}: <b>{done.length - differing.length - failed.length} the same</b>
          {differing.length > 0 && (
            <>
              , <b>{differing.length} not</b>
            </>
          )}
          {failed.length > 0 && `, ${failed.length} could not be measured`}.{' '}
          {isWhole && faults.length === 0 && 'It shows no difference that the proof does not tell.'}
        </p>
      )}
      {faults.length > 0 && (
        <div className="mt-2">
          <p className="font-medium text-error">
            On {count(faults.length, 'page')} it shows a difference where the proof says there is none. That is a fault
            of Syndeton, not yours.
          </p>
          <ul>
            {faults.slice(0, 20).map((path) => {
              const [first] = measured.pages[path]!.named;
              return (
                <li key={path} className="py-1">
                  <Act onClick={() => onPage(path)}>{pageName(path)}</Act>{' '}
                  {first && (
                    <>
                      <code>{first.property}</code>: <code>{first.before}</code> → <code>{first.after}</code> on{' '}
                      <code>{first.element}</code>, {first.view}
                    </>
                  )}{' '}
                  <Act onClick={() => onSave(path)}>Save what shows it</Act>
                </li>
              );
            })}
          </ul>
        </div>
      )}
      {measured.running ? (
        <p className="mt-2 flex items-center gap-4">
          <progress max={proof.pages.length} value={done.length} aria-label="Pages measured" />
          <Act onClick={stop}>Stop</Act>
        </p>
      ) : (
        <>
          <fieldset className="mt-2 flex flex-wrap gap-4">
            <legend className="sr-only">Where to look</legend>
            {views.map((view) => {
              const name = viewWords(view);
              return (
                <label key={name} className="flex items-center gap-1.5">
                  <input
                    type="checkbox"
                    checked={chosen.includes(name)}
                    onChange={() =>
                      setChosen(chosen.includes(name) ? chosen.filter((one) => one !== name) : [...chosen, name])
                    }
                  />
                  {name}
                </label>
              );
            })}
          </fieldset>
          <p className="mt-2">
            <Button
              disabled={chosen.length === 0}
              onClick={() => start(views.filter((view) => chosen.includes(viewWords(view))))}
            >
              {done.length > 0 && done.length < proof.pages.length
                ? 'Measure the rest'
                : `Measure ${count(proof.pages.length, 'page')}`}
            </Button>{' '}
            <span className="text-note text-ink-3">both states, every element, as this browser computes them</span>
          </p>
        </>
      )}
    </section>
  );
}
