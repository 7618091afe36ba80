import { afterEach, expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { CopiedText } from './CopiedText.tsx';

const tag = '<link rel="stylesheet" href="css/site.css">';
const writeText = jest.fn<(text: string) => Promise<void>>();

/** What the browser allows: the clipboard, the copying of what is selected. */
function browser(clipboard: boolean, command: boolean): void {
  Object.defineProperty(navigator, 'clipboard', { configurable: true, value: clipboard ? { writeText } : undefined });
  Object.defineProperty(document, 'execCommand', { configurable: true, value: () => command });
}

async function copy(): Promise<string | null> {
  render(<CopiedText text={tag} words="first in the head" />);
  await userEvent.click(screen.getByRole('button', { name: 'Copy' }));
  return screen.getByRole('status').textContent;
}

afterEach(() => {
  writeText.mockReset();
  getSelection()?.removeAllRanges();
});

test('to the clipboard', async () => {
  browser(true, false);
  writeText.mockResolvedValue();
  expect(await copy()).toBe('Copied');
  expect(writeText).toHaveBeenCalledWith(tag);
});

test('without a clipboard, as what is selected', async () => {
  browser(false, true);
  expect(await copy()).toBe('Copied');
  expect(getSelection()!.toString()).toBe(tag);
});

test('where nothing is allowed it is selected, and the keys are told', async () => {
  browser(true, false);
  writeText.mockRejectedValue(new Error('not allowed'));
  expect(await copy()).toBe('Selected: Ctrl+C copies it');
  expect(getSelection()!.toString()).toBe(tag);
});
