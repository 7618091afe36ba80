import { Menu, MenuItem } from '../../ui/Menu.tsx';
import type { States } from './useStates.ts';

/** Which two states are compared, in words to change. */
export function StatesChosen({
  states: { from, to, choose },
  revisions,
  linedUp,
}: {
  readonly states: States;
  readonly revisions: readonly { readonly number: number; readonly message: string }[];
  readonly linedUp: boolean;
}) {
  const newest = Math.max(1, ...revisions.map(({ number }) => number));
  const later = (number: number): number | 'draft' => (to === 'draft' || to > number ? to : number < newest ? number + 1 : 'draft'); // prettier-ignore
  const earlier = [...revisions].filter(({ number }) => number < newest || linedUp);
  return (
    <>
      <Menu
        label="The state before"
        trigger={
          <button type="button" className="act">
            r{from}
          </button>
        }
      >
        {earlier.map(({ number, message }) => (
          <MenuItem key={number} onSelect={() => choose(number, later(number))}>
            <b>r{number}</b> <span>{message}</span>
          </MenuItem>
        ))}
      </Menu>{' '}
      against{' '}
      <Menu
        label="The state after"
        trigger={
          <button type="button" className="act">
            {to === 'draft' ? 'the draft' : `r${to}`}
          </button>
        }
      >
        {linedUp && <MenuItem onSelect={() => choose(from, 'draft')}>the draft</MenuItem>}
        {revisions
          .filter(({ number }) => number > from)
          .map(({ number, message }) => (
            <MenuItem key={number} onSelect={() => choose(from, number)}>
              <b>r{number}</b> <span>{message}</span>
            </MenuItem>
          ))}
      </Menu>
    </>
  );
}
