import type { Medium } from './frameMedium.ts';
import { heldStates, type HeldState } from './frameState.ts';
import { Menu, MenuItem } from './Menu.tsx';
import { windowWidths } from './ScaledPage.tsx';

/** How wide the window of a page is. */
export const WidthMenu = ({
  width,
  onWidth,
}: {
  readonly width: number;
  readonly onWidth: (width: number) => void;
}) => (
  <Menu
    label="Width of the window"
    trigger={
      <button type="button" className="act">
        {width} px wide
      </button>
    }
  >
    {windowWidths.map((one) => (
      <MenuItem key={one} onSelect={() => onWidth(one)}>
        {one} px
      </MenuItem>
    ))}
  </Menu>
);

/** The medium whose rules a page applies. */
export const MediumMenu = ({
  medium,
  onMedium,
}: {
  readonly medium: string;
  readonly onMedium: (medium: Medium) => void;
}) => (
  <Menu
    label="Medium"
    trigger={
      <button type="button" className="act">
        {medium}
      </button>
    }
  >
    <MenuItem onSelect={() => onMedium('screen')}>screen</MenuItem>
    <MenuItem onSelect={() => onMedium('print')}>print</MenuItem>
  </Menu>
);

/** The state all elements of a page are held in. */
export const StateMenu = ({
  state,
  onState,
}: {
  readonly state: HeldState;
  readonly onState: (state: HeldState) => void;
}) => (
  <Menu
    label="State of all elements"
    trigger={
      <button type="button" className="act">
        {state}
      </button>
    }
  >
    {heldStates.map((one) => (
      <MenuItem key={one} onSelect={() => onState(one)}>
        {one}
      </MenuItem>
    ))}
  </Menu>
);
