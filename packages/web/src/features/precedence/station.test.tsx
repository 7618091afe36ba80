import { expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { at, openAt, recordedSite } from '../../testing/recordedSite.tsx';

const server = recordedSite();
const search = () => new URLSearchParams(window.location.search);
const last = () => server.draft().operations.at(-1);

test('a question: who decides on how many pages, with the reason; asked again from what was asked before', async () => {
  openAt('precedence?way=question&selector=h2&property=color');
  expect(await screen.findByRole('heading', { level: 1, name: 'What decides color of h2' })).toBeTruthy();
  await waitFor(() => expect(document.body.textContent).toContain('#0b5563'));
  const property = screen.getByRole('textbox', { name: 'Property' });
  await userEvent.clear(property);
  await userEvent.type(property, 'font-size{Enter}');
  await waitFor(() => expect(search().get('property')).toBe('font-size'));
  await userEvent.click(await screen.findByRole('button', { name: 'link colour' }));
  await waitFor(() => expect([search().get('selector'), search().get('property')]).toEqual(['a', 'color']));
  await userEvent.click(screen.getByRole('button', { name: 'h2, font-size' }).closest('button')!);
  await waitFor(() => expect(search().get('selector')).toBe('h2'));
  await userEvent.click(screen.getByRole('button', { name: 'screen' }));
  await waitFor(() => expect(search().get('medium')).toBe('print'));
});

test('an override is dropped or made shared; what is refused is said', async () => {
  openAt('precedence?way=overrides');
  expect((await screen.findByRole('heading', { level: 1, name: /beats/ })).textContent).toBe(
    '1 declaration in pages beats a shared one.',
  );
  await userEvent.click(screen.getByRole('button', { name: 'Drop' }));
  await waitFor(() => expect(last()).toMatchObject({ kind: 'drop-declaration' }));
  await userEvent.click(screen.getByRole('button', { name: 'Make shared' }));
  await waitFor(() => expect(server.draft().operations).toHaveLength(2));
  server.says[`PUT ${at}/draft`] = () => [422, { detail: 'h2 is not there any more.' }];
  await userEvent.click(screen.getByRole('button', { name: 'Drop' }));
  expect((await screen.findAllByText(/h2 is not there any more/)).length).toBeGreaterThan(0);
});

test('why it is kept is written down', async () => {
  server.says[`PUT ${at}/notes`] = () => [204];
  openAt('precedence?way=overrides');
  await userEvent.click(await screen.findByRole('button', { name: 'h2' }));
  await waitFor(() => expect(search().get('override')).toContain('h2'));
  await userEvent.click(await screen.findByRole('button', { name: 'Keep it, with a note' }));
  await userEvent.type(screen.getByRole('textbox', { name: 'Why it is kept' }), 'older than the sheet{Enter}');
  await waitFor(() =>
    expect(server.asked.filter((one) => one.startsWith('PUT'))).toEqual([
      `PUT ${at}/notes {"override":"rule h2 color: #0b5563","note":"older than the sheet"}`,
    ]),
  );
});

test('overrides of the chosen pages only', async () => {
  openAt('precedence?way=overrides&page=old.html');
  expect((await screen.findByRole('heading', { level: 1, name: /beats/ })).textContent).toBe(
    'No declaration in these pages beats a shared one.',
  );
});

test('an analysis that fails says so and leaves the rest usable', async () => {
  server.says[`GET ${at}/revisions/1/overrides`] = () => [503, { detail: 'This took longer than 300 seconds.' }];
  openAt('precedence?way=overrides');
  const alert = await screen.findByRole('alert');
  expect(alert.textContent).toContain('longer than 300 seconds');
  const ways = within(screen.getByRole('group', { name: 'Ways to ask' }));
  await userEvent.click(ways.getByRole('button', { name: 'A question' }));
  await waitFor(() => expect(search().get('way')).toBe('question'));
});
