import { Act } from './Act.tsx';
import type { Medium } from './frameMedium.ts';
import { heldStates, type HeldState } from './frameState.ts';
import { Menu, MenuItem } from './Menu.tsx';
import { windowWidths } from './ScaledPage.tsx';

/** What is chosen, in words that open the other choices. */
const ChoiceMenu = <Value extends string | number>({
  label,
  shown,
  values,
  unit = '',
  onChoose,
}: {
  readonly label: string;
  readonly shown: string;
  readonly values: readonly Value[];
  readonly unit?: string;
  readonly onChoose: (value: Value) => void;
}) => (
  <Menu label={label} trigger={<Act>{shown}</Act>}>
    {values.map((one) => (
      <MenuItem key={one} onSelect={() => onChoose(one)}>
        {one}
        {unit}
      </MenuItem>
    ))}
  </Menu>
);

interface WidthProps {
  readonly width: number;
  readonly onWidth: (width: number) => void;
}

/** How wide the window of a page is. */
export const WidthMenu = ({ width, onWidth }: WidthProps) => (
  <ChoiceMenu
    label="Width of the window"
    shown={`${width} px wide`}
    values={windowWidths}
    unit=" px"
    onChoose={onWidth}
  />
);

interface MediumProps {
  readonly medium: string;
  readonly onMedium: (medium: Medium) => void;
}

/** The medium whose rules a page applies. */
export const MediumMenu = ({ medium, onMedium }: MediumProps) => (
  <ChoiceMenu<Medium> label="Medium" shown={medium} values={['screen', 'print']} onChoose={onMedium} />
);

interface StateProps {
  readonly state: HeldState;
  readonly onState: (state: HeldState) => void;
}

/** The state all elements of a page are held in. */
export const StateMenu = ({ state, onState }: StateProps) => (
  <ChoiceMenu label="State of all elements" shown={state} values={heldStates} onChoose={onState} />
);
