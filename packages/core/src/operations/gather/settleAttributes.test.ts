import { expect, test } from '@jest/globals';
import { pageOf, siteOf, textIn } from '../../testing/siteOf.ts';
import { applyOperations, describeOperationProblem } from '../operation.ts';
import type { SettleAttributes } from './settleAttributes.ts';

const site = siteOf({
  'a.html': pageOf('', '<p style="top: 0; padding-left: 6px">a</p><p style=\'padding-left:8px;top:0\'>b</p><li style="top: 0; padding-left: 6px">c</li>'), // oxfmt-ignore
  'b.html': pageOf('', '<p style=\'font: 1em &quot;A&quot;; padding-left:&#32;6px !important\'>d</p><p style="top:0;padding-left:6px">e'), // oxfmt-ignore
});
const wanted: SettleAttributes = {
  kind: 'settle-attributes',
  tag: 'p',
  looks: ['padding-left: 6px; top: 0', 'font: 1em "A"; padding-left: 6px !important'],
  property: 'padding-left',
  value: '8px',
  pages: ['a.html', 'b.html'],
};

test('only the value changes, in attributes that say just that, on elements of that type', () => {
  const after = applyOperations(site, [wanted]);
  if (!after.ok) throw new Error(describeOperationProblem(after.problem.problem));
  expect(textIn(after.value.site, 'a.html')).toBe(site.files.get('a.html')!.text!.replace('6px">a', '8px">a'));
  expect(textIn(after.value.site, 'b.html')).toBe(
    site.files.get('b.html')!.text!.replace('6px !important', '8px !important').replace('6px">e', '8px">e'),
  );
  expect(after.value.steps[0]!.sentence).toBe('Let 3 style attributes of p say padding-left: 8px as well');
});

test('only on the pages asked for', () => {
  const after = applyOperations(site, [{ ...wanted, pages: ['a.html'] }]);
  expect(
    after.ok &&
      [...after.value.site.files]
        .filter(([path, { hash }]) => hash !== site.files.get(path)!.hash)
        .map(([path]) => path),
  ).toEqual(['a.html']);
});

test.each([
  [{ value: '8px"; x' }, 'value-not-plain'],
  [{ value: '8px; top: 9px' }, 'value-not-plain'],
  [{ looks: ['top: 9px'] }, 'no-attribute-to-settle'],
  [{ pages: ['none.html'] }, 'no-attribute-to-settle'],
  [{ value: '6px' }, 'no-attribute-to-settle'],
])('refused: %j', (change, kind) => {
  const after = applyOperations(site, [{ ...wanted, ...change }]);
  expect(!after.ok && after.problem.problem.kind).toBe(kind);
});
