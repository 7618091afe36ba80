import { whyLook } from '../../ui/looks.ts';
import { Aside } from '../../ui/Aside.tsx';
import { explanationOf } from './explanations.ts';

interface Said {
  readonly where: string;
  readonly text: string;
}

/** A reason that opens a short explanation, with the author's own two declarations as its example. */
export function Explain({
  kind,
  words,
  winner,
  loser,
  className = '',
}: {
  readonly kind: string;
  readonly words: string;
  readonly winner?: Said | undefined;
  readonly loser?: Said | undefined;
  readonly className?: string;
}) {
  const { title, text, standard } = explanationOf(kind);
  return (
    <Aside
      className="text-table bg-raised rounded-md shadow-float py-3 px-3.5 max-w-95 z-20 grid gap-1.5 [&_p]:text-ink-2"
      trigger={
        <button type="button" className={`${whyLook} ${className}`}>
          {words}
        </button>
      }
    >
      <b>{title}</b>
      <p>{text}</p>
      {winner && (
        <p className="border-l-[3px] border-line-2 pl-2 wrap-anywhere [&_span]:text-note/[inherit] [&_span]:text-ink-3 [&_i]:not-italic [&_i]:text-ink-3">
          <span>counts</span> <code>{winner.text}</code> <i>{winner.where}</i>
        </p>
      )}
      {loser && (
        <p className="border-l-[3px] border-line-2 pl-2 wrap-anywhere [&_span]:text-note/[inherit] [&_span]:text-ink-3 [&_i]:not-italic [&_i]:text-ink-3">
          <span>does not</span> <code>{loser.text}</code> <i>{loser.where}</i>
        </p>
      )}
      {standard !== '' && <p className="text-note text-ink-3">{standard}</p>}
    </Aside>
  );
}
