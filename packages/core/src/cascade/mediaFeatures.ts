import { tableOf } from '../source/tableOf.ts';
import { lowered } from '../source/asciiCase.ts';
import { ident } from 'css-tree';
import { tokenTypes as T } from '../sheet/tokens.ts';
import { nameAt, subpart, textAt, textOfPart, typeAt, type Part } from './conditionTree.ts';
import type { Environment } from './environment.ts';

type Unit = 'length' | 'integer' | 'number' | 'ratio' | 'resolution';

interface RangeFeature {
  readonly unit: Unit;
  readonly actual: (environment: Environment) => number;
  /** Whether `min-` and `max-` may stand before the name; `-webkit-` where they stand inside it. */
  readonly prefixes?: false | '-webkit-';
}

interface DiscreteFeature {
  readonly values: readonly string[];
  readonly actual: (environment: Environment) => string;
}

const printed =
  <A>(print: A, screen: A) =>
  (environment: Environment): A =>
    environment.medium === 'print' ? print : screen;
const always =
  <A>(value: A) =>
  (): A =>
    value;
const ratio = ({ width, height }: Environment): number => width / height;

/** Dots per CSS pixel: one on a plain screen; Chromium prints at 300 dpi. */
const resolution = printed(300 / 96, 1);

/** Media Queries 4 and 5, "Media Feature Types": what Chromium knows, on a desk with a mouse and no special wishes set. */
const ranges: Readonly<Record<string, RangeFeature>> = tableOf({
  width: { unit: 'length', actual: (e) => e.width },
  height: { unit: 'length', actual: (e) => e.height },
  'device-width': { unit: 'length', actual: (e) => e.width },
  'device-height': { unit: 'length', actual: (e) => e.height },
  'aspect-ratio': { unit: 'ratio', actual: ratio },
  'device-aspect-ratio': { unit: 'ratio', actual: ratio },
  resolution: { unit: 'resolution', actual: resolution },
  '-webkit-device-pixel-ratio': { unit: 'number', actual: resolution, prefixes: '-webkit-' },
  color: { unit: 'integer', actual: always(8) },
  'color-index': { unit: 'integer', actual: always(0) },
  monochrome: { unit: 'integer', actual: always(0) },
  'horizontal-viewport-segments': { unit: 'integer', actual: always(1), prefixes: false },
  'vertical-viewport-segments': { unit: 'integer', actual: always(1), prefixes: false },
});

const pointers = { values: ['none', 'coarse', 'fine'], actual: always('fine') };
const hovers = { values: ['none', 'hover'], actual: always('hover') };
const reduce = { values: ['no-preference', 'reduce'], actual: always('no-preference') };
const displayModes = ['browser', 'fullscreen', 'standalone', 'minimal-ui', 'window-controls-overlay', 'picture-in-picture', 'tabbed', 'borderless']; // oxfmt-ignore

const discretes: Readonly<Record<string, DiscreteFeature>> = tableOf({
  pointer: pointers,
  'any-pointer': pointers,
  hover: hovers,
  'any-hover': hovers,
  'color-gamut': { values: ['srgb', 'p3', 'rec2020'], actual: always('srgb') },
  'device-posture': { values: ['continuous', 'folded'], actual: always('continuous') },
  'display-mode': { values: displayModes, actual: always('browser') },
  'dynamic-range': { values: ['standard', 'high'], actual: always('standard') },
  'forced-colors': { values: ['none', 'active'], actual: always('none') },
  grid: { values: ['0', '1'], actual: always('0') },
  orientation: { values: ['portrait', 'landscape'], actual: (e) => (e.height >= e.width ? 'portrait' : 'landscape') },
  'overflow-block': { values: ['none', 'scroll', 'paged'], actual: printed('paged', 'scroll') },
  'overflow-inline': { values: ['none', 'scroll'], actual: printed('none', 'scroll') },
  'prefers-color-scheme': { values: ['light', 'dark'], actual: always('light') },
  'prefers-contrast': { values: ['no-preference', 'more', 'less', 'custom'], actual: always('no-preference') },
  'prefers-reduced-motion': reduce,
  'prefers-reduced-transparency': reduce,
  scan: { values: ['interlace', 'progressive'], actual: always('none') },
  scripting: { values: ['none', 'initial-only', 'enabled'], actual: always('enabled') },
  update: { values: ['none', 'slow', 'fast'], actual: printed('none', 'fast') },
});

/** `unknown` is a feature or value browsers do not know; `unsure` a calculation or unit that is not worked out here. */
export type FeatureAnswer = boolean | 'unknown' | 'unsure';

/** Whether what stands in the parentheses holds. Media Queries 4, "Evaluating Media Features". */
export function evaluateFeature(part: Part, environment: Environment): FeatureAnswer {
  const name = nameAt(part, part.from);
  if (name !== '' && part.to === part.from + 1) return evaluateBoolean(name, environment);
  if (name !== '' && typeAt(part, part.from + 1) === T.Colon)
    return evaluatePlain(name, subpart(part, part.from + 2), environment);
  return evaluateRange(part, environment);
}

function evaluateBoolean(name: string, environment: Environment): FeatureAnswer {
  if (name === '-webkit-transform-3d') return true;
  const range = ranges[name];
  if (range) return range.actual(environment) !== 0;
  const discrete = discretes[name];
  if (!discrete) return 'unknown';
  return !['none', 'no-preference', '0'].includes(discrete.actual(environment));
}

function evaluatePlain(name: string, value: Part, environment: Environment): FeatureAnswer {
  const discrete = discretes[name];
  if (discrete) {
    const only = value.to === value.from + 1 ? value.from : undefined;
    if (only === undefined) return 'unknown';
    const said = typeAt(value, only) === T.Number ? String(Number(textAt(value, only)) || 0) : nameAt(value, only);
    return discrete.values.includes(said) ? said === discrete.actual(environment) : 'unknown';
  }
  if (name === '-webkit-transform-3d')
    return compareTo(value, 'number', (wanted) => Math.trunc(wanted) === 1, environment);
  if (ranges[name])
    return compareTo(value, ranges[name].unit, signs['=']!(ranges[name].actual(environment)), environment);
  const prefixed = /^(-webkit-)?(min|max)-(.*)$/.exec(name);
  const range = prefixed && ranges[`${prefixed[1] ?? ''}${prefixed[3]!}`];
  if (!range || range.prefixes === false || range.prefixes !== prefixed[1]) return 'unknown';
  return compareTo(
    value,
    range.unit,
    signs[prefixed[2] === 'min' ? '>=' : '<=']!(range.actual(environment)),
    environment,
  );
}

/** By sign: a test of a wanted value against the actual one. */
const signs: Readonly<Record<string, (actual: number) => (wanted: number) => boolean>> = {
  '<': (actual) => (wanted) => actual < wanted,
  '<=': (actual) => (wanted) => actual <= wanted,
  '>': (actual) => (wanted) => actual > wanted,
  '>=': (actual) => (wanted) => actual >= wanted,
  '=': (actual) => (wanted) => Math.abs(actual - wanted) < 1e-6,
};
const flipped: Readonly<Record<string, string>> = { '<': '>', '<=': '>=', '>': '<', '>=': '<=', '=': '=' };

function evaluateRange(part: Part, environment: Environment): FeatureAnswer {
  const sides: Part[] = [];
  const found: string[] = [];
  let from = part.from;
  for (let i = part.from; i < part.to; i++) {
    if (typeAt(part, i) !== T.Delim || !/[<>=]/.test(textAt(part, i))) continue;
    sides.push(subpart(part, from, i));
    const joined =
      textAt(part, i) !== '=' && i + 1 < part.to && textAt(part, i + 1) === '=' && !spaceBefore(part, i + 1);
    found.push(joined ? `${textAt(part, i)}=` : textAt(part, i));
    if (joined) i++;
    from = i + 1;
  }
  sides.push(subpart(part, from));
  if (found.length === 2) {
    const [left, middle, right] = sides as [Part, Part, Part];
    const [first, second] = found as [string, string];
    if (first === '=' || second === '=' || first[0] !== second[0]) return 'unknown';
    const answers = [oneSide(middle, flipped[first]!, left, environment), oneSide(middle, second, right, environment)];
    return (
      answers.find((a) => a === 'unknown') ??
      answers.find((a) => a === false) ??
      answers.find((a) => a === 'unsure') ??
      true
    );
  }
  if (found.length !== 1) return 'unknown';
  const [left, right] = sides as [Part, Part];
  const answer = oneSide(left, found[0]!, right, environment);
  return answer === 'unknown' ? oneSide(right, flipped[found[0]!]!, left, environment) : answer;
}

function spaceBefore(part: Part, i: number): boolean {
  const between = part.tokens.text.slice(part.tokens.end[part.list[i - 1]!], part.tokens.start[part.list[i]!]);
  return /[\t\n\f\r ]/.test(between.replace(/\/\*[^]*?\*\//g, ''));
}

function oneSide(name: Part, sign: string, value: Part, environment: Environment): FeatureAnswer {
  const range = name.to === name.from + 1 ? ranges[nameAt(name, name.from)] : undefined;
  if (!range) return 'unknown';
  return compareTo(value, range.unit, signs[sign]!(range.actual(environment)), environment);
}

const unitPixels: Readonly<Record<string, (e: Environment) => number>> = {
  px: always(1),
  em: always(16),
  rem: always(16),
  pt: always(96 / 72),
  pc: always(16),
  in: always(96),
  cm: always(96 / 2.54),
  mm: always(9.6 / 2.54),
  q: always(2.4 / 2.54),
  vw: (e) => e.width / 100,
  vh: (e) => e.height / 100,
  vi: (e) => e.width / 100,
  vb: (e) => e.height / 100,
  vmin: (e) => Math.min(e.width, e.height) / 100,
  vmax: (e) => Math.max(e.width, e.height) / 100,
};
/** Lengths that hang on the font in use. */
const fontUnits = /^(r?(ex|ch|cap|ic|lh)|[sld]v(w|h|i|b|min|max))$/;
const unitDots: Readonly<Record<string, number>> = tableOf({ dppx: 1, x: 1, dpi: 1 / 96, dpcm: 2.54 / 96 });

function compareTo(
  value: Part,
  unit: Unit,
  test: (wanted: number) => boolean,
  environment: Environment,
): FeatureAnswer {
  const wanted = quantity(value, unit, environment);
  return typeof wanted === 'number' ? test(wanted) : wanted;
}

function quantity(value: Part, unit: Unit, environment: Environment): number | 'unknown' | 'unsure' {
  const count = value.to - value.from;
  if (typeAt(value, value.from) === T.Function)
    return /^-?[a-z-]*(calc|min|max|clamp|round|mod|rem|abs|sign|sin|cos|tan|hypot|pow|sqrt|exp|log)\(/i.test(
      textOfPart(value),
    )
      ? 'unsure'
      : 'unknown';
  if (unit === 'ratio' && count === 3 && textAt(value, value.from + 1) === '/') {
    const [over, under] = [numberAt(value, value.from), numberAt(value, value.from + 2)];
    if (over === undefined || under === undefined || over < 0 || under < 0) return 'unknown';
    return over / under || (over === 0 && under === 0 ? Infinity : 0);
  }
  if (count !== 1) return 'unknown';
  const type = typeAt(value, value.from);
  if (type === T.Dimension) return dimension(textAt(value, value.from), unit, environment);
  const number = numberAt(value, value.from);
  if (number === undefined) return 'unknown';
  switch (unit) {
    case 'length':
      return number === 0 ? 0 : 'unknown';
    case 'integer':
      return /^[+-]?\d+$/.test(textAt(value, value.from)) ? number : 'unknown';
    case 'resolution':
      return 'unknown';
    case 'ratio':
      return number < 0 ? 'unknown' : number;
    case 'number':
      return number;
  }
}

const numberAt = (part: Part, i: number): number | undefined =>
  typeAt(part, i) === T.Number ? Number(textAt(part, i)) : undefined;

function dimension(text: string, wanted: Unit, environment: Environment): number | 'unknown' | 'unsure' {
  const found = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)(.*)$/i.exec(text);
  if (!found) return 'unknown';
  const [number, unit] = [Number(found[1]), lowered(ident.decode(found[2]!))];
  // where a ratio is wanted Chromium takes a dimension for the number it comes to
  if (wanted === 'ratio')
    return number < 0 ? 'unknown' : unit in unitDots ? number * unitDots[unit]! : unit === 'px' ? number : 'unsure';
  if (wanted === 'length') {
    const pixels = unitPixels[unit];
    return pixels ? number * pixels(environment) : fontUnits.test(unit) ? 'unsure' : 'unknown';
  }
  if (wanted === 'resolution') {
    const dots = unitDots[unit];
    return dots === undefined || number < 0 ? 'unknown' : number * dots;
  }
  return 'unknown';
}

/** Every name a feature may be written by. */
export const featureNames: readonly string[] = [
  ...Object.keys(discretes),
  ...Object.entries(ranges).flatMap(([name, { prefixes = '' }]) => {
    if (prefixes === false) return [name];
    const bare = name.slice(prefixes.length);
    return [name, `${prefixes}min-${bare}`, `${prefixes}max-${bare}`];
  }),
];
