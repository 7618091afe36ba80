import { expect, jest, test } from '@jest/globals';
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { OutsideChangesReply } from '@syndeton/contract';
import { OutsideList } from './OutsideList.tsx';

const quiet: OutsideChangesReply = { same: 4, changed: [], fresh: [], gone: [], moved: [], older: [] };

function show(changes: Partial<OutsideChangesReply>, more: { inDraft?: number; busy?: boolean } = {}) {
  const on = { onTake: jest.fn(), onClose: jest.fn() };
  render(<OutsideList changes={{ ...quiet, ...changes }} busy={false} inDraft={0} {...more} {...on} />);
  return on;
}

test('each kind apart, with its count; what is gone goes only when asked for', async () => {
  const on = show({
    changed: ['a.html'],
    fresh: ['b.html'],
    moved: [{ from: 'c.html', to: 'x/c.html' }],
    gone: ['d.html', 'e.html'],
    older: [{ path: 'css/site.css', revision: 1 }],
  });
  const group = (name: RegExp) => within(screen.getByRole('heading', { name }).parentElement!);
  expect(group(/^Moved there/).getByText('c.html → x/c.html')).toBeTruthy();
  expect(group(/^Not there yet/).getByText('css/site.css, as in r1')).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Take all 5 changes' }));
  expect(on.onTake).toHaveBeenLastCalledWith(true);
  await userEvent.click(screen.getByRole('checkbox', { name: 'Take them out here too' }));
  await userEvent.click(screen.getByRole('button', { name: 'Take all 3 changes' }));
  expect(on.onTake).toHaveBeenLastCalledWith(false);
});

test('nothing to take: it says so, and only closes', async () => {
  const on = show({ older: [{ path: 'a.html', revision: 2 }] });
  expect(screen.getByText('Nothing was changed there.')).toBeTruthy();
  expect(screen.queryByRole('button', { name: /Take/ })).toBeNull();
  await userEvent.click(screen.getByRole('button', { name: 'Close' }));
  expect(on.onClose).toHaveBeenCalled();
});

test('with a draft nothing can be taken, and it says what to do; a long list is opened', async () => {
  show({ changed: Array.from({ length: 14 }, (_, i) => `p${i}.html`) }, { inDraft: 1 });
  expect((screen.getByRole('button', { name: 'Take all 14 changes' }) as HTMLButtonElement).disabled).toBe(true);
  expect(screen.getByText(/1 operation is in the draft. Save or discard it first/)).toBeTruthy();
  expect(screen.queryByText('p13.html')).toBeNull();
  await userEvent.click(screen.getByRole('button', { name: '2 more' }));
  expect(screen.getByText('p13.html')).toBeTruthy();
});
