export interface Knot {
  readonly x: number;
  readonly tied: boolean;
  /** Decisions waiting; 0 for none. */
  readonly waiting: number;
}

const y = 72;
const reach = (knot: Knot): number => (knot.tied ? 13 : 15);
const loopRadius = (knot: Knot): number => (knot.waiting > 0 ? 9.5 : 7.5);

/** The thread between two knots: straight between tied ones, 6px slack beside an open one, 8px between two open ones. */
export function slackPath(left: Knot, right: Knot): string {
  const from = left.x + reach(left);
  const to = right.x - reach(right);
  if (left.tied && right.tied) return `M${from} ${y}H${to}`;
  const sag = y + (left.tied || right.tied ? 6 : 8);
  const middle = (from + to) / 2;
  return `M${from} ${y} C${from + 26} ${y} ${middle - 44} ${sag} ${middle} ${sag} S${to - 26} ${y} ${to} ${y}`;
}

/** The two halves of an open knot's loop: the way up, and the way down that crosses over it. */
export function loopPaths(knot: Knot): readonly [up: string, down: string] {
  const { x } = knot;
  const r = loopRadius(knot);
  const top = y - r * 2 - 0.6;
  const middle = top + r;
  const k = 0.56 * r;
  return [
    `M${x - 15} ${y} C${x - 7} ${y} ${x + r} ${y + 1.2} ${x + r} ${middle} C${x + r} ${middle - k} ${x + k} ${top} ${x} ${top}`,
    `M${x} ${top} C${x - k} ${top} ${x - r} ${middle - k} ${x - r} ${middle} C${x - r} ${y + 1.2} ${x + 7} ${y} ${x + 15} ${y}`,
  ];
}

/** Where the count stands in an open knot's loop. */
export const countAt = (knot: Knot): number => y - loopRadius(knot) - 0.6 + 4;

/** The three slanted turns of a tied knot. */
export const turnPaths = (x: number): readonly string[] =>
  [-1, 0, 1].map((i) => `M${x + i * 5.6 - 2.1} ${y + 5.4}L${x + i * 5.6 + 2.1} ${y - 5.4}`);

/** From the mark in the head to the first knot. */
export const lead = (first: Knot): string =>
  `M19 24 C10.5 24 11.5 33 12.5 40 C15 62 26 72 50 72 L${first.x - reach(first)} ${y}`;

/** The loose end at the right. */
export function looseEnd(last: Knot): string {
  const from = last.x + reach(last);
  return `M${from} ${y} C${from + 14} ${y} ${from + 20} 82 ${from + 32} 78 S${from + 46} 64 ${from + 54} 70`;
}
