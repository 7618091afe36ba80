import { expect, test } from '@jest/globals';
import { planStepOf, withoutLastStep, withoutPlan } from './planStep.ts';

const list = (text: string): readonly { readonly kind: string }[] =>
  text
    .split(' ')
    .filter(Boolean)
    .map((kind) => ({ kind }));

test.each([
  ['mend import-to-link gather-sheet gather-blocks gather-attributes mend', { from: 1, to: 5 }, 'mend mend', 'mend import-to-link gather-sheet gather-blocks gather-attributes'],
  ['mend gather-sheet gather-attributes', { from: 1, to: 3 }, 'mend', 'mend'],
  ['gather-attributes gather-sheet gather-attributes', { from: 1, to: 3 }, 'gather-attributes', 'gather-attributes'],
  ['settle-drift gather-sheet gather-hints edit-sheet', { from: 1, to: 3 }, 'settle-drift edit-sheet', 'settle-drift gather-sheet gather-hints'],
  ['gather-rules gather-blocks', undefined, 'gather-rules gather-blocks', 'gather-rules'],
  ['mend', undefined, 'mend', ''],
])('%s', (operations, step, plain, undone) => {
  expect(planStepOf(list(operations))).toEqual(step);
  expect(withoutPlan(list(operations))).toEqual(list(plain));
  expect(withoutLastStep(list(operations))).toEqual(list(undone));
}); // oxfmt-ignore
