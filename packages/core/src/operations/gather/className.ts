import type { Declaration } from '../../sheet/sheet.ts';

/** What people call an element of this kind. */
const roles: Readonly<Record<string, string>> = {
  a: 'link', td: 'cell', th: 'head-cell', tr: 'row', p: 'text', span: 'words', div: 'box', li: 'item', ul: 'list', ol: 'list',
  img: 'picture', h1: 'title', h2: 'heading', h3: 'heading', h4: 'heading', h5: 'heading', h6: 'heading', input: 'field',
  select: 'field', textarea: 'field', b: 'words', i: 'words', em: 'words', strong: 'words', small: 'words', font: 'words', svg: 'drawing', body: 'page', hr: 'line',
  path: 'shape', rect: 'shape', circle: 'shape', ellipse: 'shape', polygon: 'shape', polyline: 'line', line: 'line', g: 'group', text: 'label', tspan: 'label',
}; // prettier-ignore

/** What a declaration does, in a word; the first that fits counts. */
const looks: readonly (readonly [property: RegExp, value: RegExp, word: string])[] = [
  [/^display$/, /^none$/i, 'hidden'],
  [/^float$/, /^right$/i, 'at-right'],
  [/^float$/, /^left$/i, 'at-left'],
  [/^clear$/, /./, 'below'],
  [/^text-align$/, /^right$/i, 'right'],
  [/^text-align$/, /^center$/i, 'centred'],
  [/^text-align$/, /^left$/i, 'left'],
  [/^font-weight$/, /^(bold|bolder|[6-9]00)$/i, 'bold'],
  [/^font-style$/, /^(italic|oblique)/i, 'slanted'],
  [/^text-decoration/, /underline/i, 'underlined'],
  [/^text-transform$/, /uppercase/i, 'capitals'],
  [/^font(-size)?$/, /./, 'sized'],
  [/^font-family$/, /mono/i, 'mono'],
  [/^background/, /./, 'shaded'],
  [/^color$/, /./, 'tinted'],
  [/^fill$/, /^(?!none$)/i, 'filled'],
  [/^stroke$/, /^(?!none$)/i, 'drawn'],
  [/^border/, /./, 'ruled'],
  [/^(min-|max-)?width$/, /./, 'width'],
  [/^(min-|max-)?height$/, /./, 'height'],
  [/^padding/, /./, 'padded'],
  [/^margin/, /./, 'spaced'],
  [/^vertical-align$/, /./, 'aligned'],
  [/^white-space$/, /nowrap/i, 'one-line'],
  [/^position$/, /./, 'placed'],
];

/**
 * A name for the class that takes a style attribute's place, made of what the elements are and how they look: `cell-right`,
 * `heading-shaded`. `taken` holds names in lower case; a number is put after a name that is taken.
 */
export function proposeClassName(
  tags: readonly string[],
  declarations: readonly Declaration[],
  taken: ReadonlySet<string>,
): string {
  const role = new Set(tags.map((tag) => roles[tag] ?? (/^[a-z][a-z-]*$/.test(tag) ? tag : 'part')));
  const words = [
    ...new Set(
      declarations.map(({ property, value }) => looks.find(([p, v]) => p.test(property) && v.test(value))?.[2] ?? ''),
    ),
  ];
  const look = words.filter((word) => word !== '').slice(0, 2);
  const name = [role.size === 1 ? [...role][0]! : 'any', ...(look.length > 0 ? look : ['own'])].join('-');
  if (!taken.has(name)) return name;
  let numbers = numbersOf.get(taken);
  if (!numbers) numbersOf.set(taken, (numbers = new Map<string, number>()));
  // names are only ever added to those taken: the search goes on where it ended
  for (let n = numbers.get(name) ?? 2; ; n++) {
    if (taken.has(`${name}-${n}`)) continue;
    numbers.set(name, n);
    return `${name}-${n}`;
  }
}

/** By set of taken names and name: the number that was free last. */
const numbersOf = new WeakMap<ReadonlySet<string>, Map<string, number>>();

/** A class name a person gave: letters, digits, hyphens and underscores, beginning with a letter, so that no selector needs escapes. */
export const isPlainClassName = (name: string): boolean => /^[A-Za-z][\w-]*$/.test(name);
