import type { QuestionReply } from '@syndeton/contract';
import { strandLook } from '../../ui/looks.ts';
import { coloursIn } from '../../ui/Swatch.tsx';

export const deciderHeight = 84;
const width = 250;
const mostStrands = 400;

/** One strand a page, from the value it gets to what decides it; on large sites one strand for several pages. */
export function Strands({ values }: { readonly values: QuestionReply['values'] }) {
  const deciders = values.flatMap((value) => value.deciders);
  const pages = deciders.reduce((sum, one) => sum + one.pages.length, 0);
  const each = Math.max(1, Math.ceil(pages / mostStrands));
  const gap = Math.min(5, 52 / Math.max(1, ...deciders.map((one) => strandsOf(one, each))));
  const height = deciders.length * deciderHeight;
  return (
    <svg
      className="overflow-visible max-[1101px]:w-32.5"
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      preserveAspectRatio="none"
      aria-hidden="true"
    >
      {values.map((value, v) => {
        const row = values.slice(0, v).reduce((sum, above) => sum + above.deciders.length, 0);
        return <ValueStrands key={row} value={value} row={row} gap={gap} each={each} />;
      })}
    </svg>
  );
}

type Value = QuestionReply['values'][number];

/** `row` is that of the first of what decides the value; one strand stands for `each` pages. */
function ValueStrands({ value, row, gap, each }: { value: Value; row: number; gap: number; each: number }) {
  const counts = value.deciders.map((one) => strandsOf(one, each));
  const [colour] = coloursIn(value.value);
  const top = row * deciderHeight + 20;
  return (
    <g>
      {value.deciders.flatMap((one, d) => {
        const n = counts[d]!;
        const first = top + (sumOf(counts.slice(0, d)) + 0.5) * gap;
        const middle = (row + d) * deciderHeight + 26;
        const spread = Math.min(1.8, 40 / n);
        return Array.from({ length: n }, (_, i) => {
          const from = first + i * gap;
          const to = middle + (i - (n - 1) / 2) * spread;
          return (
            <path
              key={`${d} ${i}`}
              className={`fill-none stroke-[1.6] opacity-80 ${strandLook[one.kind]}`}
              d={`M6 ${from}C${width * 0.45} ${from} ${width * 0.55} ${to} ${width - 4} ${to}`}
            />
          );
        });
      })}
      <rect
        className="fill-ink stroke-line-2 stroke-1"
        x="1"
        y={top}
        width="5"
        height={Math.max(5, sumOf(counts) * gap)}
        rx="2.5"
        {...(colour === undefined ? {} : { style: { fill: colour } })}
      />
    </g>
  );
}

function strandsOf(decider: Value['deciders'][number], each: number): number {
  return Math.max(1, Math.round(decider.pages.length / each));
}

const sumOf = (numbers: readonly number[]): number => numbers.reduce((sum, one) => sum + one, 0);
