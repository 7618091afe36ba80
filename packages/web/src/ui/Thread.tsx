import { threadBoxLook, threadLook, turnLook } from './looks.ts';
import { countAt, lead, loopPaths, looseEnd, slackPath, turnPaths, type Knot } from './threadPath.ts';

/** A strand of two plies. */
export const Strand = ({ d }: { readonly d: string }) => (
  <>
    <path className={threadLook} d={d} />
    <path className="stroke-thread-ply stroke-[0.9] opacity-75" strokeLinecap="butt" strokeDasharray="2.4 3" d={d} />
  </>
);

export function Logo() {
  return (
    <g transform="translate(32 22)" fill="none">
      <path className="stroke-thread stroke-[2.5]" strokeLinecap="round" d="M-13 -7H1.5a4.5 4.5 0 0 1 0 9H-13" />
      <path className="stroke-ground stroke-[5.4]" strokeLinecap="butt" d="M.5 -2H-1.5a4.5 4.5 0 0 0 0 9H.5" />
      <path className="stroke-thread stroke-[2.5]" strokeLinecap="round" d="M13 -2H-1.5a4.5 4.5 0 0 0 0 9H13" />
      <path className="stroke-ground stroke-[5.4]" strokeLinecap="butt" d="M1.5 -7a4.5 4.5 0 0 1 0 9" />
      <path className="stroke-thread stroke-[2.5]" strokeLinecap="round" d="M1.5 -7a4.5 4.5 0 0 1 0 9" />
    </g>
  );
}

/** The thread through the stations' knots. Purely a picture: the stations are links of their own. */
export function Thread({ knots, here }: { readonly knots: readonly Knot[]; readonly here: number }) {
  const first = knots[0]!;
  const last = knots.at(-1)!;
  return (
    <svg className={threadBoxLook} fill="none" strokeLinecap="round" width="100%" height="110" aria-hidden="true">
      <Strand d={lead(first)} />
      {knots.slice(1).map((knot, i) => (
        <Strand key={knot.x} d={slackPath(knots[i]!, knot)} />
      ))}
      <Strand d={looseEnd(last)} />
      {knots[here] && (
        <path className="stroke-thread stroke-[1.3]" strokeLinecap="butt" d={`M${knots[here].x} 77V84`} />
      )}
      {knots.map((knot) => (knot.tied ? <TiedKnot key={knot.x} knot={knot} /> : <OpenKnot key={knot.x} knot={knot} />))}
      <Logo />
    </svg>
  );
}

function TiedKnot({ knot }: { readonly knot: Knot }) {
  return (
    <g>
      <path className={threadLook} d={`M${knot.x - 13} 72H${knot.x + 13}`} />
      {turnPaths(knot.x).map((d) => (
        <g key={d}>
          <path className="stroke-ground stroke-[7]" d={d} />
          <path className={turnLook} d={d} />
        </g>
      ))}
    </g>
  );
}

function OpenKnot({ knot }: { readonly knot: Knot }) {
  const [up, down] = loopPaths(knot);
  return (
    <g>
      <Strand d={up} />
      <path className="stroke-ground stroke-[5.4]" strokeLinecap="butt" d={down} />
      <Strand d={down} />
      {knot.waiting > 0 && (
        <text className="fill-ink font-ui text-note font-bold" textAnchor="middle" x={knot.x} y={countAt(knot)}>
          {knot.waiting > 99 ? '99+' : knot.waiting}
        </text>
      )}
    </g>
  );
}
