import { expect, test } from '@jest/globals';
import { siteOf, textsOf } from '../testing/siteOf.ts';
import { applyOperations, type Operation } from './operation.ts';
import { withoutOperation } from './withoutOperation.ts';

const page = '<!DOCTYPE html><link rel="stylesheet" href="s.css"><p class="note">x</p>\n';
const start = siteOf({ 'a.html': page, 's.css': 'p { color: red }\nb { top: 0 }\n' });
const rename: Operation = { kind: 'rename-name', of: 'class', from: 'note', to: 'hint' };
const colour: Operation = { kind: 'change-rule', sheet: 's.css', rule: { selector: 'p' }, set: [{ property: 'color', value: 'navy' }] }; // oxfmt-ignore
const add: Operation = { kind: 'add-rule', sheet: 's.css', selector: '.hint', declarations: [{ property: 'top', value: '1px' }] }; // oxfmt-ignore

const done = (operations: readonly Operation[], from = start) => {
  const applied = applyOperations(from, operations);
  if (!applied.ok) throw new Error(JSON.stringify(applied.problem));
  return applied.value.site;
};

test('what came after it is done again', () => {
  const first = [rename, colour];
  const second: readonly Operation[] = [{ kind: 'sort-rules', sheet: 's.css' }];
  const sheet = 'b { left: 0 }\np { color: red }\n';
  const from = siteOf({ 'a.html': page, 's.css': sheet });
  const result = withoutOperation(
    from,
    [
      { number: 2, operations: first },
      { number: 3, operations: second },
    ],
    1,
  );
  if (!result.ok) throw new Error(result.problem.detail);
  expect(textsOf(result.value)).toEqual(textsOf(done([rename, ...second], from)));
});

test('what later operations need cannot be taken out', () => {
  const later: readonly Operation[] = [{ kind: 'rename-name', of: 'class', from: 'hint', to: 'tip' }];
  const result = withoutOperation(
    start,
    [
      { number: 2, operations: [rename, add] },
      { number: 3, operations: later },
    ],
    0,
  );
  // the rule that came with it has the name too
  expect(result.ok && textsOf(result.value)).toMatchObject({ 'a.html': page });
  const gone = withoutOperation(
    start,
    [
      { number: 2, operations: [rename] },
      { number: 3, operations: later },
    ],
    0,
  );
  expect(gone).toMatchObject({ ok: false, problem: { number: 3, detail: expect.stringContaining('hint') } });
});

test('files that came in some other way stand, unless they would be others', () => {
  const after = done([rename, colour]);
  const withNew = { ...after, files: new Map([...after.files, ...siteOf({ 'n.css': 'i {}' }).files]) };
  const kept = withoutOperation(
    start,
    [
      { number: 2, operations: [rename, colour] },
      { number: 3, before: after, after: withNew },
    ],
    1,
  );
  expect(kept.ok && textsOf(kept.value)).toMatchObject({
    'n.css': 'i {}',
    's.css': 'p { color: red }\nb { top: 0 }\n',
  });
  const edited = { ...after, files: new Map([...after.files, ...siteOf({ 's.css': 'i {}' }).files]) };
  expect(
    withoutOperation(
      start,
      [
        { number: 2, operations: [rename, colour] },
        { number: 3, before: after, after: edited },
      ],
      1,
    ),
  ).toMatchObject({ ok: false, problem: { number: 3, detail: expect.stringContaining('s.css') } });
});
