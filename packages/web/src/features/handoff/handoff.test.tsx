import { expect, test } from '@jest/globals';
import { render, screen, within } from '@testing-library/react';
import type { ChangedFileReply, SiteDetailReply } from '@syndeton/contract';
import { HandoffView } from './HandoffView.tsx';

const site: SiteDetailReply = {
  id: '00000000-0000-4000-8000-000000000000',
  name: 'Ferry',
  revision: 2,
  revisions: [],
  files: [
    { path: 'a.html', kind: 'page', bytes: 1000 },
    { path: 'css/site.css', kind: 'sheet', bytes: 500 },
    { path: 'img/x.png', kind: 'other', bytes: 70 },
  ],
  leftOut: [],
};
const changes: readonly ChangedFileReply[] = [
  { path: 'a.html', change: 'edited', bytesBefore: 2000, bytesAfter: 1000, kind: 'page' },
  { path: 'css/site.css', change: 'created', bytesBefore: 0, bytesAfter: 500, kind: 'sheet' },
];
const show = (changed: readonly ChangedFileReply[] | undefined, linedUp = 0) =>
  render(<HandoffView site={site} changes={changed} linedUp={linedUp} onGather={() => {}} onTexts={() => undefined} />);

test('says what leaves, sheets before pages, with sizes', () => {
  show(changes);
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe(
    '2 files leave together: 1 sheet and 1 page, 2.0 kB → 1.5 kB.',
  );
  const rows = within(screen.getByRole('table', { name: 'Files to upload' })).getAllByRole('row');
  const text = rows.map((row) => row.textContent ?? '');
  expect(text.findIndex((t) => t.includes('site.css'))).toBeLessThan(text.findIndex((t) => t.includes('then these')));
  expect(text.find((t) => t.includes('site.css'))).toContain('new');
});

test('links to the archives of this revision', () => {
  show(changes);
  const hrefs = screen.getAllByRole('link').map((link) => link.getAttribute('href'));
  expect(new Set(hrefs)).toEqual(
    new Set(['archive?since=1', 'archive', 'patch?since=1'].map((end) => `/api/sites/${site.id}/revisions/2/${end}`)),
  );
});

test('nothing changed: the one action that brings something', () => {
  show([]);
  expect(screen.getByRole('heading', { level: 1 }).textContent).toContain('Nothing has changed');
  expect(screen.getByRole('button', { name: 'Gather the rules' })).toBeTruthy();
});

test('what is lined up but not saved is said to be missing', () => {
  show(changes, 2);
  expect(screen.getByText(/2 operations lined up but not saved: not in here/)).toBeTruthy();
});
