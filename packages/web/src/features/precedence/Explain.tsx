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
}: {
  readonly kind: string;
  readonly words: string;
  readonly winner?: Said | undefined;
  readonly loser?: Said | undefined;
}) {
  const { title, text, standard } = explanationOf(kind);
  return (
    <Aside
      className="explain"
      trigger={
        <button type="button" className="why">
          {words}
        </button>
      }
    >
      <b>{title}</b>
      <p>{text}</p>
      {winner && (
        <p className="ex-said">
          <span>counts</span> <code>{winner.text}</code> <i>{winner.where}</i>
        </p>
      )}
      {loser && (
        <p className="ex-said">
          <span>does not</span> <code>{loser.text}</code> <i>{loser.where}</i>
        </p>
      )}
      {standard !== '' && <p className="text-note text-ink-3">{standard}</p>}
    </Aside>
  );
}
