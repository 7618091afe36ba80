import type { ElementNode } from '../page/nodes.ts';
import type { PageCascade } from '../cascade/pageCascade.ts';
import { allContenders, touches, type Contender } from '../cascade/contenders.ts';
import { placeOfContender } from '../cascade/contenderPlace.ts';
import { decidingCriterion, type Criterion } from '../cascade/decidingCriterion.ts';
import type { Environment } from '../cascade/environment.ts';
import { describeCondition } from '../cascade/conditions.ts';
import { comparableValue } from '../values/comparableValue.ts';
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
  readonly before: Contender | undefined;
  readonly after: Contender | undefined;
  readonly reason: string;
}

/** Which declarations decide a longhand on both sides, and in one sentence why that changed. */
export function explainDifference(
  before: PageState,
  after: PageState,
  pair: { readonly before: ElementNode; readonly after: ElementNode },
  longhand: string,
  pseudoElement: string,
  environment: Environment,
): Explanation {
  const allOld = allContenders(before.cascade, pair.before, { environment }, pseudoElement);
  const allNow = allContenders(after.cascade, pair.after, { environment }, pseudoElement);
  const old = allOld.filter(({ compiled }) => touches(compiled, longhand));
  const now = allNow.filter(({ compiled }) => touches(compiled, longhand));
  const oldWinner = old.find((c) => c.applies);
  const newWinner = now.find((c) => c.applies);
  return {
    before: oldWinner,
    after: newWinner,
    reason: reasonFor({ old, now, allOld, allNow, oldWinner, newWinner, longhand }),
  };
}

/** What is in play for a longhand on both sides, and for the element at all. */
interface InPlay {
  readonly old: readonly Contender[];
  readonly now: readonly Contender[];
  readonly allOld: readonly Contender[];
  readonly allNow: readonly Contender[];
  readonly oldWinner: Contender | undefined;
  readonly newWinner: Contender | undefined;
  readonly longhand: string;
}

function reasonFor({ old, now, allOld, allNow, oldWinner, newWinner, longhand }: InPlay): string {
  const same = (a: Contender, b: Contender): boolean => saysSame(a, b, longhand);
  if (oldWinner && newWinner && same(oldWinner, newWinner)) return conditionalReason(old, now, longhand);
  if (!oldWinner && !newWinner) return conditionalReason(old, now, longhand);
  if (!oldWinner) {
    const comes = isAmong(newWinner!, allOld) ? `sets ${longhand} now` : 'reaches this element now';
    return `${nameOf(newWinner!)} ${comes}; nothing set ${longhand} here before.`;
  }
  const goes = isAmong(oldWinner, allNow)
    ? `does not set ${longhand} any more`
    : 'does not reach this element any more';
  if (!newWinner) {
    const next = isInherited(longhand) ? 'it is inherited now' : "the browser's default applies now";
    return `${nameOf(oldWinner)} ${goes}; ${next}.`;
  }
  const stillThere = now.find((c) => same(c, oldWinner));
  if (stillThere)
    return `${nameOf(newWinner)} beats ${nameOf(stillThere)} now: ${describeCriterion(decidingCriterion(newWinner, stillThere))}.`;
  if (isSameRule(oldWinner, newWinner)) return changedReason(oldWinner, newWinner, longhand);
  return `${nameOf(oldWinner)} ${goes}; ${nameOf(newWinner)} decides now.`;
}

/** One rule, or the style attribute, says something else. */
function changedReason(before: Contender, after: Contender, longhand: string): string {
  const [old, now] = [valueFor(before, longhand), valueFor(after, longhand)];
  if (old !== now) return `${nameOf(after)} says \`${now}\` now; it said \`${old}\`.`;
  return `${nameOf(after)} is ${after.compiled.declaration.important ? 'important now' : 'not important any more'}.`;
}

const isSameRule = (a: Contender, b: Contender): boolean =>
  a.origin === b.origin &&
  a.selector === b.selector &&
  a.source?.kind === b.source?.kind &&
  (a.source?.kind === 'embedded' || a.source?.path === b.source?.path);

/** Whether the rule still reaches the element, whatever it sets. */
const isAmong = (contender: Contender, all: readonly Contender[]): boolean =>
  all.some((one) => isSameRule(one, contender));

function conditionalReason(old: readonly Contender[], now: readonly Contender[], longhand: string): string {
  if (old.length === 0 && now.length === 0) return `What is said of ${longhand} changed. Only other browsers take it.`;
  const sameDeclaration = (a: Contender, b: Contender): boolean => saysSame(a, b, longhand);
  const gone = old.find((c) => !now.some((d) => sameDeclaration(c, d)));
  if (gone) return `${nameOf(gone)}${underConditions(gone)} does not reach this element any more.`;
  const come = now.find((c) => !old.some((d) => sameDeclaration(c, d)));
  if (come) return `${nameOf(come)}${underConditions(come)} reaches this element now.`;
  const moved = now.find((c, i) => old[i] && !sameDeclaration(c, old[i]));
  if (moved) return `${nameOf(moved)}${underConditions(moved)} stands at another place in the order now.`;
  return 'The declarations are the same, but what decides between them may not be: a browser could show a difference.';
}

function underConditions(contender: Contender): string {
  const { conditions } = contender;
  const [elsewhere] = conditions.filter(({ kind }) => kind === 'other-browsers');
  // of what our browser drops, only others ask whether the rest holds
  if (elsewhere)
    return elsewhere.text === ''
      ? ', which only other browsers take,'
      : ` in ${elsewhere.text}, which only other browsers take,`;
  if (conditions.length > 0) return `, which applies under ${conditions.map(describeCondition).join(' and ')},`;
  return contender.applies ? '' : ', which applies in some states only,';
}

/** What a declaration gives a longhand: as written where it is the longhand's own, else its part of the shorthand, or all of it. */
export function valueFor({ compiled }: Contender, longhand: string): string {
  const { declaration, longhands, values } = compiled;
  const value = declaration.property === longhand ? undefined : values?.[longhands.indexOf(longhand)];
  if (value === undefined) return declaration.value;
  const words = declaration.value.split(/[\t\n\f\r ]+(?![^(]*\))/);
  const runs = words.flatMap((_, from) => words.map((_word, n) => words.slice(from, from + n + 1).join(' ')));
  return runs.find((part) => comparableValue(longhand, part) === value) ?? value;
}

/** By meaning, for one longhand. */
const meaningFor = ({ compiled }: Contender, longhand: string): string => {
  const { declaration, longhands, values, comparable } = compiled;
  const part = declaration.property === longhand ? comparable : values?.[longhands.indexOf(longhand)];
  return part === undefined ? `${declaration.property}:${comparable}` : `${longhand}:${part}`;
};

const saysSame = (a: Contender, b: Contender, longhand: string): boolean =>
  meaningFor(a, longhand) === meaningFor(b, longhand) &&
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

/** `said`: the property it is shown as deciding, and the value it gives that. */
export function deciderOf(
  contender: Contender,
  said: { readonly property: string; readonly value: string },
  state: PageState,
  element: ElementNode,
): Decider {
  const { declaration } = contender.compiled;
  return {
    ...said,
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
