import { expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { FamilyReply, OperationBody } from '@syndeton/contract';
import { decisionsOf, leaving } from './decisions.ts';
import { becomesOf, optionsFor, sayDecisions, letterOf } from './becomes.ts';
import { PlannedSheet } from './PlannedSheet.tsx';
import { renamedMark } from './renamedMark.ts';
import { sheetLines } from './sheetLines.ts';

type GatherSheet = Extract<OperationBody, { kind: 'gather-sheet' }>;

const rules: GatherSheet['rules'] = [
  { family: 'p', version: 'a', only: ['top'] },
  { family: '@media print { p', version: 'a' },
  { family: 'p', version: 'b', selector: '.news p', only: ['color'], section: 'news: a.html, news/b.html' },
  { family: 'i', version: 'c', only: [] },
  { family: 'u', version: 'd', dead: true },
];
const operation: GatherSheet = { kind: 'gather-sheet', sheet: 's.css', pages: ['a.html', 'news/b.html'], rules, marks: [{ name: 'news', on: 'body', pages: ['news/b.html'] }] }; // oxfmt-ignore
const text =
  'p { top: 0 }\n\n@media print {\n  p { left: 0 }\n}\n\n/* news: a.html, news/b.html */\n\n.news p { color: red }\n\n.words { color: teal }\n';
const version = (id: string, pages: string[]): FamilyReply['versions'][number] => ({
  id,
  pages,
  declarations: [],
  text: '',
  line: 1,
});
const family = { id: 'p', label: 'p', kind: 'rule', versions: [version('a', ['a.html']), version('b', ['news/b.html'])] } as unknown as FamilyReply; // oxfmt-ignore

test('each rule of the sheet is tied to what it was written from; those of style attributes to none', () => {
  const found = sheetLines(text, rules).filter(({ rule }) => rule !== undefined);
  expect(found.map(({ number, rule }) => [number, rule && `${rule.family} ${rule.version}`])).toEqual([
    [1, 'p a'],
    [4, '@media print { p a'],
    [9, 'p b'],
    [11, null],
  ]);
});

test('another name for a class of pages: in the pages, the selectors and the heading, not in their paths', () => {
  const next = renamedMark(operation, 'news', 'posts') as GatherSheet;
  expect(next.marks![0]!.name).toBe('posts');
  expect([next.rules[2]!.selector, next.rules[2]!.section]).toEqual(['.posts p', 'posts: a.html, news/b.html']);
  expect(renamedMark(operation, 'other', 'x')).toBe(operation);
});

test('what the plan does with a version, in words and as a choice; left, it stays on its pages', () => {
  const of = (i: number, operations: readonly OperationBody[] = [operation]) =>
    decisionsOf(operations, family, family.versions[i]!);
  expect(sayDecisions(of(1), letterOf, family.versions)).toBe('s.css, as .news p');
  expect(becomesOf(of(0))).toBe('sheet');
  expect(optionsFor(1, family, true).map(([value]) => value)).toEqual(['sheet', 'own', 'stay', 'take a']);
  expect(becomesOf(of(1, leaving([operation], family, family.versions[1]!)))).toBe('stay');
});

test('marks can be renamed in place, a rule leads to its family', async () => {
  const onMarkName = jest.fn((_from: string, to: string) => (to === 'bad name' ? 'Not so.' : undefined));
  const onFamily = jest.fn();
  render(
    <PlannedSheet operation={operation} text={text} families={[family]} onMarkName={onMarkName} onFamily={onFamily} />,
  );
  const field = screen.getByRole('textbox', { name: 'Class of news/b.html' });
  await userEvent.clear(field);
  await userEvent.type(field, 'bad name{Enter}');
  expect(screen.getByRole('alert').textContent).toBe('Not so.');
  await userEvent.clear(field);
  await userEvent.type(field, 'posts{Enter}');
  expect(onMarkName).toHaveBeenLastCalledWith('news', 'posts');
  await userEvent.click(screen.getByRole('button', { name: 'Line 9: p, from 1 page' }));
  expect(onFamily).toHaveBeenCalledWith('p');
});
