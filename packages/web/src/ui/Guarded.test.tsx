import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Guarded } from './Guarded.tsx';

let said: ReturnType<typeof jest.spyOn>;
beforeEach(() => {
  // React tells of each error it passes on
  said = jest.spyOn(console, 'error').mockImplementation(() => undefined);
});
afterEach(() => said.mockRestore());

let wrong: Error | undefined;
function View() {
  if (wrong) throw wrong;
  return <p>all is well</p>;
}
const shown = (at = 'survey') => (
  <Guarded at={at}>
    <View />
  </Guarded>
);

test('what goes wrong in a view says what is safe and what to report, and can be tried again', async () => {
  wrong = new Error('no such thing as x');
  render(shown());
  expect(screen.getByRole('alert').textContent).toMatch(
    /went wrong in this view.*draft is kept by the server.*no such thing as x/,
  );
  await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
  expect(screen.getByRole('alert')).toBeTruthy();
  wrong = undefined;
  await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
  expect(screen.getByText('all is well')).toBeTruthy();
});

test('another place begins anew', () => {
  wrong = new Error('x');
  const { rerender } = render(shown());
  wrong = undefined;
  rerender(shown());
  expect(screen.getByRole('alert')).toBeTruthy();
  rerender(shown('gather'));
  expect(screen.getByText('all is well')).toBeTruthy();
});

test.each([
  'Failed to fetch dynamically imported module: http://127.0.0.1/assets/x.js',
  'error loading dynamically imported module: http://127.0.0.1/assets/x.js',
  'Importing a module script failed.',
])('a part that cannot be fetched: %s', (message) => {
  wrong = new Error(message);
  render(shown());
  expect(screen.getByRole('alert').textContent).toMatch(
    /could not be fetched\. The server does not answer, or is newer/,
  );
  expect(screen.getByRole('button').textContent).toBe('Load the window anew');
});
