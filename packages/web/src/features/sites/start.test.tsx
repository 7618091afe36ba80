import { expect, jest, test } from '@jest/globals';
import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter } from 'react-router';
import type { ImportReply, SiteSummaryReply } from '@syndeton/contract';
import { leftOutWords } from '../site/index.ts';
import { howFarBound } from './howFarBound.ts';
import { StartView } from './StartView.tsx';

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
    sending: undefined,
    reading: [],
    brought: undefined,
    taking: false,
    problem: undefined,
    removed: undefined,
    onBring: jest.fn(),
    onDemo: jest.fn(),
    onOpenFolder: jest.fn(),
    onStop: jest.fn(),
    onRename: jest.fn(),
    onRemove: jest.fn(),
    onBringBack: jest.fn(),
    onTake: jest.fn(),
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
  expect(demo.className).toContain('bg-thread');
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
  const isClosed = (): boolean => area.querySelector('svg')!.getAttribute('stroke-dasharray') === null;
  expect(isClosed()).toBe(true);
  fireEvent.drop(area, { dataTransfer: { items: [], files: [file] } });
  await waitFor(() => expect(onBring).toHaveBeenCalledWith([{ path: 'a.html', file }]));
  expect(isClosed()).toBe(false);
});

const walks = (over: Partial<ImportReply> = {}): ImportReply => ({
  id: 'w',
  name: 'Walks',
  status: 'looking',
  done: 231,
  total: 412,
  rules: 2090,
  leftOut: [],
  ...over,
});

test('a refusal is said in words; files left out are named with their reason and taken in', async () => {
  const leftOut = [
    { path: 'Thumbs.db', reason: 'it is not part of a site', kept: true },
    { path: 'old.html', reason: 'it is a link to another file', kept: false },
  ];
  const on = show({ problem: 'This is no zip we can read.', brought: walks({ status: 'done', siteId: 'x', leftOut }) });
  expect(screen.getByRole('alert').textContent).toBe('This is no zip we can read.');
  expect(screen.getByRole('status').textContent).toContain('2 files were left out of Walks');
  const take = screen.getAllByRole('button', { name: 'Take it in' });
  expect(take).toHaveLength(1);
  await userEvent.click(take[0]!);
  expect(on.onTake).toHaveBeenCalledWith('Thumbs.db');
});

test('a site on its way in: figures, and a way to stop', async () => {
  const on = show({ sites: [site('Archive', 24)], reading: [walks()] });
  expect(screen.getByRole('heading', { level: 1 }).textContent).toContain('and another is being read');
  const row = screen.getByRole('row', { name: /Walks/ });
  expect(row.textContent).toContain('231 of 412 pages');
  expect(row.textContent).toContain('2,090 rules so far');
  await userEvent.click(screen.getByRole('button', { name: 'Stop reading' }));
  expect(on.onStop).toHaveBeenCalledWith('w');
});

test('renamed, removed, brought back; two of one name are told apart', async () => {
  const two = [
    { ...site('Archive', 24), id: 'new' },
    { ...site('Archive', 24), id: 'old' },
  ];
  const on = show({ sites: two, removed: site('Gone', 1) });
  expect(screen.getAllByRole('link', { name: /^Archive/ }).map((a) => a.textContent)).toEqual([
    'Archive (2)',
    'Archive (1)',
  ]);
  await userEvent.click(screen.getByRole('button', { name: 'More for Archive (1)' }));
  await userEvent.click(screen.getByRole('menuitem', { name: 'Rename' }));
  const field = screen.getByRole('textbox', { name: 'Name of the site' });
  await userEvent.clear(field);
  expect(field.getAttribute('aria-invalid')).toBe('true');
  await userEvent.type(field, 'Parish Archive{Enter}');
  expect(on.onRename).toHaveBeenCalledWith('old', 'Parish Archive');
  await userEvent.click(screen.getByRole('button', { name: 'More for Archive (2)' }));
  await userEvent.click(screen.getByRole('menuitem', { name: 'Remove' }));
  expect(on.onRemove).toHaveBeenCalledWith(two[0]);
  await userEvent.click(screen.getByRole('button', { name: 'Bring it back' }));
  expect(on.onBringBack).toHaveBeenCalled();
});

test.each<[string, Partial<SiteSummaryReply['figures']>, number, string, string]>([
  [
    'nothing done',
    { waiting: { drifted: 3, links: 2, overrides: 1, findings: 4 } },
    1,
    'Xoooooo',
    '3 decisions wait in Gather',
  ],
  [
    'gathered, links wait',
    { embeddedRules: 0, waiting: { drifted: 0, links: 1, overrides: 0, findings: 1 } },
    2,
    'XXooXXo',
    '1 link to mend',
  ],
  ['all', { embeddedRules: 0, waiting: { drifted: 0, links: 0, overrides: 0, findings: 0 } }, 2, 'XXXXXXX', 'all done'],
  ['no sheet', { sheets: 0 }, 1, 'Xoooooo', 'no sheet yet'],
])('how far a site is bound: %s', (_shows, figures, revision, knots, words) => {
  const one = site('A', 5, revision);
  const bound = howFarBound({ ...one, figures: { ...one.figures, ...figures } });
  expect([bound.tied.map((tied) => (tied ? 'X' : 'o')).join(''), bound.words]).toEqual([knots, words]);
});

test('folders left out as a whole are no files', () => {
  const words = (...paths: string[]): string => leftOutWords(paths.map((path) => ({ path })));
  expect([words('a'), words('a', 'b', '.git/'), words('.git/', 'x/.svn/')]).toEqual([
    '1 file',
    '2 files and 1 folder',
    '2 folders',
  ]);
});
