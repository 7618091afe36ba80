import { countAt, lead, loopPaths, looseEnd, slackPath, turnPaths, type Knot } from './threadPath.ts';

const Strand = ({ d }: { readonly d: string }) => (
  <>
    <path className="th" d={d} />
    <path className="ply" d={d} />
  </>
);

export function Logo() {
  return (
    <g transform="translate(32 22)">
      <path className="lg" d="M-13 -7H1.5a4.5 4.5 0 0 1 0 9H-13" />
      <path className="lcase" d="M.5 -2H-1.5a4.5 4.5 0 0 0 0 9H.5" />
      <path className="lg" d="M13 -2H-1.5a4.5 4.5 0 0 0 0 9H13" />
      <path className="lcase" d="M1.5 -7a4.5 4.5 0 0 1 0 9" />
      <path className="lg" d="M1.5 -7a4.5 4.5 0 0 1 0 9" />
    </g>
  );
}

/** The thread through the stations' knots. Purely a picture: the stations are links of their own. */
export function Thread({ knots, here }: { readonly knots: readonly Knot[]; readonly here: number }) {
  const first = knots[0]!;
  const last = knots.at(-1)!;
  return (
    <svg className="thread" width="100%" height="110" aria-hidden="true">
      <Strand d={lead(first)} />
      {knots.slice(1).map((knot, i) => (
        <Strand key={knot.x} d={slackPath(knots[i]!, knot)} />
      ))}
      <Strand d={looseEnd(last)} />
      {knots[here] && <path className="string" d={`M${knots[here].x} 77V84`} />}
      {knots.map((knot) => (knot.tied ? <TiedKnot key={knot.x} knot={knot} /> : <OpenKnot key={knot.x} knot={knot} />))}
      <Logo />
    </svg>
  );
}

function TiedKnot({ knot }: { readonly knot: Knot }) {
  return (
    <g>
      <path className="th" d={`M${knot.x - 13} 72H${knot.x + 13}`} />
      {turnPaths(knot.x).map((d) => (
        <g key={d}>
          <path className="turngap" d={d} />
          <path className="turn" d={d} />
        </g>
      ))}
    </g>
  );
}

function OpenKnot({ knot }: { readonly knot: Knot }) {
  const [up, down] = loopPaths(knot);
  return (
    <g className="knot">
      <Strand d={up} />
      <path className="case" d={down} />
      <Strand d={down} />
      {knot.waiting > 0 && (
        <text x={knot.x} y={countAt(knot)}>
          {knot.waiting > 99 ? '99+' : knot.waiting}
        </text>
      )}
    </g>
  );
}
