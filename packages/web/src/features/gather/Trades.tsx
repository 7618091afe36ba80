import type { ProposalReply } from '@syndeton/contract';
import { actLook, askingLook } from '../../ui/looks.ts';
import { Act } from '../../ui/Act.tsx';
import { count, someNames } from '../../ui/format.ts';

type Trade = ProposalReply['trades'][number];

interface Props {
  readonly trades: readonly Trade[];
  readonly onTake: (trade: Trade) => void;
}

const mostShown = 20;

/** What a change of look on purpose would save in the sheet. Each is one act, shown in the proof as chosen, and can be taken back. */
export function Trades({ trades, onTake }: Props) {
  return (
    <details className={askingLook}>
      <summary className={actLook}>
        {trades.length === 1 ? 'One trade makes' : `${trades.length} trades make`} it simpler, where pages may look
        different
      </summary>
      <ul>
        {trades.slice(0, mostShown).map((trade) => (
          <li key={`${trade.operation.kind} ${trade.label} ${trade.properties.join()} ${trade.pages.join()}`}>
            <TradeWords trade={trade} />: {savedBy(trade)}{' '}
            <span className="text-note text-ink-3">changes {trade.properties.slice(0, 4).join(', ')}</span>{' '}
            <Act onClick={() => onTake(trade)}>Take it</Act>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** “Let history.html say p as 14 other pages do”; of style attributes, “Let 4 p on booking.html have padding-left 10px, not 6px, 8px”. */
function TradeWords({ trade: { label, pages, others, properties, scale } }: { readonly trade: Trade }) {
  if (!scale)
    return (
      <>
        Let {someNames(pages)} say <span className="m">{label}</span> as {count(others, 'other page')}{' '}
        {others === 1 ? 'does' : 'do'}
      </>
    );
  return (
    <>
      Let {scale.elements} <span className="m">{label}</span> on {someNames(pages)} have{' '}
      <span className="m">
        {properties[0]}: {scale.to}
      </span>{' '}
      in place of {scale.from.join(', ')}
    </>
  );
}

function savedBy({ saves }: Trade): string {
  const parts = [
    ...(saves.marks > 0 ? [count(saves.marks, 'class', 'classes')] : []),
    ...(saves.rules > 0 ? [count(saves.rules, 'rule')] : []),
  ];
  return `${parts.join(' and ')} fewer.`;
}
