import { useLayoutEffect, useRef, useState, type RefObject } from 'react';
import type { EditorHandle } from './editor/SheetEditor.tsx';

interface Props {
  readonly handle: RefObject<EditorHandle | undefined>;
  /** Where the rule at the cursor starts in the text. */
  readonly start: number;
}

interface Ends {
  readonly from: { readonly x: number; readonly y: number };
  readonly to: { readonly x: number; readonly y: number };
}

/** The thread from the rule at the cursor to what is said of it; none while either end is scrolled away. */
export function RuleTie({ handle, start }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const [ends, setEnds] = useState<Ends | undefined>(undefined);
  useLayoutEffect(() => {
    let frame = 0;
    const measure = (): void => {
      const station = svg.current?.parentElement;
      const title = station?.querySelector('[data-rule-name]')?.getBoundingClientRect();
      const panel = station?.querySelector('[data-rule-panel]')?.getBoundingClientRect();
      const y = handle.current?.lineMiddle(start);
      if (!station || !title || !panel || y === undefined || title.top < panel.top) {
        setEnds(undefined);
        return;
      }
      const box = station.getBoundingClientRect();
      const next = {
        from: { x: panel.left - box.left, y: y - box.top },
        to: { x: title.left - box.left - 8, y: title.top - box.top + 19 },
      };
      // measured after each drawing: where nothing moved nothing is drawn again
      setEnds((last) => (last && curve(last) === curve(next) ? last : next));
    };
    const soon = (): void => {
      cancelAnimationFrame(frame);
      frame = requestAnimationFrame(measure);
    };
    soon();
    const station = svg.current!.parentElement!;
    station.addEventListener('scroll', soon, { capture: true, passive: true });
    const observer = new ResizeObserver(soon);
    observer.observe(station);
    return () => {
      cancelAnimationFrame(frame);
      station.removeEventListener('scroll', soon, { capture: true });
      observer.disconnect();
    };
  });
  return (
    <svg ref={svg} className="pointer-events-none absolute inset-0 z-4 size-full fill-thread" aria-hidden="true">
      {ends && (
        <>
          <path className="fill-none stroke-thread stroke-[1.3]" d={curve(ends)} />
          <circle cx={ends.from.x} cy={ends.from.y} r="3" />
          <circle cx={ends.to.x} cy={ends.to.y} r="3" />
        </>
      )}
    </svg>
  );
}

/** Out of the text, up or down beside it, into the heading. */
function curve({ from, to }: Ends): string {
  const bend = Math.min(26, Math.abs(from.y - to.y) / 2);
  const way = to.y < from.y ? -1 : 1;
  const x = from.x + 5;
  return `M${from.x} ${from.y}C${x + 3} ${from.y} ${x} ${from.y + way * bend * 0.4} ${x} ${from.y + way * bend}V${to.y - way * bend}C${x} ${to.y - way * bend * 0.4} ${x + 2} ${to.y} ${to.x} ${to.y}`;
}
