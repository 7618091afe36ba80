/** A site's own small thread: seven knots, tied where that station's work is done. */
export function SiteThread({ tied }: { readonly tied: readonly boolean[] }) {
  return (
    <svg
      className="fill-none stroke-thread stroke-[1.7]"
      strokeLinecap="round"
      width="158"
      height="20"
      role="img"
      aria-label={`${tied.filter(Boolean).length} of ${tied.length} stations done`}
    >
      {tied.slice(1).map((next, i) => (
        <path key={i} d={between(i, tied[i]!, next)} />
      ))}
      {tied.map((knot, i) => (knot ? <Tied key={i} x={1 + i * 23} /> : <path key={i} d={loop(1 + i * 23)} />))}
    </svg>
  );
}

function between(i: number, left: boolean, right: boolean): string {
  const from = 13 + i * 23;
  const to = from + 11;
  if (left && right) return `M${from} 13H${to}`;
  return `M${from} 13Q${from + 5.5} ${left || right ? 16 : 17.5} ${to} 13`;
}

function Tied({ x }: { readonly x: number }) {
  return (
    <>
      <path d={`M${x} 13H${x + 12}`} />
      {[1.1, 4.7, 8.3].map((at) => {
        const d = `M${x + at} 16.6L${x + at + 2.6} 9.4`;
        return (
          <g key={at}>
            <path className="stroke-panel stroke-[4.4]" d={d} />
            <path className="stroke-[2.7]" d={d} />
          </g>
        );
      })}
    </>
  );
}

const loop = (x: number): string =>
  `M${x} 13C${x + 4} 13 ${x + 10} 13.4 ${x + 10} 8.4A4 4 0 1 0 ${x + 2} 8.4C${x + 2} 13.4 ${x + 8} 13 ${x + 12} 13`;
