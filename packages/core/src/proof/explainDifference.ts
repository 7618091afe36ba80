import type { ElementNode } from '../page/nodes.ts';
import type { PageCascade } from '../cascade/pageCascade.ts';
import { contendersFor, type Contender } from '../cascade/contenders.ts';
import { placeOfContender } from '../cascade/contenderPlace.ts';
import { decidingCriterion, type Criterion } from '../cascade/decidingCriterion.ts';
import type { Environment } from '../cascade/environment.ts';
import { describeCondition } from '../cascade/conditions.ts';
import { isInherited } from '../values/longhands.ts';
import { printSpecificity } from '../selectors/selector.ts';
import { placeOf } from '../source/span.ts';
import type { Site } from '../source/site.ts';
import type { Decider, Place } from './proof.ts';

/** One state of a page: its cascade and the site it stands in. */
export interface PageState {
  readonly cascade: PageCascade;
  readonly site: Site;
}

export interface Explanation {
  readonly before: Decider | undefined;
  readonly after: Decider | undefined;
  readonly reason: string;
}

/** Who decides a longhand on both sides, and in one sentence why that changed. */
export function explainDifference(
  before: PageState,
  after: PageState,
  pair: { readonly before: ElementNode; readonly after: ElementNode },
  longhand: string,
  pseudoElement: string,
  environment: Environment,
): Explanation {
  const old = contendersFor(before.cascade, pair.before, longhand, environment, pseudoElement);
  const now = contendersFor(after.cascade, pair.after, longhand, environment, pseudoElement);
  const oldWinner = old.find((c) => c.applies);
  const newWinner = now.find((c) => c.applies);
  return {
    before: oldWinner && deciderOf(oldWinner, before, pair.before),
    after: newWinner && deciderOf(newWinner, after, pair.after),
    reason: reasonFor(old, now, oldWinner, newWinner, longhand),
  };
}

function reasonFor(
  old: readonly Contender[],
  now: readonly Contender[],
  oldWinner: Contender | undefined,
  newWinner: Contender | undefined,
  longhand: string,
): string {
  if (oldWinner && newWinner && sameDeclaration(oldWinner, newWinner)) return conditionalReason(old, now);
  if (!oldWinner && !newWinner) return conditionalReason(old, now);
  if (!oldWinner) return `${nameOf(newWinner!)} reaches this element now; nothing set ${longhand} here before.`;
  if (!newWinner) {
    const next = isInherited(longhand) ? 'it is inherited now' : "the browser's default applies now";
    return `${nameOf(oldWinner)} does not reach this element any more; ${next}.`;
  }
  const stillThere = now.find((c) => sameDeclaration(c, oldWinner));
  if (stillThere)
    return `${nameOf(newWinner)} beats ${nameOf(stillThere)} now: ${describeCriterion(decidingCriterion(newWinner, stillThere))}.`;
  return `${nameOf(oldWinner)} does not reach this element any more; ${nameOf(newWinner)} decides now.`;
}

function conditionalReason(old: readonly Contender[], now: readonly Contender[]): string {
  const gone = old.find((c) => !now.some((d) => sameDeclaration(c, d)));
  if (gone) return `${nameOf(gone)}${underConditions(gone)} does not reach this element any more.`;
  const come = now.find((c) => !old.some((d) => sameDeclaration(c, d)));
  if (come) return `${nameOf(come)}${underConditions(come)} reaches this element now.`;
  const moved = now.find((c, i) => old[i] && !sameDeclaration(c, old[i]));
  if (moved) return `${nameOf(moved)}${underConditions(moved)} stands at another place in the order now.`;
  return 'The declarations are the same, but what decides between them may not be: a browser could show a difference.';
}

function underConditions(contender: Contender): string {
  if (contender.conditions.length > 0)
    return `, which applies under ${contender.conditions.map(describeCondition).join(' and ')},`;
  return contender.applies ? '' : ', which applies in some states only,';
}

const sameDeclaration = (a: Contender, b: Contender): boolean =>
  a.compiled.declaration.property === b.compiled.declaration.property &&
  a.compiled.comparable === b.compiled.comparable &&
  a.compiled.declaration.important === b.compiled.declaration.important &&
  a.selector === b.selector &&
  a.origin === b.origin;

export function nameOf(contender: Contender): string {
  switch (contender.origin) {
    case 'attribute':
      return 'the style attribute';
    case 'hint':
      return 'a presentational attribute';
    case 'rule': {
      const where = contender.source!.kind === 'embedded' ? 'in the embedded block' : `in ${contender.source!.path}`;
      return `\`${contender.selector}\` ${where}, ${printSpecificity(contender.specificity)}`;
    }
  }
}

/** The criterion in words, to stand after a colon. */
export function describeCriterion(criterion: Criterion): string {
  switch (criterion.kind) {
    case 'proximity':
      return 'its @scope begins nearer to the element';
    case 'importance':
      return 'it is important';
    case 'attribute':
      return 'a style attribute beats every selector';
    case 'hint':
      return 'presentational attributes stand below every rule';
    case 'layer':
      return 'its cascade layer is stronger';
    case 'specificity':
      return `${printSpecificity(criterion.winner)} is more specific than ${printSpecificity(criterion.loser)}`;
    case 'order':
      return 'it comes later';
  }
}

export function deciderOf(contender: Contender, state: PageState, element: ElementNode): Decider {
  const { declaration } = contender.compiled;
  return {
    property: declaration.property,
    value: declaration.value,
    important: declaration.important,
    source: contender.origin === 'rule' ? contender.source!.kind : contender.origin,
    selector: contender.selector,
    specificity: contender.specificity,
    place: placeFor(contender, state, element),
  };
}

function placeFor(contender: Contender, state: PageState, element: ElementNode): Place | undefined {
  const { path, offset } = placeOfContender(contender, state.cascade, element);
  const text = path === state.cascade.path ? state.cascade.tree.text : state.site.files.get(path)?.text;
  return text === undefined ? undefined : { path, ...placeOf(text, offset) };
}
