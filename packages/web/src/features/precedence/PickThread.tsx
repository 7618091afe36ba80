import type { Point } from './PageFrame.tsx';

/** A thread from the picked element to the head of its table; both ends in the window. */
export function PickThread({ from, to }: { readonly from: Point; readonly to: Point }) {
  if (to.x <= from.x) return null;
  const middle = (from.x + to.x) / 2;
  return (
    <svg className="pointer-events-none fixed inset-0 z-4 size-full" aria-hidden="true">
      <path
        className="fill-none stroke-thread stroke-[1.6]"
        d={`M${from.x} ${from.y}C${middle + 18} ${from.y} ${middle - 6} ${to.y} ${to.x} ${to.y}`}
      />
      <circle className="fill-thread" cx={from.x} cy={from.y} r="3.5" />
      <circle className="fill-thread" cx={to.x} cy={to.y} r="3.5" />
    </svg>
  );
}
