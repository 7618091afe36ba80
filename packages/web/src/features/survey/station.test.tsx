import { expect, test } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { at, openAt, recordedSite } from '../../testing/recordedSite.tsx';

const server = recordedSite();
const address = () => window.location.pathname.split('/').at(-1)! + decodeURIComponent(window.location.search);
const opened = async (place = 'survey'): Promise<void> => {
  openAt(place);
  await screen.findByRole('heading', { level: 1, name: /still sit/ });
};

test('what still sits in the pages, the chosen ones alone when some are chosen', async () => {
  await opened();
  expect(screen.getByRole('heading', { level: 1 }).textContent).toContain(
    '5 rules and 1 style attribute still sit inside 3 pages',
  );
  await userEvent.click(screen.getByRole('option', { name: /^index/ }));
  await waitFor(() => expect(address()).toContain('index.html'));
});

test('a finding leads to where it is: another version to Gather, a link that is nowhere to its line', async () => {
  await opened();
  await userEvent.click(screen.getByRole('button', { name: 'Compare' }));
  await waitFor(() => expect(address()).toMatch(/^gather\?open=\.notice/));
});

test('a sheet that is nowhere is taken as missing, before all else in the draft', async () => {
  server.changeElsewhere([{ kind: 'sort-rules', sheet: 'css/site.css' }]);
  await opened();
  await userEvent.click(screen.getByRole('button', { name: 'It is nowhere' }));
  await waitFor(() => expect(server.draft().operations).toEqual([
    { kind: 'take-as-missing', sheets: ['css/sit.css'] },
    { kind: 'sort-rules', sheet: 'css/site.css' },
  ])); // oxfmt-ignore
});

test('a mend is put in the draft; what is refused is said', async () => {
  await opened();
  server.says[`PUT ${at}/draft`] = () => [422, { detail: 'old.html was changed since.' }];
  await userEvent.click(screen.getByRole('button', { name: 'Link it' }));
  expect((await screen.findAllByText(/old.html was changed since/)).length).toBeGreaterThan(0);
});

test('one page: its sources, its lines, and the way back', async () => {
  openAt('survey?open=index.html');
  expect((await screen.findByRole('heading', { level: 1 })).textContent).toContain('index');
  expect(await screen.findByRole('button', { name: /^\.notice/ })).toBeTruthy();
  await userEvent.keyboard('j');
  await waitFor(() => expect(address()).toContain('old.html'));
  await userEvent.keyboard('{Escape}');
  await waitFor(() => expect(address()).toBe('survey'));
});
