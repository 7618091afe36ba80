import type { ReactNode } from 'react';
import type { ProofReply } from '@syndeton/contract';

/** A page's verdict in the rail: `=`, `≠ 6`, `?` where it cannot be told. */
export function verdictMark(page: ProofReply['pages'][number] | undefined): ReactNode {
  if (!page) return null;
  if (page.verdict === 'same') return <span aria-label="looks the same">=</span>;
  if (page.verdict === 'intended') return <span aria-label="looks as you chose">≈</span>;
  if (page.verdict === 'unsure') return <b aria-label="cannot be told">?</b>;
  const words = page.differingElements > 0 ? `${page.differingElements} elements differ` : 'differs';
  return <b aria-label={words}>≠ {page.differingElements > 0 ? page.differingElements : ''}</b>;
}
