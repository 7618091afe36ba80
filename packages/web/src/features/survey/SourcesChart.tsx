import { useEffect, useMemo, useRef } from 'react';
import { CustomChart } from 'echarts/charts';
import { GridComponent } from 'echarts/components';
import type { CustomSeriesRenderItemAPI, CustomSeriesRenderItemReturn } from 'echarts';
import { init, use as register, type EChartsType } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import type { SurveyReply } from '@syndeton/contract';
import { Act } from '../../ui/Act.tsx';
import { downloadText } from '../../ui/downloadText.ts';
import { count, pageName } from '../../ui/format.ts';
import { tokenColour } from '../../ui/tokenColour.ts';
import { useTheme } from '../../ui/theme.ts';
import { barsFor, csvOf, rowsOf, sortings, type BarRow, type Sorting } from './barsFor.ts';
import { pageShapes } from './pageShapes.ts';

register([CustomChart, GridComponent, SVGRenderer]);

const rowHeight = 20;
/** More pages than this share rows. */
const mostRows = 80;

interface Props {
  readonly pages: readonly SurveyReply['pages'][number][];
  readonly sorting: Sorting;
  readonly onSort: (sorting: Sorting) => void;
  /** One page opens; several become the scope, and the chart shows them one by one. */
  readonly onChoose: (pages: readonly string[]) => void;
}

/** Bars both ways from one line: shared to the left, still in the page to the right. */
export function SourcesChart({ pages, sorting, onSort, onChoose }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const [theme] = useTheme();
  const bars = useMemo(() => barsFor(pages, sorting), [pages, sorting]);
  const rows = useMemo(() => rowsOf(bars, mostRows), [bars]);
  const choose = useRef(onChoose);
  useEffect(() => {
    choose.current = onChoose;
  });
  useEffect(() => {
    const chart = init(box.current, undefined, { renderer: 'svg' });
    chart.on('click', (event) => choose.current(rows[event.dataIndex]!.pages));
    draw(chart, rows);
    const observer = new ResizeObserver(() => {
      chart.resize();
      draw(chart, rows);
    });
    observer.observe(box.current!);
    return () => {
      observer.disconnect();
      chart.dispose();
    };
  }, [rows, theme]);
  const shared = rows.some((row) => row.pages.length > 1);
  return (
    <>
      <div className="flex items-baseline gap-4 pb-1 text-note text-ink-3">
        <span className="w-[59%] text-right">shared, from sheets</span>
        <span>still in the page, kB</span>
      </div>
      <div
        ref={box}
        style={{ height: rows.length * rowHeight + 8 }}
        role="img"
        aria-label={`Bytes of styling by source on ${count(pages.length, 'page')}; the table after it has the numbers`}
      />
      <div className="flex flex-wrap items-baseline gap-x-4 pt-2 text-note text-ink-3">
        <span>
          sorted by{' '}
          {sortings.map((name) => (
            <button
              key={name}
              type="button"
              className={`mx-1 ${name === sorting ? 'font-semibold text-ink shadow-under' : 'text-ink-2'}`}
              aria-pressed={name === sorting}
              onClick={() => onSort(name)}
            >
              {name}
            </button>
          ))}
        </span>
        {shared && (
          <span>each row is the average of {count(rows[0]!.pages.length, 'page')}; choose one to see them singly</span>
        )}
        <Act className="ml-auto" onClick={() => downloadText('styling-by-page.csv', 'text/csv', csvOf(bars))}>
          The numbers as CSV
        </Act>
      </div>
      <table className="sr-only">
        <caption>Bytes of styling by page</caption>
        <thead>
          <tr>
            <th>{shared ? 'Pages' : 'Page'}</th>
            <th>From sheets</th>
            <th>Embedded</th>
            <th>Style attributes</th>
            <th>Presentational attributes</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.path}>
              <th>{rowName(row)}</th>
              <td>{row.linked + row.imported}</td>
              <td>{row.embedded}</td>
              <td>{row.attribute}</td>
              <td>{row.presentational}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

const rowName = ({ pages }: BarRow): string =>
  pages.length === 1 ? pageName(pages[0]!) : `${pageName(pages[0]!)} and ${pages.length - 1} more`;

function draw(chart: EChartsType, rows: readonly BarRow[]): void {
  const palette = {
    linked: tokenColour('area-linked'),
    embedded: tokenColour('area-embed'),
    attribute: tokenColour('area-style'),
    presentational: tokenColour('area-pres'),
    ink: tokenColour('ink'),
    ink3: tokenColour('ink-3'),
    line: tokenColour('line'),
  };
  const mostShared = Math.max(1, ...rows.map((row) => row.linked + row.imported));
  const mostLocal = Math.max(1, ...rows.map((row) => row.embedded + row.attribute + row.presentational));
  chart.setOption({
    animation: false,
    grid: { left: 0, right: 0, top: 0, bottom: 0 },
    xAxis: { type: 'value', min: 0, max: 1, show: false },
    yAxis: { type: 'category', data: rows.map((row) => row.path), inverse: true, show: false },
    series: [
      {
        type: 'custom',
        data: rows.map((_, i) => [0, i]),
        renderItem: (params: { dataIndex: number }, api: CustomSeriesRenderItemAPI): CustomSeriesRenderItemReturn => {
          const row = rows[params.dataIndex]!;
          const centre = api.coord([0, params.dataIndex])[1]!;
          const room = { y: centre, width: chart.getWidth(), mostShared, mostLocal };
          return pageShapes(row, rowName(row), room, palette);
        },
      },
    ],
  });
}
