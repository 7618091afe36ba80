import { useEffect, useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { Thread } from '../../ui/Thread.tsx';
import { stationNames, stationTitle, type StationName } from '../site/index.ts';

export interface StationFigure {
  readonly tied: boolean;
  readonly waiting: number;
  /** `26` and `pages`: the number stays where there is little room. */
  readonly number: string;
  readonly words: string;
}

const stationLook =
  'absolute top-9.5 h-5.5 -translate-x-1/2 rounded-[4px] px-2.25 text-table/5.5 whitespace-nowrap focus-visible:shadow-(--focus) max-phone:static max-phone:flex-none max-phone:translate-x-0 [&_b]:font-semibold [&_span]:text-ink-3';

/** A tag on the thread, with the end of its string. */
const hereLook =
  'bg-raised shadow-[0_0_0_1px_var(--line-2),var(--tag)] before:absolute before:-top-0.75 before:left-1/2 before:-ml-0.75 before:size-1.25 before:rounded-full before:bg-thread max-phone:before:hidden [&_span]:text-ink-2!';

/** The thread with its seven stations, each with one live figure. */
export function Stations({
  siteId,
  here,
  figures,
}: {
  readonly siteId: string;
  readonly here: StationName;
  readonly figures: Readonly<Record<StationName, StationFigure>>;
}) {
  const box = useRef<HTMLElement>(null);
  const [width, setWidth] = useState(1280);
  const [search] = useSearchParams();
  useEffect(() => {
    const observer = new ResizeObserver(([entry]) => setWidth(entry!.contentRect.width));
    observer.observe(box.current!);
    return () => observer.disconnect();
  }, []);
  // where they are a row to push, the one at hand is in sight, also once figures made the others wider
  const widths = stationNames.map((name) => `${figures[name].number} ${figures[name].words}`).join();
  useEffect(() => {
    box.current?.querySelector('[aria-current]')?.scrollIntoView?.({ block: 'nearest', inline: 'center' });
  }, [here, widths]);
  const scale = Math.max(width, 700) / 1280;
  const x = (i: number): number => (104 + i * 178) * scale;
  const kept = new URLSearchParams(search);
  kept.delete('open');
  return (
    <>
      <Thread
        knots={stationNames.map((name, i) => ({ x: x(i), tied: figures[name].tied, waiting: figures[name].waiting }))}
        here={stationNames.indexOf(here)}
      />
      <nav
        className="relative border-b border-line-2 z-3 overflow-hidden max-phone:flex max-phone:gap-1 max-phone:px-2 max-phone:pt-1.25 max-phone:pb-1.75 max-phone:overflow-x-auto"
        aria-label="Stations"
        ref={box}
      >
        {stationNames.map((name, i) => (
          <Link
            key={name}
            className={`${stationLook} ${name === here ? hereLook : 'max-[1280px]:[&_span]:text-note/[inherit] max-[1101px]:[&_.words]:hidden'}`}
            style={{ left: x(i) }}
            to={{ pathname: `/sites/${siteId}/${name}`, search: kept.toString() }}
            aria-current={name === here ? 'page' : undefined}
          >
            <b>{stationTitle[name]}</b> <span>{figures[name].number}</span>{' '}
            <span className="words">{figures[name].words}</span>
          </Link>
        ))}
      </nav>
    </>
  );
}
