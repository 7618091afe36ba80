import type { Point } from './PageFrame.tsx';

/** A thread from the picked element to the head of its table; both ends in the window. */
export function PickThread({ from, to }: { readonly from: Point; readonly to: Point }) {
  if (to.x <= from.x) return null;
  const middle = (from.x + to.x) / 2;
  return (
    <svg className="pick-thread" aria-hidden="true">
      <path d={`M${from.x} ${from.y}C${middle + 18} ${from.y} ${middle - 6} ${to.y} ${to.x} ${to.y}`} />
      <circle cx={from.x} cy={from.y} r="3.5" />
      <circle cx={to.x} cy={to.y} r="3.5" />
    </svg>
  );
}
