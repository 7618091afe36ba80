import type { ProposalReply } from '@syndeton/contract';
import { count, someNames } from '../../ui/format.ts';

type Trade = ProposalReply['trades'][number];

interface Props {
  readonly trades: readonly Trade[];
  readonly onTake: (trade: Trade) => void;
}

const mostShown = 6;

/** What a change of look on purpose would save in the sheet. Each is one act, shown in the proof as chosen, and can be taken back. */
export function Trades({ trades, onTake }: Props) {
  return (
    <details className="asking">
      <summary className="act">
        {trades.length === 1 ? 'One trade makes' : `${trades.length} trades make`} it simpler, where pages may look
        different
      </summary>
      <ul>
        {trades.slice(0, mostShown).map((trade) => (
          <li key={`${trade.label} ${trade.pages.join()}`}>
            Let {someNames(trade.pages)} say <span className="m">{trade.label}</span> as{' '}
            {count(trade.others, 'other page')} {trade.others === 1 ? 'does' : 'do'}: {savedBy(trade)}{' '}
            <span className="note">changes {trade.properties.slice(0, 4).join(', ')}</span>{' '}
            <button type="button" className="act" onClick={() => onTake(trade)}>
              Take it
            </button>
          </li>
        ))}
      </ul>
    </details>
  );
}

function savedBy({ saves }: Trade): string {
  const parts = [
    ...(saves.marks > 0 ? [count(saves.marks, 'class', 'classes')] : []),
    ...(saves.rules > 0 ? [count(saves.rules, 'rule')] : []),
  ];
  return `${parts.join(' and ')} fewer.`;
}
