import fs from 'node:fs';
import {
  functionalPseudoElements,
  oneColonElements,
  pseudoElements,
  stateClasses,
  treeClasses,
} from '../selectors/pseudoTable.ts';

const file = new URL('./fixtures/selectorForms.txt', import.meta.url);

const arguments_: Readonly<Record<string, string>> = { picker: 'select', 'scroll-button': '*' };
const vendorElements =
  '-webkit-scrollbar -webkit-scrollbar-thumb -webkit-resizer -webkit-slider-thumb -webkit-search-cancel-button -webkit-foo';
const otherClasses =
  ':not(:hover) :is(:hover) :is(a) :not(a) :where(:focus) :nth-child(2) :lang(en) :dir(ltr) :state(x) :has(a) .c [x] #i :-webkit-any(:hover) :active-view-transition-type(a) :hover:focus :hover::before';

/** Selectors that some browser takes and ones that none does: forms written by hand, and each pseudo-class after each pseudo-element. */
export function selectorForms(): readonly string[] {
  const functional = [...functionalPseudoElements].map((name) => `::${name}(${arguments_[name] ?? 'a'})`);
  const plain = [...pseudoElements, ...vendorElements.split(' ')].map((name) => `::${name}`);
  const elements = [...plain, ...functional, ...[...oneColonElements].map((name) => `:${name}`)];
  const classes = [...stateClasses, ...treeClasses].map((name) => `:${name}`);
  const after = ['', ...classes, ...otherClasses.split(' '), ...plain, ...functional];
  return [
    ...fs.readFileSync(file, 'utf8').trim().split('\n'),
    ...classes.map((name) => `:${name}`),
    ...elements.flatMap((element) => after.map((name) => `p${element}${name}`)),
  ];
}
