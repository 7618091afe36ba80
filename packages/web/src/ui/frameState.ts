import { sheetsOf } from './pageDom.ts';

/** A state that all elements of a shown page are held in; links for `visited`. */
export const heldStates = ['at rest', 'hovered', 'focused', 'pressed', 'visited'] as const;
export type HeldState = (typeof heldStates)[number];

/** Pseudo-classes that hold in each, and those that do not. */
const holding: Readonly<Record<HeldState, { readonly on: RegExp | undefined; readonly off?: RegExp }>> = {
  'at rest': { on: undefined },
  hovered: { on: /:hover(?![\w-])/gi },
  focused: { on: /:focus(?:-visible|-within)?(?![\w-])/gi },
  pressed: { on: /:(?:active|hover)(?![\w-])/gi },
  visited: { on: /:visited(?![\w-])/gi, off: /:link(?![\w-])/gi },
};

/** Selectors as they were written, for rules that were changed. */
const written = new WeakMap<CSSStyleRule, string>();

/**
 * Lets a document in a frame look as if all its elements were in a state: the pseudo-class is put in place by one of equal
 * specificity that always holds. Selectors 4, "Calculating a selector's specificity".
 */
export function showState(document: Document, state: HeldState): void {
  const walk = (rules: Iterable<CSSRule>): void => {
    for (const rule of rules) {
      if ('selectorText' in rule) set(rule as CSSStyleRule, state);
      if ('styleSheet' in rule) walk(rulesOf((rule as CSSImportRule).styleSheet));
      if ('cssRules' in rule) walk((rule as CSSGroupingRule).cssRules);
    }
  };
  for (const sheet of sheetsOf(document)) walk(rulesOf(sheet));
}

function set(rule: CSSStyleRule, state: HeldState): void {
  const own = written.get(rule) ?? rule.selectorText;
  const wanted = asHeld(own, state);
  if (!written.has(rule)) {
    if (wanted === own) return;
    written.set(rule, own);
  }
  if (rule.selectorText !== wanted) rule.selectorText = wanted;
}

/** What a selector has to say at rest to mean what it means in a state. Strings and attribute values stay. */
export function asHeld(selector: string, state: HeldState): string {
  const { on, off } = holding[state];
  if (!on) return selector;
  const always = state === 'visited' ? ':any-link' : ':not(.\\0)';
  return selector
    .split(/("(?:[^"\\]|\\.)*"|'(?:[^'\\]|\\.)*'|\[[^\]]*\])/)
    .map((part, i) => {
      if (i % 2 === 1) return part;
      const held = part.replace(on, always);
      return off ? held.replace(off, ':not(*|*):not(.\\0)') : held;
    })
    .join('');
}

function rulesOf(sheet: CSSStyleSheet | null): Iterable<CSSRule> {
  try {
    return sheet?.cssRules ?? [];
  } catch {
    // a sheet of another server cannot be read
    return [];
  }
}
