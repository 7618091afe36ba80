import { useEffect, useMemo, useRef } from 'react';
import { CustomChart } from 'echarts/charts';
import { GridComponent } from 'echarts/components';
import type { CustomSeriesRenderItemAPI, CustomSeriesRenderItemReturn } from 'echarts';
import { init, use as register, type EChartsType } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import type { SurveyReply } from '@syndeton/contract';
import { useTheme } from '../../ui/theme.ts';
import { pageName } from '../../ui/format.ts';
import { barsFor, type PageBars } from './barsFor.ts';
import { pageShapes } from './pageShapes.ts';

register([CustomChart, GridComponent, SVGRenderer]);

const row = 20;
const mostRows = 400;

/** Bars both ways from one line: shared to the left, still in the page to the right; most local styling first. A click chooses the page. */
export function SourcesChart({
  pages,
  onChoose,
}: {
  readonly pages: readonly SurveyReply['pages'][number][];
  readonly onChoose: (page: string) => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const [theme] = useTheme();
  const bars = useMemo(() => barsFor(pages), [pages]);
  const shown = bars.slice(0, mostRows);
  const choose = useRef(onChoose);
  useEffect(() => {
    choose.current = onChoose;
  });
  useEffect(() => {
    const chart = init(box.current, undefined, { renderer: 'svg' });
    chart.on('click', (event) => choose.current(shown[event.dataIndex]!.path));
    draw(chart, shown);
    const observer = new ResizeObserver(() => {
      chart.resize();
      draw(chart, shown);
    });
    observer.observe(box.current!);
    return () => {
      observer.disconnect();
      chart.dispose();
    };
  }, [shown, theme]);
  return (
    <>
      <div className="flex text-note text-ink-3" aria-hidden="true">
        <span className="w-[59%] pr-2 text-right">shared, from sheets</span>
        <span className="pl-2">still in the page, kB</span>
      </div>
      <div
        ref={box}
        style={{ height: shown.length * row + 8 }}
        role="img"
        aria-label={`Bytes of styling by source on ${pages.length} pages; the table below has the numbers`}
      />
      {bars.length > mostRows && (
        <p className="note">The {mostRows} pages with most styling in them; choose pages in the rail to see others.</p>
      )}
      <table className="hidden-table">
        <caption>Bytes of styling by page</caption>
        <thead>
          <tr>
            <th>Page</th>
            <th>From sheets</th>
            <th>Embedded</th>
            <th>Style attributes</th>
            <th>Presentational attributes</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((bar) => (
            <tr key={bar.path}>
              <th>{pageName(bar.path)}</th>
              <td>{bar.linked + bar.imported}</td>
              <td>{bar.embedded}</td>
              <td>{bar.attribute}</td>
              <td>{bar.presentational}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

function draw(chart: EChartsType, bars: readonly PageBars[]): void {
  const tokens = getComputedStyle(document.documentElement);
  const colour = (name: string): string => tokens.getPropertyValue(`--${name}`).trim();
  const palette = {
    linked: colour('area-linked'),
    embedded: colour('area-embed'),
    attribute: colour('area-style'),
    presentational: colour('area-pres'),
    ink: colour('ink'),
    ink3: colour('ink-3'),
    line: colour('line'),
  };
  const mostShared = Math.max(1, ...bars.map((bar) => bar.linked + bar.imported));
  const mostLocal = Math.max(1, ...bars.map((bar) => bar.embedded + bar.attribute + bar.presentational));
  chart.setOption({
    animation: false,
    grid: { left: 0, right: 0, top: 0, bottom: 0 },
    xAxis: { type: 'value', min: 0, max: 1, show: false },
    yAxis: { type: 'category', data: bars.map((bar) => bar.path), inverse: true, show: false },
    series: [
      {
        type: 'custom',
        data: bars.map((_, i) => [0, i]),
        renderItem: (params: { dataIndex: number }, api: CustomSeriesRenderItemAPI): CustomSeriesRenderItemReturn => {
          const centre = api.coord([0, params.dataIndex])[1]!;
          return pageShapes(
            bars[params.dataIndex]!,
            { y: centre, width: chart.getWidth(), mostShared, mostLocal },
            palette,
          );
        },
      },
    ],
  });
}
