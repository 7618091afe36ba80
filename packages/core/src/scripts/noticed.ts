import { answersDiffer, holds } from './asks.ts';
import type { ElementNode } from '../page/nodes.ts';
import { longhandsOf } from '../values/longhands.ts';
import type { PageScript } from './pageScripts.ts';
import type { Touch } from './scriptFacts.ts';

/** What is about to change on an element, or has: whether its class, and which properties of its style attribute. */
export interface ElementChange {
  readonly element: ElementNode;
  readonly class: boolean;
  /** Its whole before and after; undefined where the names are not chosen yet. */
  readonly classes?: readonly [string, string];
  /** What is written there before and after, as far as it is not the same: ` style="color:red"`, ` class="r"`. */
  readonly markup: readonly string[];
  readonly properties: readonly string[];
  /** Attributes that are not there any more, by name, but these two. */
  readonly attributes: readonly string[];
}

/** The first place of a script that may set or read something of it; `ids`: those of the page. */
export const noticed = (change: ElementChange, script: PageScript, ids: ReadonlySet<string>): Touch | undefined =>
  script.facts.touches.find((touch) => means(touch, script, change.element, ids) && touchesAny(touch, change));

function touchesAny({ what }: Touch, change: ElementChange): boolean {
  if (what.kind === 'class') return change.class;
  if (what.kind === 'class-asked') return change.classes !== undefined && answersDiffer(what.ask, ...change.classes);
  if (what.kind === 'markup-asked') return change.markup.some((text) => holds(what.ask, text));
  if (what.kind === 'attribute')
    return what.name === undefined ? change.attributes.length > 0 : change.attributes.includes(what.name);
  if (what.kind !== 'style' || change.properties.length === 0) return false;
  const { property } = what;
  if (property === undefined || property === 'all') return true;
  const touched = new Set([property, ...longhandsOf(property)]);
  return change.properties.some(
    (one) => one === 'all' || touched.has(one) || longhandsOf(one).some((name) => touched.has(name)),
  );
}

function means({ meant }: Touch, { of }: PageScript, element: ElementNode, ids: ReadonlySet<string>): boolean {
  switch (meant.kind) {
    case 'any':
      return true;
    case 'own':
      return of === element;
    case 'tag':
      return element.tag === meant.tag;
    case 'id':
      // a name that is no ID is a variable of another script
      return element.id === meant.id || !ids.has(meant.id);
  }
}
