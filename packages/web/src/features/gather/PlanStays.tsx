import type { ProposalReply } from '@syndeton/contract';
import { count, pageName } from '../../ui/format.ts';

/** What a plan leaves in the pages, by reason. */
export function PlanStays({ stays }: { readonly stays: ProposalReply['stays'] }) {
  const byReason = new Map<string, ProposalReply['stays']>();
  for (const one of stays) byReason.set(one.reason, [...(byReason.get(one.reason) ?? []), one]);
  return (
    <details className="pb-2 text-table">
      <summary className="act">{count(stays.length, 'thing')} stay in the pages, and why</summary>
      <ul className="pt-1">
        {[...byReason].slice(0, 40).map(([reason, list]) => (
          <li key={reason}>
            <b>{count(list.length, list[0]!.kind === 'block' ? 'block' : 'style attribute')}</b> on{' '}
            {[...new Set(list.map((one) => one.page))].slice(0, 4).map(pageName).join(', ')}
            {list.length > 4 ? ' …' : ''}: {reason}
            {reason.endsWith('.') ? '' : '.'}
          </li>
        ))}
      </ul>
    </details>
  );
}
