import { stateClasses } from './pseudoTable.ts';
import { trimmed } from '../source/space.ts';

// What may stand after a pseudo-element. Asked of Chromium for each pair of the names in pseudoTable.ts: selectorOracle.test.ts.

const words = (text: string): ReadonlySet<string> => new Set(trimmed(text).split(/[\t\n\f\r ]+/));

const userAction = 'active focus focus-visible focus-within hover';
const scrollbar =
  'corner-present horizontal vertical decrement increment start end double-button single-button no-button';
const scrollbarStates = words(scrollbar);

/** Those that stand for an element of a shadow tree or of the browser's own. Selectors 4, "Element-backed pseudo-elements". */
const elementBacked = /^(part|details-content|picker)$/;
const elementClasses = new Set([
  ...[...stateClasses].filter((name) => !scrollbarStates.has(name) && name !== 'current'),
  ...words('any-link -webkit-any-link defined lang dir state active-view-transition-type'),
]);

const classesAfter: readonly (readonly [element: RegExp, classes: ReadonlySet<string>])[] = [
  [elementBacked, elementClasses],
  [/^-webkit-(scrollbar|resizer)/, words(`active disabled enabled hover window-inactive ${scrollbar}`)],
  [/^(cue|file-selector-button|-webkit-.*)$/, words(userAction)],
  [/^scroll-marker$/, words(`${userAction} target-after target-before target-current`)],
  [/^scroll-marker-group$/, words('focus-within hover')],
  [/^scroll-button$/, words(`${userAction} disabled enabled`)],
  [/^search-text$/, words('current')],
  [/^selection$/, words('window-inactive')],
  [/^view-transition-/, words('only-child')],
];

const slottedElements =
  /^::(before|after|marker|placeholder|backdrop|file-selector-button|details-content|checkmark|picker|view-transition)/;

/** `p::before`, `p::part(a)::marker`: the name of the last. */
const lastName = (before: string): string => /::([-\w]+)(?:\([^()]*(?:\([^()]*\)[^()]*)*\))?$/.exec(before)?.[1] ?? '';

/** Whether a pseudo-class may follow, such as `hover` after `::part(a)`. */
export function takesClassAfter(before: string, name: string): boolean {
  const element = lastName(before);
  if (element === 'cue' && before.endsWith(')')) return false;
  return classesAfter.find(([pattern]) => pattern.test(element))?.[1].has(name) ?? false;
}

/** Whether `:is()` and `:not()` may follow. */
export const takesListAfter = (before: string): boolean => !/^(column|slotted)$/.test(lastName(before));

/** Whether a further pseudo-element may follow; `next` with its colons. */
export function takesElementAfter(before: string, next: string): boolean {
  const element = lastName(before);
  if (elementBacked.test(element)) return !/^::(part|slotted|cue)\(/.test(next);
  if (element === 'slotted') return slottedElements.test(next);
  if (element === 'column') return next === '::scroll-marker';
  return next === '::marker' && (element === 'before' || element === 'after');
}
