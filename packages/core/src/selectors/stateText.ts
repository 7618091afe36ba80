import { stateClasses } from './pseudoTable.ts';
import type { ComplexSelector, SelectorList, SimpleSelector } from './selector.ts';

const known = new WeakMap<ComplexSelector, string>();

/**
 * What must hold for a selector that matches an element in some states only: where nothing but states of the element itself is left open,
 * these (`:focus:hover`), so that `a:hover` and `:where(.menu) a:hover` ask the same of it; else the whole selector.
 *
 * Selectors 4, "User Action Pseudo-classes": each is a condition of its own.
 */
export function stateText(selector: ComplexSelector): string {
  let text = known.get(selector);
  if (text === undefined) known.set(selector, (text = readStates(selector) ?? selector.text));
  return text;
}

function readStates({ compounds }: ComplexSelector): string | undefined {
  if (!compounds.slice(0, -1).every(({ simples }) => simples.every(isSettled))) return undefined;
  const states: string[] = [];
  for (const simple of compounds.at(-1)!.simples) {
    if (isSettled(simple)) continue;
    if (simple.kind !== 'pseudo-class' || !stateClasses.has(simple.name)) return undefined;
    states.push(`:${simple.name}${simple.argument === undefined ? '' : `(${simple.argument})`}`);
  }
  return states.length === 0 ? undefined : [...new Set(states)].sort().join('');
}

const structural = /^(root|empty|any-link|-webkit-any-link|(first|last|only)-(child|of-type))$/;

/** Whether the page alone tells if it matches. */
function isSettled(simple: SimpleSelector): boolean {
  switch (simple.kind) {
    case 'type':
    case 'universal':
    case 'id':
    case 'class':
    case 'attribute':
      return true;
    case 'nth':
      return simple.of === undefined || areSettled(simple.of);
    case 'matches':
      return areSettled(simple.list);
    case 'has':
      return simple.list.every(({ selector }) => areSettled([selector]));
    case 'pseudo-class':
      return structural.test(simple.name);
  }
}

const areSettled = (list: SelectorList): boolean =>
  list.every(({ compounds }) => compounds.every(({ simples }) => simples.every(isSettled)));
