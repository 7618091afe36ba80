import type { QuestionReply } from '@syndeton/contract';
import { coloursIn } from '../../ui/Swatch.tsx';

export const deciderHeight = 84;
const width = 250;
const mostStrands = 400;

const strandClass: Readonly<Record<string, string>> = {
  linked: 'st-linked',
  imported: 'st-imported',
  embedded: 'st-embedded',
  attribute: 'st-attribute',
  presentational: 'st-presentational',
  browser: 'st-browser',
  initial: 'st-browser',
};

/** One strand a page, from the value it gets to what decides it; on large sites one strand for several pages. */
export function Strands({ values }: { readonly values: QuestionReply['values'] }) {
  const deciders = values.flatMap((value) => value.deciders);
  const pages = deciders.reduce((sum, one) => sum + one.pages.length, 0);
  const each = Math.max(1, Math.ceil(pages / mostStrands));
  const strandsOf = (n: number): number => Math.max(1, Math.round(n / each));
  const most = Math.max(1, ...deciders.map((one) => strandsOf(one.pages.length)));
  const gap = Math.min(5, 52 / most);
  let row = 0;
  const out = values.map((value) => {
    const top = row * deciderHeight + 20;
    let left = top;
    const strands = value.deciders.flatMap((one) => {
      const middle = row * deciderHeight + 26;
      row++;
      const n = strandsOf(one.pages.length);
      const spread = Math.min(1.8, 40 / n);
      return Array.from({ length: n }, (_, i) => {
        const from = left + gap / 2;
        left += gap;
        const to = middle + (i - (n - 1) / 2) * spread;
        return <path key={`${row} ${i}`} className={strandClass[one.kind]} d={`M6 ${from}C${width * 0.45} ${from} ${width * 0.55} ${to} ${width - 4} ${to}`} />; // prettier-ignore
      });
    });
    return (
      <g key={`${value.value} ${top}`}>
        {strands}
        <rect
          className="st-bar"
          x="1"
          y={top}
          width="5"
          height={Math.max(5, left - top)}
          rx="2.5"
          {...(coloursIn(value.value)[0] === undefined ? {} : { style: { fill: coloursIn(value.value)[0] } })}
        />
      </g>
    );
  });
  return (
    <svg
      className="qs"
      width={width}
      height={row * deciderHeight}
      viewBox={`0 0 ${width} ${row * deciderHeight}`}
      preserveAspectRatio="none"
      aria-hidden="true"
    >
      {out}
    </svg>
  );
}
