import { selectorsOfAnyBrowser } from '../../selectors/parseSelector.ts';
import type { CompoundSelector } from '../../selectors/selector.ts';
import type { PageReading } from '../../survey/pageReading.ts';
import { skeletonOf, type ElementKind, type Skeleton } from '../../survey/skeleton.ts';
import type { PageSet } from '../pageSet.ts';

/** Rules that are for the same pages, by their selectors. */
export interface EnclosedNeed {
  readonly pages: PageSet;
  readonly without: PageSet;
  readonly selectors: readonly string[];
}

/** More elements are not looked at for one need. */
const mostElements = 500_000;
const plainName = /^[.#][a-z][\w-]*$/i;

/**
 * By selector, a class or ID that stands on all pages of the need, on none of those without, and encloses everything that the first
 * compound of the selector may mean on them: written before the selector it changes nothing on these pages. Undefined where one of the
 * selectors has no such name: a mark is needed then, and serves all. Few names, the outermost.
 */
export function enclosingNames(
  { pages, without, selectors }: EnclosedNeed,
  readings: readonly (PageReading | undefined)[],
  classesOnly: boolean,
): ReadonlyMap<string, string> | undefined {
  const candidates = namesOnlyHere(pages, without, readings).filter((name) => !classesOnly || name.startsWith('.'));
  if (candidates.length === 0) return undefined;
  const firsts = selectors.map((text) => selectorsOfAnyBrowser(text)?.map(({ compounds }) => compounds[0]!));
  if (firsts.some((one) => one === undefined)) return undefined;
  const open = selectors.map(() => new Set(candidates));
  let left = mostElements;
  for (const page of pages) {
    const skeleton = skeletonOf(readings[page]!.file);
    if ((left -= skeleton.kind.length) < 0) return undefined;
    const around = new Around(skeleton);
    firsts.forEach((compounds, i) => {
      const meant = skeleton.kinds.map((kind) => compounds!.some((compound) => mayBe(compound, kind)));
      for (let element = 0; element < skeleton.kind.length && open[i]!.size > 0; element++)
        if (meant[skeleton.kind[element]!]) keepOnly(open[i]!, around.of(element));
    });
    if (open.some((names) => names.size === 0)) return undefined;
  }
  const serves = new Map(candidates.map((name) => [name, open.filter((names) => names.has(name)).length]));
  // else the outermost: they are in the order of the document
  const best = [...candidates].sort((a, b) => serves.get(b)! - serves.get(a)!);
  return new Map(selectors.map((text, i) => [text, best.find((name) => open[i]!.has(name))!]));
}

function keepOnly(names: Set<string>, around: ReadonlySet<string>): void {
  for (const name of names) if (!around.has(name)) names.delete(name);
}

/** Names some element of the first page has, that no page without has, and the other pages have too as far as readings tell. */
function namesOnlyHere(
  pages: PageSet,
  without: PageSet,
  readings: readonly (PageReading | undefined)[],
): readonly string[] {
  const [first] = pages;
  const file = first === undefined ? undefined : readings[first]?.file;
  if (!file) return [];
  const names = new Set(skeletonOf(file).kinds.flatMap(namesOf));
  return [...names].filter((name) => {
    const lower = name.toLowerCase();
    for (const page of without) if (readings[page]?.names.has(lower) ?? true) return false;
    for (const page of pages) if (!(readings[page]?.names.has(lower) ?? false)) return false;
    return true;
  });
}

const namesOf = ({ id, classes }: ElementKind): readonly string[] =>
  [...classes.map((name) => `.${name}`), ...(id === undefined ? [] : [`#${id}`])].filter((name) =>
    plainName.test(name),
  );

/** The names of what each element lies in. */
class Around {
  private readonly known = new Map<number, ReadonlySet<string>>();
  private readonly skeleton: Skeleton;

  constructor(skeleton: Skeleton) {
    this.skeleton = skeleton;
  }

  of(element: number): ReadonlySet<string> {
    const { parent, kind, kinds } = this.skeleton;
    // from the outermost down, for trees may be deep
    const path: number[] = [];
    let at = parent[element]!;
    for (; at >= 0 && !this.known.has(at); at = parent[at]!) path.push(at);
    let names: ReadonlySet<string> = at < 0 ? new Set() : this.known.get(at)!;
    for (const one of path.reverse()) {
      const own = namesOf(kinds[kind[one]!]!);
      if (own.length > 0) names = new Set([...names, ...own]);
      this.known.set(one, names);
    }
    return names;
  }
}

/** Whether an element of this kind may be meant: by type, classes and ID, whatever else is asked. */
function mayBe({ simples }: CompoundSelector, { tag, id, classes }: ElementKind): boolean {
  return simples.every((simple) => {
    if (simple.kind === 'type') return simple.lower === tag;
    if (simple.kind === 'id') return simple.name.toLowerCase() === id?.toLowerCase();
    if (simple.kind !== 'class') return true;
    const wanted = simple.name.toLowerCase();
    return classes.some((name) => name.toLowerCase() === wanted);
  });
}
