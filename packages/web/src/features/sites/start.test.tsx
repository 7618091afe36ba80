import { expect, jest, test } from '@jest/globals';
import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter } from 'react-router';
import type { SiteSummaryReply } from '@syndeton/contract';
import { StartView } from './StartView.tsx';

Object.assign(globalThis, { matchMedia: () => ({ matches: false }) });

const site = (name: string, rules: number, revision = 1): SiteSummaryReply => ({
  id: name,
  name,
  revision,
  message: revision === 1 ? 'Brought in' : 'Gather 3 rules',
  savedAt: '2026-06-03T10:00:00.000Z',
  figures: {
    pages: 3012,
    sheets: 2,
    otherFiles: 1,
    embeddedRules: rules,
    styleAttributes: 0,
    sharedBytes: 100,
    embeddedBytes: rules * 10,
    attributeBytes: 0,
    presentationalBytes: 0,
  },
  draftOperations: 0,
});

function show(over: Partial<Parameters<typeof StartView>[0]> = {}) {
  const props = {
    sites: [],
    reading: undefined,
    brought: undefined,
    problem: undefined,
    onBring: jest.fn(),
    onDemo: jest.fn(),
    ...over,
  };
  render(
    <MemoryRouter>
      <StartView {...props} />
    </MemoryRouter>,
  );
  return props;
}

test('empty: says so, and the demo is the one thing to do', async () => {
  const { onDemo } = show();
  expect(screen.getByRole('heading', { level: 1 }).textContent).toContain('No site is here yet');
  const demo = screen.getByRole('button', { name: 'Load the demo' });
  expect(demo.className).toContain('next');
  await userEvent.click(demo);
  expect(onDemo).toHaveBeenCalled();
});

test('sites, with what is left in their pages', () => {
  show({ sites: [site('Quillan Parish Archive', 24, 14), site('Hand Press Guild', 0)] });
  const rows = screen.getAllByRole('row').map((row) => row.textContent);
  expect(rows[1]).toContain('saved on 3 June: Gather 3 rules');
  expect(rows[1]).toContain('3,012r14');
  expect(rows[1]).toContain('24 rules');
  expect(rows[2]).toContain('nothing');
  expect(screen.getByRole('link', { name: 'Quillan Parish Archive' }).getAttribute('href')).toMatch(
    /^\/sites\/.*\/survey$/,
  );
});

test('what is dropped is brought in, and the seam closes while it hangs over', async () => {
  const { onBring } = show();
  const file = new File(['<p>'], 'a.html');
  const area = screen.getByRole('region', { name: 'Bring a site in' });
  fireEvent.dragOver(area);
  expect(area.querySelector('.drop')!.className).toContain('over');
  fireEvent.drop(area, { dataTransfer: { items: [], files: [file] } });
  await waitFor(() => expect(onBring).toHaveBeenCalledWith([{ path: 'a.html', file }]));
  expect(area.querySelector('.drop')!.className).not.toContain('over');
});

test('a refusal is said in words; files left out are named with their reason', () => {
  show({
    problem: 'This is no zip we can read.',
    brought: { id: 'x', name: 'Walks', leftOut: [{ path: 'walks/Thumbs.db', reason: 'it is not part of a site' }] },
  });
  expect(screen.getByRole('alert').textContent).toBe('This is no zip we can read.');
  expect(screen.getByRole('status').textContent).toContain('walks/Thumbs.db it is not part of a site');
});
