import { ArrowRight } from 'lucide-react';
import type { ProofReply } from '@syndeton/contract';
import { sayingBefore } from '@syndeton/core';
import { Act } from '../../ui/Act.tsx';
import { coloursIn, Swatch } from '../../ui/Swatch.tsx';

type Cause = ProofReply['pages'][number]['causes'][number];

interface Props {
  readonly causes: readonly Cause[];
  readonly busy: boolean;
  /** Undefined where two saved states are compared: nothing can be done about these. */
  readonly onKeep: ((cause: Cause) => void) | undefined;
}

/** The differences of a page by cause: elements, property, before → after, the reason in a sentence. Numbers as on the page. */
export function CausesList({ causes, busy, onKeep }: Props) {
  return (
    <ol>
      {causes.slice(0, 60).map((cause, i) => (
        <li className="grid grid-cols-[28px_1fr] border-b border-line pt-3 pb-3.25" key={i}>
          <span className="mt-0.5 h-4.25 min-w-4.25 justify-self-start rounded-sm bg-ink px-0.75 text-center text-note/4.25 font-semibold text-panel">
            {i + 1}
          </span>
          <div className="min-w-0">
            <h2 className="text-body!">
              <span className="m">
                {cause.elements[0]!.name}
                {cause.pseudoElement}
              </span>{' '}
              <span className="font-normal text-ink-2">
                {cause.elements.length === 1
                  ? `line ${cause.elements[0]!.line}`
                  : `and ${cause.elements.length - 1} more, from line ${cause.elements[0]!.line}`}
              </span>
            </h2>
            <div className="mt-0.5 flex flex-wrap items-center gap-x-2 gap-y-1 font-code text-code/5.5">
              <span className="min-w-37.5 text-ink-2">{cause.property}</span>
              <Value side={cause.before} />
              <ArrowRight className="size-3 text-ink-3" role="img" aria-label="becomes" />
              <b>
                <Value side={cause.after} />
              </b>
            </div>
            <p className="mt-1 max-w-[60ch] text-table text-ink-2">
              {cause.intended && <b>As you chose. </b>}
              {sentence(cause.reason)}
            </p>
            {onKeep && sayingBefore(cause) !== undefined && (
              <Act disabled={busy} onClick={() => onKeep(cause)}>
                Keep the old look
              </Act>
            )}
          </div>
        </li>
      ))}
      {causes.length > 60 && <li className="text-note text-ink-3 py-3">and {causes.length - 60} more reasons</li>}
    </ol>
  );
}

function Value({ side }: { readonly side: Cause['before'] }) {
  if (!side) return <span className="text-ink-3">not set</span>;
  return (
    <span className="break-all">
      {coloursIn(side.value)
        .slice(0, 1)
        .map((colour) => (
          <Swatch key={colour} colour={colour} />
        ))}{' '}
      {side.value}
      {side.important ? ' !important' : ''}
    </span>
  );
}

/** A reason with its selectors set as code. */
function sentence(reason: string) {
  const capital = reason.charAt(0).toUpperCase() + reason.slice(1);
  return capital.split('`').map((part, i) => (i % 2 === 1 ? <code key={i}>{part}</code> : part));
}
