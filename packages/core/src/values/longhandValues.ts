import { tableOf } from '../source/tableOf.ts';
import { lowered } from '../source/asciiCase.ts';
import { boxSides } from './boxSides.ts';
import { comparableValue } from './comparableValue.ts';
import { longhandsOf } from './longhands.ts';

/**
 * What each longhand gets from a valid shorthand, in the order of `longhandsOf`, spelled as a declaration of the longhand alone
 * would be; undefined for other properties and for values that cannot be parted safely.
 *
 * CSS Backgrounds and Borders 3, "Line Color, Style, and Width Shorthands", "Backgrounds Shorthand"; CSS Lists 3, "Setting Markers:
 * the list-style shorthand"; CSS Text Decoration 3, "Text Decoration Shorthand"; CSS Flexible Box Layout 1, "Flex Shorthand";
 * CSS Fonts 4, "Shorthand font property". What is left out gets its initial value: CSS Cascading and Inheritance 5, "Shorthand
 * Properties".
 */
export function longhandValues(property: string, comparable: string): readonly string[] | undefined {
  const key = `${property}:${comparable}`;
  let known = memo.get(key);
  if (known === undefined) {
    if (memo.size > 50_000) memo.clear();
    memo.set(key, (known = part(property, comparable) ?? null));
  }
  return known ?? undefined;
}

const memo = new Map<string, readonly string[] | null>();

function part(property: string, comparable: string): readonly string[] | undefined {
  const names = longhandsOf(property);
  if (names.length < 2) return undefined;
  if (/^(initial|inherit|unset)$/.test(comparable)) return names.map(() => comparable);
  const sides = boxSides(property, comparable);
  if (sides) return sides;
  const parts = partsOf(comparable);
  const found = parts && parters[property]?.(parts);
  if (!found) return undefined;
  return names.map((name) => spelled(name, found[name]!));
}

/** Addresses are resolved already. */
const spelled = (longhand: string, value: string): string =>
  value.includes('url(') ? value : comparableValue(longhand, value);

/** Split at white space outside brackets; a comma or a substitution is not for us. */
function partsOf(comparable: string): readonly string[] | undefined {
  const parts = [''];
  let depth = 0;
  let quoted = false;
  for (const c of comparable) {
    if (c === '\\') return undefined;
    if (c === '"') quoted = !quoted;
    if (!quoted && c === '(') depth++;
    if (!quoted && c === ')') depth--;
    if (c === ' ' && depth === 0 && !quoted) parts.push('');
    else parts[parts.length - 1] += c;
  }
  return /(^|[^-\w])(var|env|attr|if|random|inherit|sibling-[a-z]+|--[\w-]*)\(/i.test(comparable) ? undefined : parts;
}

type Found = Readonly<Record<string, string>>;
type Parter = (parts: readonly string[]) => Found | undefined;

const lineStyle = /^(none|hidden|dotted|dashed|solid|double|groove|ridge|inset|outset)$/;
const lineWidth = /^(thin|medium|thick|0|[\d.]+[a-z]+)$/;
const colour = /^(#[0-9a-f]{6}(\/[\d.]+)?|[a-z]+)$/;
const image = /^(none|url\([^()]*\))$/;

/** One part for each, in any order; what is absent gets what stands beside it. */
function each(parts: readonly string[], slots: readonly Slot[]): readonly string[] | undefined {
  const values: (string | undefined)[] = slots.map(() => undefined);
  for (const one of parts) {
    const at = slots.findIndex(([, takes], i) => values[i] === undefined && takes.test(one));
    if (at < 0) return undefined;
    values[at] = one;
  }
  return values.map((value, i) => value ?? slots[i]![0]);
}

type Slot = readonly [initial: string, takes: RegExp];

const line: readonly Slot[] = [
  ['medium', lineWidth],
  ['none', lineStyle],
  ['currentcolor', colour],
];

const lineOf =
  (...names: readonly string[]): Parter =>
  (parts) => {
    const values = each(parts, line);
    return (
      values &&
      Object.fromEntries(
        names.flatMap((name) => ['width', 'style', 'color'].map((what, i) => [`${name}-${what}`, values[i]!])),
      )
    );
  };

const sides = ['top', 'right', 'bottom', 'left'];
/** What `border` resets besides. */
export const borderImageReset: Found = {
  'border-image-source': 'none',
  'border-image-slice': '100%',
  'border-image-width': '1',
  'border-image-outset': '0',
  'border-image-repeat': 'stretch',
};

function border(parts: readonly string[]): Found | undefined {
  const lines = lineOf(...sides.map((side) => `border-${side}`))(parts);
  return lines && { ...lines, ...borderImageReset };
}

function outline(parts: readonly string[]): Found | undefined {
  const values = each(parts, [
    line[0]!,
    ['none', /^(none|auto|dotted|dashed|solid|double|groove|ridge|inset|outset)$/],
    ['', colour],
  ]);
  // an absent colour is the outline's own, on which browsers do not agree
  if (!values || values[2] === '') return undefined;
  return { 'outline-width': values[0]!, 'outline-style': values[1]!, 'outline-color': values[2]! };
}

const radius: Parter = (parts) => {
  if (parts.length > 4 || parts.some((one) => !/^(0|[\d.]+([a-z]+|%))$/.test(one))) return undefined;
  const [a, b = a, c = a, d = b] = parts;
  return {
    'border-top-left-radius': a!,
    'border-top-right-radius': b!,
    'border-bottom-right-radius': c!,
    'border-bottom-left-radius': d!,
  };
};

/** `none` may be the image or the marker: only alone, where it is both. */
function listStyle(parts: readonly string[]): Found | undefined {
  const types = /^(disc|circle|square|decimal|decimal-leading-zero|(lower|upper)-(roman|latin|alpha|greek))$/;
  const alone = parts.length === 1 && parts[0] === 'none';
  const values = alone
    ? ['outside', 'none', 'none']
    : each(parts, [
        ['outside', /^(inside|outside)$/],
        ['none', /^url\([^()]*\)$/],
        ['disc', types],
      ]);
  return values && { 'list-style-position': values[0]!, 'list-style-image': values[1]!, 'list-style-type': values[2]! };
}

function textDecoration(parts: readonly string[]): Found | undefined {
  const values = each(parts, [
    ['none', /^(none|underline|overline|line-through)$/],
    ['auto', /^(from-font|[\d.]+(px|em))$/],
    ['solid', /^(solid|double|dotted|dashed|wavy)$/],
    ['currentcolor', /^(#[0-9a-f]{6}(\/[\d.]+)?|currentcolor)$/],
  ]);
  return (
    values && {
      'text-decoration-line': values[0]!,
      'text-decoration-thickness': values[1]!,
      'text-decoration-style': values[2]!,
      'text-decoration-color': values[3]!,
    }
  );
}

const pair =
  (first: string, second: string, takes: RegExp): Parter =>
  (parts) =>
    parts.length <= 2 && parts.every((one) => takes.test(one))
      ? { [first]: parts[0]!, [second]: parts[1] ?? parts[0]! }
      : undefined;

function flex(parts: readonly string[]): Found | undefined {
  const [first, ...rest] = parts;
  const made = (grow: string, shrink: string, basis: string): Found => ({
    'flex-grow': grow,
    'flex-shrink': shrink,
    'flex-basis': basis,
  });
  if (parts.length === 1 && first === 'none') return made('0', '0', 'auto');
  if (parts.length === 1 && first === 'auto') return made('1', '1', 'auto');
  const isNumber = (text: string | undefined): boolean => text !== undefined && /^\d+(\.\d+)?$/.test(text);
  if (!isNumber(first)) return undefined;
  if (rest.length === 0) return made(first!, '1', '0%');
  if (rest.length === 2 && isNumber(rest[0]) && /^(auto|[\d.]+(px|em|%))$/.test(rest[1]!))
    return made(first!, rest[0]!, rest[1]!);
  return undefined;
}

const flexFlow: Parter = (parts) => {
  const values = each(parts, [
    ['row', /^(row|column)(-reverse)?$/],
    ['nowrap', /^(nowrap|wrap|wrap-reverse)$/],
  ]);
  return values && { 'flex-direction': values[0]!, 'flex-wrap': values[1]! };
};

/** One layer, without a size and boxes. */
function background(parts: readonly string[]): Found | undefined {
  if (parts.some((one) => /[,/]$|^[,/]/.test(one))) return undefined;
  const rest: string[] = [];
  const places: string[] = [];
  let repeat: string | undefined;
  for (const one of parts) {
    if (/^(left|right|top|bottom|center|0|-?[\d.]+(px|em|%))$/.test(one)) places.push(one);
    else if (/^(repeat|no-repeat|repeat-x|repeat-y)$/.test(one) && repeat === undefined) repeat = one;
    else rest.push(one);
  }
  const place = placeOf(places);
  const values = each(rest, [
    ['none', image],
    ['scroll', /^(scroll|fixed|local)$/],
    ['#000000/0', colour],
  ]);
  if (!values || !place) return undefined;
  return {
    'background-image': values[0]!,
    'background-position-x': place[0],
    'background-position-y': place[1],
    'background-size': 'auto',
    'background-repeat': repeat ?? 'repeat',
    'background-attachment': values[1]!,
    'background-origin': 'padding-box',
    'background-clip': 'border-box',
    'background-color': values[2]!,
  };
}

/** CSS Values and Units 4, "2D Positioning: the position type": one or two parts; keywords in either order. */
function placeOf(parts: readonly string[]): readonly [string, string] | undefined {
  if (parts.length === 0) return ['0%', '0%'];
  if (parts.length > 2) return undefined;
  const isVertical = (one: string): boolean => one === 'top' || one === 'bottom';
  const isSide = (one: string): boolean => one === 'left' || one === 'right';
  const [first, second = 'center'] = parts as [string, string?];
  if (isVertical(first) || isSide(second)) return isSide(first) || isVertical(second) ? undefined : [second, first];
  return [first, second];
}

/** What `font` resets besides. */
export const fontReset: Found = {
  'font-variant-ligatures': 'normal',
  'font-variant-numeric': 'normal',
  'font-variant-east-asian': 'normal',
  'font-variant-alternates': 'normal',
  'font-variant-position': 'normal',
  'font-variant-emoji': 'normal',
  'font-optical-sizing': 'auto',
  'font-size-adjust': 'none',
  'font-kerning': 'auto',
  'font-feature-settings': 'normal',
  'font-variation-settings': 'normal',
  'font-language-override': 'normal',
};

const fontSize =
  /^(xx-small|x-small|small|medium|large|x-large|xx-large|smaller|larger|[\d.]+(px|em|rem|ex|pt|pc|in|cm|mm|%))(?:\/(normal|[\d.]+(px|em|rem|ex|pt|%)?))?$/;

function font(parts: readonly string[]): Found | undefined {
  const at = parts.findIndex((one) => fontSize.test(lowered(one)));
  if (at < 0 || at === parts.length - 1) return undefined;
  const [, size, , height = 'normal'] = fontSize.exec(lowered(parts[at]!))!;
  const before = parts
    .slice(0, at)
    .map((one) => lowered(one))
    .filter((one) => one !== 'normal');
  const values = each(before, [
    ['normal', /^(italic|oblique)$/],
    ['normal', /^small-caps$/],
    ['normal', /^(bold|bolder|lighter|[1-9]00)$/],
  ]);
  const family = parts.slice(at + 1).join(' ');
  if (!values || family === '' || /^\//.test(family)) return undefined;
  return {
    ...fontReset,
    'font-style': values[0]!,
    'font-variant-caps': values[1]!,
    'font-weight': values[2]!,
    'font-stretch': 'normal',
    'font-size': size!,
    'line-height': height,
    'font-family': family,
  };
}

const parters: Readonly<Record<string, Parter>> = tableOf({
  border,
  ...Object.fromEntries(sides.map((side) => [`border-${side}`, lineOf(`border-${side}`)])),
  'column-rule': lineOf('column-rule'),
  outline,
  'border-radius': radius,
  'list-style': listStyle,
  'text-decoration': textDecoration,
  gap: pair('row-gap', 'column-gap', /^(normal|0|[\d.]+([a-z]+|%))$/),
  overflow: pair('overflow-x', 'overflow-y', /^(visible|hidden|clip|scroll|auto)$/),
  flex,
  'flex-flow': flexFlow,
  background,
  font,
});
