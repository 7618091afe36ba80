import { expect, jest, test } from '@jest/globals';
import { render, screen, within } from '@testing-library/react';
import type { ChangedFileReply, ReportReply, SiteDetailReply } from '@syndeton/contract';
import { UploadWords } from './UploadRow.tsx';
import { HandoffView } from './HandoffView.tsx';
import { paysFrom } from './VisitorChart.tsx';

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
const weight = { markup: 4000, embedded: 1500, attributes: 200, sheets: 2000 };
const reported: ReportReply = {
  title: 'Ferry',
  from: 'r1',
  to: 'r2',
  revisions: [],
  files: [],
  proof: { verdict: 'intended', elements: 10, same: 0, pages: [{ path: 'a.html', verdict: 'intended', elements: 10, differingElements: 2, causes: [], notes: [], doubts: [] }], given: [] },
  findings: [{ kind: 'invalid-value', severity: 'note', sentence: '`color` does not take `12px`', places: [{ path: 'css/site.css', line: 4, column: 1 }] }],
  links: { links: 1, missing: 0 },
  weight: { before: weight, after: { ...weight, embedded: 0, attributes: 0, sheets: 4000 } },
}; // oxfmt-ignore
const onPlace = jest.fn();
const show = (changed: readonly ChangedFileReply[] | undefined, inDraft = 0) =>
  render(
    <HandoffView
      site={site}
      changes={changed}
      inDraft={inDraft}
      more={null}
      report={reported}
      failed={undefined}
      onProof={() => {}}
      onPlace={onPlace}
      onGather={() => {}}
      onTexts={() => undefined}
    />,
  );

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

test('pictures come first, what no page needs is said to be deleted last and is none of what leaves', () => {
  const gone = { path: 'css/old.css', change: 'deleted', bytesBefore: 300, bytesAfter: 0, kind: 'sheet' } as const;
  const picture = { path: 'img/x.png', change: 'created', bytesBefore: 0, bytesAfter: 70, kind: 'other' } as const;
  show([...changes, gone, picture]);
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe(
    '3 files leave together: 1 sheet, 1 page and 1 other file, 2.3 kB → 1.6 kB. 1 file may be deleted on the server.',
  );
  const rows = within(screen.getByRole('table', { name: 'Files to upload' }))
    .getAllByRole('row')
    .map((row) => row.textContent ?? '');
  const at = (text: string): number => rows.findIndex((row) => row.includes(text));
  const places = ['x.png', 'site.css', 'then these', 'May be deleted', 'old.css'].map(at);
  expect(places).toEqual([...places].sort((a, b) => a - b));
  expect(rows[at('old.css')]).toContain('gone');
  expect(screen.getByRole('link', { name: 'Download the 3 files' })).toBeTruthy();
});

test('links to the archives of this revision', () => {
  show(changes);
  const hrefs = screen.getAllByRole('link').map((link) => link.getAttribute('href'));
  expect(new Set(hrefs)).toEqual(
    new Set(
      [
        'archive?since=1',
        'archive',
        'patch?since=1',
        'report/html?since=1',
        'report/json?since=1',
        'report/csv?since=1',
      ].map((end) => `/api/sites/${site.id}/revisions/2/${end}`),
    ),
  );
});

test('nothing changed: the one action that brings something', () => {
  show([]);
  expect(screen.getByRole('heading', { level: 1 }).textContent).toContain('Nothing has changed');
  expect(screen.getByRole('button', { name: 'Gather the rules' })).toBeTruthy();
});

test('what is in the draft but not saved is said to be missing', () => {
  show(changes, 2);
  expect(screen.getByText(/2 operations in the draft, not saved: not in here/)).toBeTruthy();
});

test('what was checked, with the way to what is still wrong', () => {
  show(changes);
  expect(screen.getByRole('row', { name: /^Proof as chosen 0 of 1 page look the same; 1 as chosen/ })).toBeTruthy();
  expect(screen.getByRole('row', { name: /^Links all reach 1 link/ })).toBeTruthy();
  screen.getByRole('button', { name: 'Show sheets: css/site.css, line 4' }).click();
  expect(onPlace).toHaveBeenCalledWith('css/site.css', 4);
});

test('from which page on a visitor fetches less', () => {
  const after = { ...weight, embedded: 0, attributes: 0, sheets: 4500 };
  expect(paysFrom(weight, after)).toBe(
    'A first visit costs 0.8 kB more, each page after it 1.7 kB less: it pays from page 2 of a visit on.',
  );
  expect(paysFrom(weight, { ...after, sheets: 2000 })).toBe(
    'A first visit costs 1.7 kB less, each page after it 1.7 kB less.',
  );
  expect(paysFrom(weight, weight)).toBe('A first visit costs the same, each page after it the same.');
});

test('an upload says how far it is, what is there when it stopped, and what may go', () => {
  const state = { there: ['css/site.css'], total: 3, mayGo: [] };
  const { rerender, container } = render(<UploadWords state={{ ...state, status: 'running' }} />);
  expect(screen.getByRole('progressbar').getAttribute('value')).toBe('1');
  rerender(<UploadWords state={{ ...state, status: 'stopped', path: 'a.html', why: 'The line broke.' }} />);
  expect(container.textContent).toBe('Stopped at a.html: The line broke. 1 of 3 files is on the server and whole.');
  rerender(<UploadWords state={{ ...state, status: 'done', mayGo: ['old.css'] }} />);
  expect(container.textContent).toContain(
    '3 files on the server, byte for byte. No page needs old.css any more: delete it there',
  );
});
