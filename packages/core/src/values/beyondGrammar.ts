import { lowered } from '../source/asciiCase.ts';
import { trimmed } from '../source/space.ts';
import { unescapeCss } from './unescape.ts';

/** What a grammar cannot say: values that the lexer takes and every browser drops; `value` as `plainlySpaced` gives it. */
export function isRefusedBeyondGrammar(property: string, value: string): boolean {
  const text = lowered(value).replace(/\([^()]*\)/g, '()');
  return (
    refused.some(([name, pattern]) => name.test(property) && pattern.test(text)) ||
    (/^grid(-template(-areas)?)?$/.test(property) && !isRectangular(value)) ||
    (property === 'font-variation-settings' && stringsOf(value).some((tag) => !/^[ -~]{4}$/.test(tag)))
  );
}

/** Against a value in lower case whose functions are empty. validityOracle.test.ts asks Chromium. */
const refused: readonly (readonly [property: RegExp, value: RegExp])[] = [
  [/^(-webkit-)?(animation|transition)-duration$/, /(^|[ ,])-[\d.]/],
  [/^(-webkit-)?(animation|transition)$/, /(^|,)[^,]*(?<![-\w])-[\d.]+m?s\b[^,]*(?<![-\w])-[\d.]+m?s\b/],
  // the first word that can be a count is one, and there is one count
  [/^(-webkit-)?animation$/, /\binfinite [^,]*(?<![-\w.#])\d*\.?\d+(e\d+)?(?![-\w%.])/],
  [/^(-webkit-)?flex$/, /^([-+.e\d]+ ){2}(?![-+]?0(\.0*)?$)[-+.e\d]+$/],
  [/^(-webkit-)?transition(-property)?$/, /(^|[ ,])none\b.*,|,.*[ ,]none\b/],
  [/^grid-(area|row|column)/, /\bauto ([-+]?\d|span)|(\d|\bspan) auto\b|\bspan\b[^/]*\bspan\b/],
  [/^color-scheme$/, /. normal\b|\bnormal .|\bonly\b.*\bonly\b|. only ./],
  [/^contain$/, /\bsize\b.*\bsize\b/],
];

const stringsOf = (value: string): readonly string[] =>
  [...value.matchAll(/"((?:\\[^]|[^"])*)"|'((?:\\[^]|[^'])*)'/g)].map((found) => unescapeCss(found[1] ?? found[2]!));

const cellName = /^(\.+|[-\w\u0080-\u{10FFFF}]+)$/u;

/** CSS Grid 1, "Named Areas: the grid-template-areas property": rows of as many cells, each name one rectangle. */
function isRectangular(value: string): boolean {
  const rows = stringsOf(value).map((row) => trimmed(row).split(/[\t\n\f\r ]+/));
  if (rows.some((row) => row.length !== rows[0]!.length || row.some((cell) => !cellName.test(cell)))) return false;
  const areas = new Map<string, [top: number, left: number, bottom: number, right: number, cells: number]>();
  rows.forEach((row, y) =>
    row.forEach((name, x) => {
      if (/^\.+$/.test(name)) return;
      const area = areas.get(name);
      if (!area) areas.set(name, [y, x, y, x, 1]);
      else areas.set(name, [area[0], Math.min(area[1], x), y, Math.max(area[3], x), area[4] + 1]);
    }),
  );
  return [...areas.values()].every(
    ([top, left, bottom, right, cells]) => (bottom - top + 1) * (right - left + 1) === cells,
  );
}
