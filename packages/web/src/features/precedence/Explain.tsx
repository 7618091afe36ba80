import { Popover } from 'radix-ui';
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
    <Popover.Root>
      <Popover.Trigger asChild>
        <button type="button" className="why">
          {words}
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className="explain" sideOffset={4} collisionPadding={12}>
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
          {standard !== '' && <p className="note">{standard}</p>}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
