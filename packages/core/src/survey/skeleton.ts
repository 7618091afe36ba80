import { lowered } from '../source/asciiCase.ts';
import { parseFile, type PageTree } from '../page/parsePage.ts';
import type { SiteFile } from '../source/site.ts';

/** What an element is by its type (in lower case), ID and classes. */
export interface ElementKind {
  readonly tag: string;
  readonly id: string | undefined;
  readonly classes: readonly string[];
}

/** The elements of a page in document order: which kind each is, and which element it lies in (-1 for the root). */
export interface Skeleton {
  readonly kinds: readonly ElementKind[];
  readonly kind: Uint32Array;
  readonly parent: Int32Array;
}

const skeletons = new WeakMap<SiteFile, Skeleton>();

/** All pages share the kinds they have in common. */
const interned = new Map<string, ElementKind>();
const mostInterned = 200_000;

/** Kept as long as the file is. `tree`: where it was parsed already. */
export function skeletonOf(file: SiteFile, tree?: PageTree): Skeleton {
  const known = skeletons.get(file);
  if (known && !tree) return known;
  const made = make(tree ?? parseFile(file));
  skeletons.set(file, made);
  return made;
}

/** What is known of a page whose blocks and links alone changed: the elements that show are the same. */
export function carrySkeleton(from: SiteFile, to: SiteFile): void {
  const known = skeletons.get(from);
  if (known) skeletons.set(to, known);
}

/** The names of its elements are others than those it was carried with. */
export const forgetSkeleton = (file: SiteFile): void => void skeletons.delete(file);

function make({ elements }: PageTree): Skeleton {
  const kind = new Uint32Array(elements.length);
  const parent = new Int32Array(elements.length).fill(-1);
  const kinds: ElementKind[] = [];
  const numbers = new Map<string, number>();
  elements.forEach((element, i) => {
    const { tag, id, classes } = element;
    const key = `${tag}\0${id ?? ''}\0${classes.join(' ')}`;
    let number = numbers.get(key);
    if (number === undefined) {
      numbers.set(key, (number = kinds.length));
      kinds.push(internedKind(key, tag, id, classes));
    }
    kind[i] = number;
    if (element.parent?.type === 'element') parent[i] = element.parent.index;
  });
  return { kinds, kind, parent };
}

function internedKind(key: string, tag: string, id: string | undefined, classes: readonly string[]): ElementKind {
  let kind = interned.get(key);
  if (kind) return kind;
  if (interned.size >= mostInterned) interned.clear();
  kind = { tag: lowered(tag), id, classes };
  interned.set(key, kind);
  return kind;
}
