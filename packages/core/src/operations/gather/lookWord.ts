import { tableOf } from '../../source/tableOf.ts';
import { nearest, differenceEuclidean, parse } from 'culori';
import type { Declaration } from '../../sheet/sheet.ts';

type Word = (value: string) => string;

/** `14` for `14px`, `1-5em`, `80pc` for `80%`; nothing where it is no single length. */
function size(value: string): string {
  const found = /^-?(\d*\.?\d+)(px|em|rem|ex|pt|%|vw|vh|in|cm|mm)?$/i.exec(value.trim());
  if (!found) return '';
  const unit = (found[2] ?? '').toLowerCase().replace('px', '').replace('%', 'pc');
  const number = found[1]!.replace(/^\./, '0.').replace('.', '-');
  return `${value.trim().startsWith('-') ? 'minus-' : ''}${number}${unit}`;
}

/** A word, with the length it is about. */
const sized =
  (word: string): Word =>
  (value) =>
    size(value) === '' ? word : `${word}-${size(value)}`;

/** A word, with all the lengths of a list of at most two. */
const listed =
  (word: string): Word =>
  (value) => {
    const parts = value.trim().split(/\s+/);
    return parts.length <= 2 && parts.every((part) => size(part) !== '') ? [word, ...parts.map(size)].join('-') : word;
  };

const always =
  (word: string): Word =>
  () =>
    word;

/** The keyword itself, where it is a plain word. */
const keyword =
  (word: string): Word =>
  (value) =>
    /^(-webkit-)?[a-z]+$/i.test(value) ? value.toLowerCase().replace('-webkit-', '') : word;

/** What a declaration does, in a word or two; the first that fits counts. */
const looks: readonly (readonly [property: RegExp, value: RegExp, word: Word])[] = [
  [/^display$/, /^none$/i, always('hidden')],
  [/^display$/, /./, keyword('shown')],
  [/^float$/, /^right$/i, always('at-right')],
  [/^float$/, /^left$/i, always('at-left')],
  [/^clear$/, /./, always('cleared')],
  [/^text-align$/, /^(-webkit-)?center$/i, always('centred')],
  [/^text-align$/, /./, keyword('aligned')],
  [/^font-weight$/, /^(bold|bolder|[6-9]00)$/i, always('bold')],
  [/^font-weight$/, /./, always('plain')],
  [/^font-style$/, /^(italic|oblique)/i, always('slanted')],
  [/^text-decoration/, /underline/i, always('underlined')],
  [/^text-decoration/, /^none$/i, always('not-underlined')],
  [/^text-transform$/, /uppercase/i, always('capitals')],
  [/^font-size$/, /./, sized('size')],
  [/^font-family$/, /mono|courier|consolas/i, always('mono')],
  [/^font-family$/, /./, always('lettered')],
  [/^font$/, /./, always('lettered')],
  [/^line-height$/, /./, sized('lines')],
  [/^letter-spacing$/, /./, always('wide-set')],
  [/^color$/, /./, (value) => colourWord(value) ?? 'tinted'],
  [/^background(-color)?$/, /./, (value) => (colourWord(value) === undefined ? 'shaded' : `on-${colourWord(value)!}`)],
  [/^background/, /./, always('shaded')],
  [/^(fill|stroke)$/, /^none$/i, always('')],
  [/^fill$/, /./, (value) => (colourWord(value) === undefined ? 'filled' : `filled-${colourWord(value)!}`)],
  [/^stroke$/, /./, (value) => (colourWord(value) === undefined ? 'drawn' : `drawn-${colourWord(value)!}`)],
  [/^stroke-width$/, /./, sized('pen')],
  [/^border(-(top|right|bottom|left))?$/, /^(0\D*|none)$/i, always('unruled')],
  [/^border-(top|right|bottom|left)(-width)?$/, /./, (value) => sized('ruled')(value)],
  [/^border/, /./, always('ruled')],
  [/^width$/, /./, sized('width')],
  [/^min-width$/, /./, sized('least')],
  [/^max-width$/, /./, sized('most')],
  [/^height$/, /./, sized('height')],
  [/^(min|max)-height$/, /./, sized('height')],
  [/^padding-left$/, /./, sized('indent')],
  [/^padding-/, /./, sized('padded')],
  [/^padding$/, /./, listed('padded')],
  [/^margin-top$/, /./, sized('above')],
  [/^margin-bottom$/, /./, sized('below')],
  [/^margin-left$/, /./, sized('inset')],
  [/^margin-right$/, /./, sized('short')],
  [/^margin$/, /./, listed('spaced')],
  [/^text-indent$/, /./, sized('first-line')],
  [/^vertical-align$/, /./, keyword('raised')],
  [/^white-space$/, /nowrap/i, always('one-line')],
  [/^white-space$/, /./, always('kept-lines')],
  [/^position$/, /./, keyword('placed')],
  [/^list-style/, /none/i, always('unmarked')],
  [/^list-style/, /./, always('marked')],
  [/^overflow/, /./, always('clipped')],
];

/** In a word or two, what a declaration does: `bold`, `indent-14`, `brick`; the property's own name where there is no better word. */
export const lookWord = ({ property, value }: Pick<Declaration, 'property' | 'value'>): string =>
  looks.find(([p, v]) => p.test(property) && v.test(value))?.[2](value) ??
  (/^[a-z][a-z-]{0,15}$/.test(property) ? sized(property)(value) : '');

const colours: Readonly<Record<string, string>> = tableOf({
  black: '#000',
  coal: '#333',
  slate: '#5a6b75',
  grey: '#808080',
  silver: '#c0c0c0',
  pearl: '#eef0f2',
  white: '#fff',
  cream: '#fff6dc',
  sand: '#e4d5b0',
  tan: '#d2b48c',
  gold: '#d4a017',
  yellow: '#ff0',
  lemon: '#fff59a',
  amber: '#ffbf00',
  orange: '#ff8c00',
  rust: '#b7410e',
  brick: '#b0332b',
  red: '#f00',
  maroon: '#800000',
  rose: '#e8506e',
  pink: '#ffc0cb',
  brown: '#7a3b12',
  olive: '#808000',
  lime: '#0f0',
  green: '#008000',
  forest: '#1f4d2b',
  moss: '#8a9a5b',
  mint: '#cdeedd',
  teal: '#0b6b6b',
  aqua: '#0ff',
  sky: '#87ceeb',
  ice: '#dff0f7',
  blue: '#00f',
  azure: '#2a7ae2',
  navy: '#000080',
  ink: '#1d2b33',
  violet: '#8a2be2',
  purple: '#800080',
  plum: '#a05a8a',
  lilac: '#d8c8e8',
  magenta: '#f0f',
  indigo: '#4b0082',
});

const colourNames = Object.keys(colours);

export const isColourWord = (word: string): boolean => Object.hasOwn(colours, word);

const nearestName = nearest(colourNames, differenceEuclidean('oklab'), (name) => colours[name]!);

/** The nearest of some plain names; undefined where the value is no opaque colour. */
function colourWord(value: string): string | undefined {
  const colour = parse(value.trim());
  if (!colour || (colour.alpha ?? 1) < 1) return undefined;
  return nearestName(colour, 1)[0];
}
