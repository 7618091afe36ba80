import type { CompoundSelector, SelectorList, SimpleSelector, Specificity } from './selector.ts';

/** The specificity of a complex selector's compounds together. Selectors 4, "Calculating a selector's specificity". */
export function specificityOf(compounds: readonly CompoundSelector[]): Specificity {
  let a = 0;
  let b = 0;
  let c = 0;
  for (const { simples, pseudoElement } of compounds) {
    if (pseudoElement !== undefined) {
      c += pseudoElement.split('::').length - 1;
      const slotted = /^::slotted\((.*)\)$/s.exec(pseudoElement);
      if (slotted) [a, b, c] = sum([a, b, c], argumentSpecificity(slotted[1]!));
    }
    for (const simple of simples) [a, b, c] = sum([a, b, c], specificityOfSimple(simple));
  }
  return [a, b, c];
}

const sum = (x: Specificity, y: Specificity): Specificity => [x[0] + y[0], x[1] + y[1], x[2] + y[2]];

function specificityOfSimple(simple: SimpleSelector): Specificity {
  switch (simple.kind) {
    case 'universal':
      return [0, 0, 0];
    case 'type':
      return [0, 0, 1];
    case 'id':
      return [1, 0, 0];
    case 'class':
    case 'attribute':
      return [0, 1, 0];
    case 'pseudo-class':
      return specificityOfPseudoClass(simple.name, simple.argument);
    case 'matches':
      return simple.name === 'where' ? [0, 0, 0] : strongest(simple.list);
    case 'has':
      return strongest(simple.list.map((relative) => relative.selector));
    case 'nth':
      return sum([0, 1, 0], simple.of ? strongest(simple.of) : [0, 0, 0]);
  }
}

function specificityOfPseudoClass(name: string, argument: string | undefined): Specificity {
  if (name === 'scope' && argument === 'nesting') return [0, 0, 0];
  return /^host/.test(name) && argument !== undefined ? sum([0, 1, 0], argumentSpecificity(argument)) : [0, 1, 0];
}

function strongest(list: SelectorList): Specificity {
  let best: Specificity = [0, 0, 0];
  for (const { specificity } of list) {
    const [a, b, c] = specificity;
    if (a > best[0] || (a === best[0] && (b > best[1] || (b === best[1] && c > best[2])))) best = specificity;
  }
  return best;
}

/** Arguments of `:host()` and `::slotted()` match nothing outside shadow trees; their names still count. */
function argumentSpecificity(text: string): Specificity {
  const count = (pattern: RegExp): number => text.match(pattern)?.length ?? 0;
  return [count(/#[\w-]/g), count(/[.[]|(?<!:):(?!:)/g), count(/(^|[\t\n\f\r >+~])[a-z]/gi)];
}
