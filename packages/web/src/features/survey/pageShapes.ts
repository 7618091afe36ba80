import type { CustomSeriesRenderItemReturn } from 'echarts';
import { localBytes, type PageBars } from './barsFor.ts';

interface Room {
  readonly y: number;
  readonly width: number;
  readonly mostShared: number;
  readonly mostLocal: number;
}

type Palette = Readonly<
  Record<'linked' | 'embedded' | 'attribute' | 'presentational' | 'ink' | 'ink3' | 'line', string>
>;
type Shape = Exclude<CustomSeriesRenderItemReturn, null | undefined>;

const half = 5.5;

/**
 * The shapes of one page's row: its name, square-ended bars of sheets to the left, to the right a bar with pointed ends for
 * blocks, a row of triangles for style attributes, a thin line for presentational attributes, and the sum.
 */
export function pageShapes(bars: PageBars, name: string, room: Room, palette: Palette): Shape {
  const { y, width } = room;
  const zero = Math.round(width * 0.59);
  const names = Math.round(width * 0.29);
  const shared = (zero - names - 10) / room.mostShared;
  const local = (width - zero - 46) / room.mostLocal;
  const children: Shape[] = [
    { type: 'rect', shape: { x: 0, y: y - 10, width, height: 20 }, style: { fill: 'transparent' } },
    text(names, y, shortened(name, names), palette.ink, 'right', true),
    {
      type: 'line',
      shape: { x1: zero, y1: y - 10, x2: zero, y2: y + 10 },
      style: { stroke: palette.ink, lineWidth: 1 },
      silent: true,
    },
    ...sharedShapes(bars, zero - 1, y, shared, palette),
  ];
  const right = localShapes(bars, zero + 3, y, local, palette);
  children.push(...right.shapes, text(right.end + 5, y, thousands(localBytes(bars)), palette.ink3, 'left', false));
  return { type: 'group', children };
}

/** Bytes in thousands; little is not nothing. */
const thousands = (bytes: number): string =>
  bytes > 0 && bytes < 50 ? '< 0.1' : bytes === 0 ? '0' : (bytes / 1000).toFixed(1);

function sharedShapes(bars: PageBars, edge: number, y: number, scale: number, palette: Palette): Shape[] {
  if (bars.linked + bars.imported === 0)
    return [text(edge - 7, y, 'no sheet reaches it', palette.ink3, 'right', false)];
  const linked = bars.linked * scale;
  const imported = bars.imported * scale;
  const shapes: Shape[] = [];
  if (linked > 0)
    shapes.push({
      type: 'rect',
      shape: { x: edge - linked, y: y - half, width: linked, height: half * 2 },
      style: { fill: palette.linked },
      silent: true,
    });
  if (imported > 0)
    shapes.push({
      type: 'rect',
      shape: {
        x: edge - linked - imported + 1,
        y: y - half + 0.8,
        width: Math.max(imported - 1, 1),
        height: half * 2 - 1.6,
      },
      style: { fill: 'none', stroke: palette.linked, lineWidth: 1.6 },
      silent: true,
    });
  return shapes;
}

function localShapes(
  bars: PageBars,
  start: number,
  y: number,
  scale: number,
  palette: Palette,
): { shapes: Shape[]; end: number } {
  const shapes: Shape[] = [];
  let x = start;
  if (bars.embedded > 0) {
    const width = Math.max(bars.embedded * scale, half * 2);
    const points = [
      [x, y],
      [x + half, y - half],
      [x + width - half, y - half],
      [x + width, y],
      [x + width - half, y + half],
      [x + half, y + half],
    ];
    shapes.push({ type: 'polygon', shape: { points }, style: { fill: palette.embedded }, silent: true });
    x += width + 2;
  }
  if (bars.attribute > 0) {
    const triangles = Math.max(1, Math.round((bars.attribute * scale) / 9.6));
    for (let i = 0; i < triangles; i++, x += 9.6)
      shapes.push({
        type: 'polygon',
        shape: {
          points: [
            [x, y + 5],
            [x + 4.5, y - 5],
            [x + 9, y + 5],
          ],
        },
        style: { fill: palette.attribute },
        silent: true,
      });
  }
  if (bars.presentational > 0) {
    const width = Math.max(bars.presentational * scale, 4);
    shapes.push({
      type: 'rect',
      shape: { x: x + 1, y: y - 1.5, width, height: 3 },
      style: { fill: palette.presentational },
      silent: true,
    });
    x += width + 2;
  }
  return { shapes, end: x };
}

function text(x: number, y: number, words: string, fill: string, align: 'left' | 'right', mono: boolean): Shape {
  const tokens = getComputedStyle(document.documentElement);
  const family = tokens.getPropertyValue(mono ? '--font-code' : '--font-ui');
  return {
    type: 'text',
    style: { x, y, text: words, fill, align, verticalAlign: 'middle', font: `12px ${family}` },
    silent: true,
  };
}

/** Long names keep their end, where pages of one folder differ. A letter of the code font at 12px is 7.7px wide. */
function shortened(name: string, room: number): string {
  const most = Math.max(6, Math.floor(room / 7.7));
  return name.length > most ? `…${name.slice(1 - most)}` : name;
}
