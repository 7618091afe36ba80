import type { CascadeSession, PageCascade } from '../cascade/pageCascade.ts';
import { differingSlots } from '../cascade/stack.ts';
import { textHash } from '../source/contentHash.ts';
import type { Site } from '../source/site.ts';
import { definitionKeys } from './compareDefinitions.ts';
import { exposedText } from './exposure.ts';
import { madeLook } from './madeElements.ts';
import { markupText } from './markupText.ts';
import { isStyleSource } from './pairElements.ts';
import { shownText, sourcesMayBeShown } from './shownSources.ts';

/**
 * What a proof needs of one state of a page, without its tree: two looks of one session, or of twins, tell whether the page surely
 * looks the same. Where they do not, the trees have to be compared.
 */
export interface PageLook {
  /** How many elements there are, style sources included. */
  readonly elements: number;
  /** A fingerprint of `markupText`. */
  readonly markup: string;
  /** The number of each element's match list, style sources left out. */
  readonly lists: Int32Array;
  readonly unread: string;
  readonly definitions: string;
  /** Links and blocks as written, kept only where a rule may show them. */
  readonly shown: string | undefined;
  /** What else something on the page may read. */
  readonly exposed: string | undefined;
  /** How elements may look that scripts make, as a number of the session. */
  readonly made: number | undefined;
}

/** `alike`: a look of the very same tree. */
export function lookOf(cascade: PageCascade, site: Site, alike?: PageLook): PageLook {
  const { tree, rules } = cascade;
  const lists = new Int32Array(tree.elements.length);
  let count = 0;
  for (const element of tree.elements) if (!isStyleSource(element)) lists[count++] = cascade.listOf(element);
  return {
    elements: tree.elements.length,
    markup: alike?.markup ?? textHash(markupText(tree)),
    lists: lists.slice(0, count),
    unread: rules.unread.map((sheet) => sheet.key).join('\n'),
    definitions: definitionKeys(rules),
    shown: sourcesMayBeShown(cascade) ? shownText(cascade) : undefined,
    exposed: exposedText(cascade),
    made: madeLook(cascade, site),
  };
}

/** Says which looks are the same; what it found of two match lists it keeps. */
export class LookComparison {
  private readonly known = new Map<number, Map<number, boolean>>();
  private readonly session: CascadeSession;

  constructor(session: CascadeSession) {
    this.session = session;
  }

  /** True when the two surely look the same; false when only the trees can tell. */
  surelySame(before: PageLook, after: PageLook): boolean {
    return (
      before.unread === after.unread &&
      before.definitions === after.definitions &&
      before.shown === after.shown &&
      before.exposed === after.exposed &&
      before.made === after.made &&
      this.sameStacks(before, after)
    );
  }

  /** True when every element surely has the same stacks on both sides, whatever else may read of the page. */
  sameStacks(before: PageLook, after: PageLook): boolean {
    return before.markup === after.markup && this.sameLists(before.lists, after.lists);
  }

  private sameLists(left: Int32Array, right: Int32Array): boolean {
    if (left.length !== right.length) return false;
    for (let i = 0; i < left.length; i++) if (left[i] !== right[i] && !this.alike(left[i]!, right[i]!)) return false;
    return true;
  }

  private alike(left: number, right: number): boolean {
    let row = this.known.get(left);
    if (!row) this.known.set(left, (row = new Map<number, boolean>()));
    let same = row.get(right);
    if (same === undefined) {
      same = differingSlots(this.session.slotsOfList(left), this.session.slotsOfList(right)).length === 0;
      row.set(right, same);
    }
    return same;
  }
}
