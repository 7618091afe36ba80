import { expect, test } from '@jest/globals';
import { contrastRatio } from './contrast.ts';

test.each([
  // what it shows, text, ground, ratio. WCAG 2.2, "contrast ratio": (L1 + 0.05) / (L2 + 0.05)
  ['black on white', '#000', 'white', 21],
  ['equal colours', 'rgb(10, 20, 30)', 'rgb(10, 20, 30)', 1],
  // Understanding SC 1.4.3, Techniques G18: #767676 is the lightest grey that reaches 4.5 on white
  ['the lightest grey for text', '#767676', '#ffffff', 4.54],
  ['half black on white is grey', 'rgba(0, 0, 0, 0.5)', '#fff', 3.95],
  ['a ground that is not there', 'black', 'transparent', 21],
  ['no colour', 'currentcolor', '#fff', undefined],
])('%s', (_shows, text, ground, ratio) => {
  const found = contrastRatio(text, ground);
  if (ratio === undefined) expect(found).toBeUndefined();
  else expect(found).toBeCloseTo(ratio, 1);
});
