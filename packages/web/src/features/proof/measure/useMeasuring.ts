import { useEffect, useRef, useState } from 'react';
import { Measurer } from './Measurer.ts';
import { keepMeasured, nothingMeasured, readMeasured, type Measured, type MeasuredView } from './measuredPages.ts';

export interface Measuring {
  readonly measured: Measured;
  /** Pages not measured yet are measured, others stand. */
  readonly start: (views: readonly MeasuredView[]) => void;
  readonly stop: () => void;
}

interface Asked {
  readonly siteId: string;
  /** What the two states are called: `r1`, `draft`. */
  readonly from: string;
  readonly to: string;
  /** Changes when the draft does. */
  readonly version: number;
  readonly pages: readonly string[];
}

/**
 * Measures all pages in two states, one after the other; what was measured is kept, and goes on after a reload. For other states it
 * has to be made anew.
 */
export function useMeasuring({ siteId, from, to, version, pages }: Asked): Measuring {
  const state = `${from} ${to} ${to === 'draft' ? version : ''}`;
  const [measured, setMeasured] = useState(() => readMeasured(siteId, state) ?? nothingMeasured);
  const run = useRef(0);
  const put = (next: Measured): void => {
    setMeasured(next);
    keepMeasured(siteId, state, next);
  };
  const go = async (begun: Measured): Promise<void> => {
    const mine = ++run.current;
    let now: Measured = { ...begun, running: true };
    put(now);
    const measurer = new Measurer([`/preview/${siteId}/${from}/`, `/preview/${siteId}/${to}/`]);
    try {
      for (const page of pages) {
        if (now.pages[page] !== undefined) continue;
        const found = await measurer.page(page, now.views);
        if (run.current !== mine) return;
        now = { ...now, pages: { ...now.pages, [page]: found } };
        put(now);
      }
      put({ ...now, running: false });
    } finally {
      measurer.close();
    }
  };
  const goOn = useRef(() => {
    // it was going on when the page was left
    if (measured.running) void go(measured);
  });
  useEffect(() => {
    goOn.current();
    const runs = run;
    return () => {
      runs.current++;
    };
  }, []);
  return {
    measured,
    start: (views) => {
      const isRest =
        JSON.stringify(views) === JSON.stringify(measured.views) &&
        pages.some((page) => measured.pages[page] === undefined);
      void go({ views, pages: isRest ? measured.pages : {}, running: true });
    },
    stop: () => {
      run.current++;
      put({ ...measured, running: false });
    },
  };
}
