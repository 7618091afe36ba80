import { compareSpecificity, type Specificity } from '../../selectors/selector.ts';
import type { SiteFile } from '../../source/site.ts';
import { skeletonOf, type ElementKind, type Skeleton } from '../../survey/skeleton.ts';

/** Elements that are to get the same look, by page and number. */
export type Places = readonly { readonly file: SiteFile; readonly index: number }[];

/** A selector made of names that are there. */
export interface NamedSelector {
  readonly text: string;
  readonly specificity: Specificity;
}

/** A compound: a type, a class, both, or an ID. */
interface Part {
  readonly text: string;
  readonly specificity: Specificity;
}

/** Of what kind elements are, and what they lie in, as far as it is the same for all of them. */
export interface CommonNames {
  /** Compounds that mean each of them, plainest first. */
  readonly own: readonly Part[];
  /** Compounds that mean some element each of them lies in. */
  readonly around: readonly Part[];
}

/** Say nothing of what they hold. */
const silentTags = new Set(['html', 'body', 'center', 'tbody', 'font', 'span', 'b', 'i', 'em', 'strong']);
const plainName = /^[a-z][\w-]*$/i;

export function commonNames(places: Places): CommonNames {
  let own: Set<string> | undefined;
  let around: Set<string> | undefined;
  for (const { file, index } of places) {
    const skeleton = skeletonOf(file);
    own = common(own, ownParts(skeleton.kinds[skeleton.kind[index]!]!));
    around = common(around, partsAround(skeleton, index));
  }
  return { own: [...(own ?? [])].map(partOf).sort(plainer), around: [...(around ?? [])].map(partOf).sort(plainer) };
}

const common = (before: Set<string> | undefined, now: ReadonlySet<string>): Set<string> =>
  before === undefined ? new Set(now) : new Set([...before].filter((one) => now.has(one)));

function ownParts({ tag, classes }: ElementKind): ReadonlySet<string> {
  const names = classes.filter((name) => plainName.test(name));
  return new Set([
    ...(plainName.test(tag) ? [tag] : []),
    ...names.map((name) => `.${name}`),
    ...names.map((name) => `${tag}.${name}`),
  ]);
}

const nothing: ReadonlySet<string> = new Set();
/** Compounds that mean something an element of a kind and what it lies in are: one set over all pages. */
const insideOf = new WeakMap<ReadonlySet<string>, WeakMap<ElementKind, ReadonlySet<string>>>();

/** Compounds that mean something the element lies in. */
function partsAround({ kinds, kind, parent }: Skeleton, index: number): ReadonlySet<string> {
  const above: ElementKind[] = [];
  for (let at = parent[index]!; at >= 0; at = parent[at]!) above.push(kinds[kind[at]!]!);
  return above.reduceRight(partsInside, nothing);
}

function partsInside(around: ReadonlySet<string>, kind: ElementKind): ReadonlySet<string> {
  let known = insideOf.get(around);
  if (!known) insideOf.set(around, (known = new WeakMap()));
  let parts = known.get(kind);
  if (!parts) {
    const more = partsOf(kind).filter((part) => !around.has(part));
    known.set(kind, (parts = more.length === 0 ? around : new Set([...around, ...more])));
  }
  return parts;
}

function partsOf({ tag, id, classes }: ElementKind): readonly string[] {
  const names = classes.filter((name) => plainName.test(name));
  return [
    ...(silentTags.has(tag) || !plainName.test(tag) ? [] : [tag]),
    ...names.map((name) => `.${name}`),
    ...(silentTags.has(tag) ? [] : names.map((name) => `${tag}.${name}`)),
    ...(id !== undefined && plainName.test(id) ? [`#${id}`] : []),
  ];
}

function partOf(text: string): Part {
  const ids = text.startsWith('#') ? 1 : 0;
  const classes = text.includes('.') ? 1 : 0;
  return { text, specificity: [ids, classes, /^[a-z]/i.test(text) ? 1 : 0] };
}

const plainer = (a: Part, b: Part): number => a.text.length - b.text.length || (a.text < b.text ? -1 : 1);

const sum = (a: Specificity, b: Specificity): Specificity => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];

/** So many are tried for one look. */
const mostCandidates = 60;

/** Selectors of names there that mean all these elements and perhaps others, plainest first; each asks for a class or an ID. */
export function candidates({ own, around }: CommonNames, spread: Spread): readonly NamedSelector[] {
  const named = own.filter(({ text }) => text.includes('.'));
  const below = byPlace(around, spread).flatMap((context) =>
    own.map((one) => ({ text: `${context.text} ${one.text}`, specificity: sum(context.specificity, one.specificity) })),
  );
  return [...named, ...below.filter(({ text }) => /[.#]/.test(text))].slice(0, mostCandidates);
}

/** On how many pages some element has all these names: `form`, `.order`, `#top`. */
export type Spread = (names: readonly string[]) => number;

/** What is on few pages says best where; then what is short. */
function byPlace(parts: readonly Part[], spread: Spread): readonly Part[] {
  const pages = new Map(parts.map((part) => [part, spread(part.text.toLowerCase().split(/(?=[.#])/))]));
  return [...parts].sort((a, b) => pages.get(a)! - pages.get(b)! || a.text.length - b.text.length);
}

/** Contexts for a class, least specific first: the class below them is stronger. */
export function contexts({ own, around }: CommonNames, name: string, spread: Spread): readonly NamedSelector[] {
  const tags = own.filter(({ text }) => !text.includes('.'));
  const bare: Part = { text: `.${name}`, specificity: [0, 1, 0] };
  const typed = tags.map(({ text }): Part => ({ text: `${text}.${name}`, specificity: [0, 1, 1] }));
  const all = [bare, ...typed].flatMap((one) => [
    one,
    ...byPlace(around, spread).map((context) => ({
      text: `${context.text} ${one.text}`,
      specificity: sum(context.specificity, one.specificity),
    })),
  ]);
  return all.sort((a, b) => compareSpecificity(a.specificity, b.specificity));
}

/** An open question: does a selector mean just so many elements of all pages? */
export interface Asked {
  readonly selector: NamedSelector;
  readonly wanted: number;
  found: number;
}

/** Counts on all pages; one that means more than it should is not looked for any further. */
export function countMatches(pages: Iterable<SiteFile>, asked: readonly Asked[]): void {
  const bySubject = new Map<string, Asked[]>();
  for (const one of asked) {
    const subject = one.selector.text.slice(one.selector.text.lastIndexOf(' ') + 1);
    const list = bySubject.get(subject);
    if (list) list.push(one);
    else bySubject.set(subject, [one]);
  }
  for (const file of pages) {
    const skeleton = skeletonOf(file);
    const byKind = skeleton.kinds.map((kind) => [...ownParts(kind)].flatMap((part) => bySubject.get(part) ?? []));
    if (byKind.every((list) => list.length === 0)) continue;
    skeleton.kind.forEach((kind, index) => {
      for (const one of byKind[kind]!) {
        if (one.found > one.wanted) continue;
        const { text } = one.selector;
        const space = text.indexOf(' ');
        if (space < 0 || partsAround(skeleton, index).has(text.slice(0, space))) one.found++;
      }
    });
  }
}
