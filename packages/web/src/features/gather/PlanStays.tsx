import type { ProposalReply } from '@syndeton/contract';
import { actLook } from '../../ui/looks.ts';
import { count, pageName } from '../../ui/format.ts';

const nameOf = {
  block: 'block',
  attribute: 'style attribute',
  presentational: 'presentational part',
} as const;

const pagesOf = (stays: ProposalReply['stays']): readonly string[] => [...new Set(stays.map((one) => one.page))];

/** What a plan leaves in the pages, by reason. */
export function PlanStays({ stays }: { readonly stays: ProposalReply['stays'] }) {
  const byReason = new Map<string, ProposalReply['stays']>();
  for (const one of stays) {
    const key = `${one.kind} ${one.reason}`;
    byReason.set(key, [...(byReason.get(key) ?? []), one]);
  }
  return (
    <details className="pb-2 text-table">
      <summary className={actLook}>
        {count(stays.length, 'thing')} {stays.length === 1 ? 'stays' : 'stay'} in the pages, and why
      </summary>
      <ul className="pt-1">
        {[...byReason].slice(0, 40).map(([key, list]) => (
          <li key={key}>
            <b>{count(list.length, nameOf[list[0]!.kind])}</b> on {pagesOf(list).slice(0, 4).map(pageName).join(', ')}
            {pagesOf(list).length > 4 ? ' …' : ''}: {list[0]!.reason}
            {list[0]!.reason.endsWith('.') ? '' : '.'}
          </li>
        ))}
      </ul>
    </details>
  );
}
