import { expect, jest, test } from '@jest/globals';
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { FindingReply } from '@syndeton/contract';
import { FindingsList } from './FindingsList.tsx';
import { pathsByName } from './FindingSentence.tsx';

const finding = (id: string, severity: FindingReply['severity'], sentence = id): FindingReply => ({
  id,
  kind: 'drift',
  severity,
  sentence,
  pages: ['a.html'],
  places: [{ path: 'a.html', line: 3, column: 1 }],
  action: { does: severity === 'breaks' ? 'mend' : 'look', label: `do ${id}` },
});

function show(findings: readonly FindingReply[], busy = false, nowhere: readonly string[] = []) {
  const on = { onPath: jest.fn(), onAct: jest.fn(), onNowhere: jest.fn(), nowhere };
  render(<FindingsList findings={findings} pathOfName={pathsByName(['a.html'], ['css/s.css'])} busy={busy} {...on} />);
  return on;
}

test('by weight, with the one action; names of pages and sheets lead there, other code does not', async () => {
  const on = show([finding('one', 'breaks', '`a` lacks `css/s.css` and `.box`'), finding('two', 'note')]);
  expect(screen.getAllByRole('heading').map((h) => h.textContent)).toEqual(['Breaks a page1', 'Worth knowing1']);
  const first = within(screen.getByRole('region', { name: /Breaks/ }));
  expect(first.getAllByRole('link').map((a) => a.textContent)).toEqual(['a', 'css/s.css']);
  await userEvent.click(first.getByRole('link', { name: 'a' }));
  expect(on.onPath).toHaveBeenCalledWith('a.html');
  await userEvent.click(screen.getByRole('button', { name: 'do one' }));
  expect(on.onAct).toHaveBeenCalledWith(expect.objectContaining({ id: 'one' }));
});

test('of what is worth knowing only some at first; while a mend is under way no other begins', async () => {
  show([...Array.from({ length: 9 }, (_, i) => finding(`n${i}`, 'note')), finding('m', 'breaks')], true);
  expect(screen.getAllByRole('listitem')).toHaveLength(6);
  await userEvent.click(screen.getByRole('button', { name: '4 more' }));
  expect(screen.getAllByRole('listitem')).toHaveLength(10);
  expect((screen.getByRole('button', { name: 'do m' }) as HTMLButtonElement).disabled).toBe(true);
  expect((screen.getByRole('button', { name: 'do n0' }) as HTMLButtonElement).disabled).toBe(false);
});

test('nothing wrong', () => {
  show([]);
  expect(screen.getByText('Nothing is wrong here.')).toBeTruthy();
});

test('of a broken link it can be said that the sheet is nowhere; then it says so', async () => {
  const broken = { ...finding('link-missing css/old.css', 'breaks' as const), kind: 'link-missing' };
  const on = show([broken]);
  await userEvent.click(screen.getByRole('button', { name: 'It is nowhere' }));
  expect(on.onNowhere).toHaveBeenCalledWith('css/old.css');
  document.body.innerHTML = '';
  show([broken], false, ['css/old.css']);
  expect(screen.queryByRole('button', { name: 'It is nowhere' })).toBeNull();
  expect(screen.getByText(/taken as missing on the server too/)).toBeTruthy();
});

test('of a sheet on another server it can be said that it says nothing about elements', async () => {
  const away = finding('remote-sheet https://fonts.example/f.css', 'note');
  const on = show([away]);
  await userEvent.click(screen.getByRole('button', { name: 'It holds fonts alone, or is gone' }));
  expect(on.onNowhere).toHaveBeenCalledWith('https://fonts.example/f.css');
  document.body.innerHTML = '';
  show([away], false, ['https://fonts.example/f.css']);
  expect(screen.getByText(/taken as saying nothing about elements/)).toBeTruthy();
});
