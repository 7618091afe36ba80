import type { ProofReply } from '@syndeton/contract';

/** What cannot be told of a page, why and where, and what settles it. */
export function DoubtsList({ doubts }: { readonly doubts: ProofReply['pages'][number]['doubts'] }) {
  return (
    <section aria-label="What cannot be told" className="border-b border-line py-3">
      <h2>What cannot be told</h2>
      <ul className="mt-1 text-table">
        {doubts.map(({ sentence, elements }, i) => (
          <li key={i} className="py-1.5">
            {sentence}
            {elements.length > 0 && (
              <span className="text-note text-ink-3 block">
                {elements.slice(0, 4).map(({ name, line }, n) => (
                  <span key={n}>
                    {n > 0 && ', '}
                    <code>{name}</code> in line {line}
                  </span>
                ))}
                {elements.length > 4 && ` and ${elements.length - 4} more`}
              </span>
            )}
          </li>
        ))}
      </ul>
      <p className="text-note text-ink-3">
        The pages beside this run no scripts. Opening both states of the page in a browser settles it.
      </p>
    </section>
  );
}
