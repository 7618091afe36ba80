import { expect, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Menu, MenuItem } from './Menu.tsx';
import { Tick } from './Tick.tsx';
import { useKeys } from './useKeys.ts';

test('keys with Ctrl act from a box to tick and from what opens a menu, which take Enter for themselves; the form of a box has its own', async () => {
  const acts: string[] = [];
  function Keys() {
    useKeys({ 'ctrl+enter': () => void acts.push('save') });
    return (
      <>
        <Tick checked={false} onChange={() => void acts.push('ticked')} label="One" />
        <Menu label="More" trigger={<button type="button">More</button>}>
          <MenuItem onSelect={() => undefined}>Rename</MenuItem>
        </Menu>
        <div role="dialog">
          <form>
            <textarea aria-label="Why" onKeyDown={() => void acts.push('form')} />
          </form>
        </div>
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
  // an editor that knows the key, and a form that is sent by it
  await pressAt('textbox', 'Text');
  await pressAt('textbox', 'Why');
  expect(acts.filter((act) => act === 'save')).toHaveLength(2);
  expect(acts).toContain('form');
});
