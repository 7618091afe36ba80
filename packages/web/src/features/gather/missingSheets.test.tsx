import { expect, jest, test } from '@jest/globals';
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MissingSheets } from './MissingSheets.tsx';

const gone = { path: 'css/old.css', isRemote: false, pages: ['a.html'] };
const older = { path: 'css/older.css', isRemote: false, pages: ['b.html'] };
const away = { path: 'https://fonts.example/f.css', isRemote: true, pages: ['a.html', 'b.html'] };

function ask(missing: readonly (typeof gone)[]) {
  const on = { onNowhere: jest.fn(), onCorrect: jest.fn(), onBringIn: jest.fn() };
  render(<MissingSheets missing={[...missing]} correctable={new Set(['css/old.css'])} {...on} />);
  return on;
}

test('what is nowhere and what is on another server are two questions', async () => {
  const on = ask([gone, older, away]);
  const here = within(screen.getByRole('region', { name: 'Sheets that are not here' }));
  await userEvent.click(here.getByRole('button', { name: 'All are nowhere, on the server too' }));
  expect(on.onNowhere).toHaveBeenLastCalledWith(['css/old.css', 'css/older.css']);
  await userEvent.click(here.getByRole('button', { name: 'Correct the path' }));
  expect(on.onCorrect).toHaveBeenCalledWith('css/old.css');
  const elsewhere = within(screen.getByRole('region', { name: 'Sheets on other servers' }));
  await userEvent.click(elsewhere.getByRole('button', { name: 'It holds fonts alone, or is gone' }));
  expect(on.onNowhere).toHaveBeenLastCalledWith(['https://fonts.example/f.css']);
});

test('only what there is to ask is asked', () => {
  ask([away]);
  expect(screen.queryByRole('region', { name: 'Sheets that are not here' })).toBeNull();
  expect(screen.getByText(/is on another server, and what it says is not known/)).toBeTruthy();
});
