import { expect, test } from '@jest/globals';
import { parseSelectorList } from '@syndeton/core';
import { asHeld, heldStates, type HeldState } from './frameState.ts';

test.each<[string, HeldState, string]>([
  ['a:hover', 'hovered', 'a:not(.\\0)'],
  ['a:hover', 'at rest', 'a:hover'],
  ['a:HOVER > b:hover::before', 'hovered', 'a:not(.\\0) > b:not(.\\0)::before'],
  ['a:focus-within, b:focus-visible, i:focus', 'focused', 'a:not(.\\0), b:not(.\\0), i:not(.\\0)'],
  ['a:hover, a:active', 'pressed', 'a:not(.\\0), a:not(.\\0)'],
  ['a:link, a:visited', 'visited', 'a:not(*|*):not(.\\0), a:any-link'],
  ['[title=":hover"] :hover', 'hovered', '[title=":hover"] :not(.\\0)'],
  ['a:hover-like, .x\\:hover-y', 'hovered', 'a:hover-like, .x\\:hover-y'],
])('%s, %s: %s', (selector, state, held) => expect(asHeld(selector, state)).toBe(held));

// Selectors 4, "Calculating a selector's specificity": a pseudo-class counts as a class, `:not()` as what is in it
test('a selector is as specific held as it was written', () => {
  for (const selector of ['a:hover b:focus', ':is(a, :active)', 'a:link:visited', 'nav a:not(:hover)'])
    for (const state of heldStates)
      expect(parseSelectorList(asHeld(selector, state))?.[0]?.specificity).toEqual(
        parseSelectorList(selector)?.[0]?.specificity,
      );
});
