import { useEffect, useState, type RefObject } from 'react';
import { strandLook } from '../../ui/looks.ts';

/** What two things to tie: elements marked `data-tie-from` in the bands and `data-tie-to` in the text share a name. */
interface Strand {
  readonly key: string;
  readonly path: string;
  readonly kind: string;
  readonly hot: boolean;
}

/** Strands from each band, and from the chosen rule, to their place in the text. Drawn anew when what they tie moves. */
export function Strands({
  box,
  chosen,
  stamp,
}: {
  readonly box: RefObject<HTMLDivElement | null>;
  readonly chosen: string | undefined;
  readonly stamp: unknown;
}) {
  const [strands, setStrands] = useState<readonly Strand[]>([]);
  // not before the area's own reference is there, which is after the layout of what is in it
  useEffect(() => {
    const area = box.current;
    if (!area) return;
    let frame = 0;
    const measure = (): void => {
      cancelAnimationFrame(frame);
      frame = requestAnimationFrame(() => setStrands(strandsIn(area, chosen)));
    };
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(area);
    // scrolling does not bubble, but it can be caught on the way down
    area.addEventListener('scroll', measure, { capture: true, passive: true });
    // a band that unfolds moves the others
    const moved = new MutationObserver(measure);
    for (const pane of area.querySelectorAll('[data-pane]')) moved.observe(pane, { childList: true, subtree: true });
    return () => {
      cancelAnimationFrame(frame);
      observer.disconnect();
      moved.disconnect();
      area.removeEventListener('scroll', measure, { capture: true });
    };
  }, [box, chosen, stamp]);
  return (
    <svg
      className="pointer-events-none absolute top-0 left-0 overflow-visible"
      width="100%"
      height="100%"
      aria-hidden="true"
    >
      {strands.map(({ key, path, kind, hot }) => (
        <path
          key={key}
          data-hot={hot || undefined}
          d={path}
          className={`fill-none opacity-80 ${hot ? 'stroke-[2.6]' : 'stroke-[1.5]'} ${strandLook[kind]}`}
        />
      ))}
    </svg>
  );
}

function strandsIn(area: HTMLElement, chosen: string | undefined): readonly Strand[] {
  const origin = area.getBoundingClientRect();
  const ends = new Map<string, DOMRect>();
  for (const element of area.querySelectorAll<HTMLElement>('[data-tie-to]')) {
    for (const name of element.dataset['tieTo']!.split(' '))
      if (!ends.has(name)) ends.set(name, element.getBoundingClientRect());
  }
  return [...area.querySelectorAll<HTMLElement>('[data-tie-from]')].flatMap((element) => {
    const name = element.dataset['tieFrom']!;
    const to = ends.get(name);
    if (!to) return [];
    const from = element.getBoundingClientRect();
    const x1 = from.right - origin.left + 4;
    const y1 = from.top + Math.min(from.height, 24) / 2 - origin.top;
    if (y1 < 0 || y1 > origin.height) return [];
    const x2 = to.left - origin.left - 4;
    // a place that is scrolled out of sight draws its strand to the edge
    const y2 = Math.min(Math.max(to.top + 10 - origin.top, -10), origin.height + 10);
    const middle = (x1 + x2) / 2;
    return [
      {
        key: name,
        path: `M${x1} ${y1}C${middle} ${y1} ${middle} ${y2} ${x2} ${y2}`,
        kind: element.dataset['kind'] ?? 'linked',
        hot: name === chosen,
      },
    ];
  });
}
