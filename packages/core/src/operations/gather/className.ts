import { tableOf } from '../../source/tableOf.ts';
import type { Declaration } from '../../sheet/sheet.ts';
import { isColourWord, lookWord } from './lookWord.ts';

/** What people call an element of this kind. */
const roles: Readonly<Record<string, string>> = tableOf({
  a: 'link',
  td: 'cell',
  th: 'head-cell',
  tr: 'row',
  p: 'text',
  span: 'words',
  div: 'box',
  li: 'item',
  ul: 'list',
  ol: 'list',
  img: 'picture',
  h1: 'title',
  h2: 'heading',
  h3: 'heading',
  h4: 'heading',
  h5: 'heading',
  h6: 'heading',
  input: 'field',
  select: 'field',
  textarea: 'field',
  b: 'words',
  i: 'words',
  em: 'words',
  strong: 'words',
  small: 'words',
  font: 'words',
  svg: 'drawing',
  body: 'page',
  hr: 'line',
  path: 'shape',
  rect: 'shape',
  circle: 'shape',
  ellipse: 'shape',
  polygon: 'shape',
  polyline: 'line',
  line: 'line',
  g: 'group',
  text: 'label',
  tspan: 'label',
});

/** A name says so much of a look. */
const mostWords = 3;
const mostLetters = 40;

/**
 * A name for the class that takes a style attribute's place, made of what the elements are and what it does: `cell-right`,
 * `words-brick`, `text-indent-14`. `taken` holds names in lower case, `likes` all looks that get a name; a number is put after one only where nothing else tells two
 * looks apart.
 */
export function proposeClassName(
  tags: readonly string[],
  declarations: readonly Declaration[],
  taken: ReadonlySet<string>,
  likes?: Likes,
): string {
  const role = rolesOf(tags);
  const words = wordsOf(declarations);
  const telling = words.filter((word) => !likes?.isCommon(role, word));
  const looks = telling.length > 0 ? telling : words.length > 0 ? words : ['own'];
  // a colour by itself says little
  const head = role.size === 1 ? [...role] : isColourWord(looks[0]!) ? ['in'] : [];
  const names = [mostWords, looks.length].map((most) => [...head, ...looks.slice(0, most)].join('-'));
  const free = names.find((name) => name.length <= mostLetters && !taken.has(name));
  if (free !== undefined) return free;
  return numbered(names[0]!.length <= mostLetters ? names[0]! : [...head, looks[0]!].join('-'), taken);
}

const rolesOf = (tags: readonly string[]): ReadonlySet<string> =>
  new Set(tags.map((tag) => roles[tag] ?? (/^[a-z][a-z-]*$/.test(tag) ? tag : 'part')));

const wordsOf = (declarations: readonly Declaration[]): readonly string[] => [
  ...new Set(declarations.map(lookWord).filter((word) => word !== '')),
];

/** So many looks of one kind of element have words in common that tell them apart no more. */
const fewLikes = 4;

/** The words of all looks that are to be named: what most looks of one kind of element have tells none of them apart. */
export class Likes {
  private readonly counts = new Map<string, { looks: number; readonly words: Map<string, number> }>();

  add(tags: readonly string[], declarations: readonly Declaration[]): void {
    const key = keyOf(rolesOf(tags));
    let counts = this.counts.get(key);
    if (!counts) this.counts.set(key, (counts = { looks: 0, words: new Map<string, number>() }));
    counts.looks++;
    for (const word of wordsOf(declarations)) counts.words.set(word, (counts.words.get(word) ?? 0) + 1);
  }

  isCommon(role: ReadonlySet<string>, word: string): boolean {
    const counts = this.counts.get(keyOf(role));
    return counts !== undefined && counts.looks >= fewLikes && (counts.words.get(word) ?? 0) * 2 > counts.looks;
  }
}

const keyOf = (role: ReadonlySet<string>): string => [...role].sort().join();

function numbered(name: string, taken: ReadonlySet<string>): string {
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
