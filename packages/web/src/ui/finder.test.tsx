import { expect, jest, test } from '@jest/globals';
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Finder, type Findable } from './Finder.tsx';

Element.prototype.scrollIntoView = () => undefined;
const onClose = jest.fn();
const run = jest.fn<(what: string) => void>();
const thing = (group: string, label: string, hint?: string): Findable => ({
  group,
  label,
  run: () => run(label),
  ...(hint === undefined ? {} : { hint }),
});
const things = [
  thing('Pages', 'tours/night.html'),
  thing('Pages', 'index.html'),
  thing('Sheets', 'css/night.css', 'on 3 pages'),
  thing('Do', 'Propose a plan', 'P'),
];
const show = (all = things): void => void render(<Finder open onClose={onClose} things={all} />);
const listed = (): readonly (string | null)[] => screen.queryAllByRole('option').map((one) => one.textContent);

test('all there is, by group; pages without their ending', () => {
  show();
  expect(within(screen.getByRole('dialog', { name: 'Find' })).getByText('Sheets')).toBeTruthy();
  expect(listed()).toEqual(['tours/night', 'index', 'css/night.csson 3 pages', 'Propose a planP']);
});

test('what is typed narrows every group, in any case; Enter does the first and closes', async () => {
  show();
  await userEvent.keyboard('NIGHT');
  expect(listed()).toEqual(['tours/night', 'css/night.csson 3 pages']);
  await userEvent.keyboard('{ArrowDown}{Enter}');
  expect(run).toHaveBeenCalledWith('css/night.css');
  expect(onClose).toHaveBeenCalled();
});

test('nothing of that name', async () => {
  show();
  await userEvent.keyboard('zebra');
  expect(listed()).toEqual([]);
  expect(screen.getByText('Nothing here has that name.')).toBeTruthy();
});

test('of thousands of pages as many are listed as somebody looks at', async () => {
  show(Array.from({ length: 3000 }, (_, i) => thing('Pages', `p${i}.html`)));
  expect(listed()).toHaveLength(60);
  await userEvent.keyboard('p2999');
  expect(listed()).toEqual(['p2999']);
});
