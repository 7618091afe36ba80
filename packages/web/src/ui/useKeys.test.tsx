import { expect, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Box } from './Box.tsx';
import { Menu, MenuItem } from './Menu.tsx';
import { Tick } from './Tick.tsx';
import { useKeys } from './useKeys.ts';

test('keys with Ctrl act from a box to tick and from what opens a menu, which take Enter for themselves', async () => {
  const acts: string[] = [];
  function Keys() {
    useKeys({ 'ctrl+enter': () => void acts.push('save') });
    return (
      <>
        <Tick checked={false} onChange={() => void acts.push('ticked')} label="One" />
        <Menu label="More" trigger={<button type="button">More</button>}>
          <MenuItem onSelect={() => undefined}>Rename</MenuItem>
        </Menu>
        <textarea aria-label="Text" onKeyDown={(event) => event.preventDefault()} />
      </>
    );
  }
  render(<Keys />);
  const pressAt = async (role: string, name: string): Promise<void> => {
    screen.getByRole(role, { name }).focus();
    await userEvent.keyboard('{Control>}{Enter}{/Control}');
  };
  await pressAt('checkbox', 'One');
  await pressAt('button', 'More');
  expect(acts).toEqual(['save', 'save']);
  expect(screen.queryByRole('menuitem')).toBeNull();
  // an editor that knows the key
  await pressAt('textbox', 'Text');
  expect(acts).toHaveLength(2);
});

test('while a box asks something nothing is done under it; its own form may be sent by the same keys', async () => {
  const acts: string[] = [];
  function Keys({ open }: { readonly open: boolean }) {
    useKeys({ 'ctrl+enter': () => void acts.push('save'), m: () => void acts.push('m') });
    return (
      <Box open={open} onClose={() => undefined} title="Why?">
        <textarea aria-label="Why" onKeyDown={() => void acts.push('typed')} />
        <button type="button">Cancel</button>
      </Box>
    );
  }
  const { rerender } = render(<Keys open />);
  screen.getByRole('textbox').focus();
  await userEvent.keyboard('{Control>}{Enter}{/Control}');
  expect(new Set(acts)).toEqual(new Set(['typed']));
  screen.getByRole('button', { name: 'Cancel' }).focus();
  await userEvent.keyboard('{Control>}{Enter}{/Control}m');
  expect(acts).not.toContain('save');
  expect(acts).not.toContain('m');
  rerender(<Keys open={false} />);
  await userEvent.keyboard('{Control>}{Enter}{/Control}m');
  expect(acts.slice(-2)).toEqual(['save', 'm']);
});
