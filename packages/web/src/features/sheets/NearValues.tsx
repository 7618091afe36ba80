import type { NearValues as Group } from '@syndeton/core';
import { count } from '../../ui/format.ts';
import { Swatch } from '../../ui/Swatch.tsx';

interface Props {
  readonly groups: readonly Group[];
  /** By group, the value that stays; a group without one stays as it is. */
  readonly chosen: ReadonlyMap<Group, string>;
  readonly onChoose: (group: Group, value: string | undefined) => void;
}

/** Values that hardly differ; in each group one can take the place of the others. */
export const NearValues = ({ groups, chosen, onChoose }: Props) => (
  <ul className="grid max-h-80 gap-3 overflow-auto">
    {groups.map((group) => (
      <li key={`${group.property ?? ''} ${group.values[0]!.value}`}>
        <fieldset className="grid gap-1 text-table">
          <legend>{group.property === undefined ? 'Colours' : <code>{group.property}</code>}</legend>
          {[...group.values.map(({ value }) => value), undefined].map((value) => (
            <label key={value ?? ''} className="flex items-center gap-2">
              <input type="radio" checked={chosen.get(group) === value} onChange={() => onChoose(group, value)} />
              {value === undefined ? (
                'leave them as they are'
              ) : (
                <>
                  {group.property === undefined && <Swatch colour={value} />}
                  <code>{value}</code> {timesOf(group, value)}
                </>
              )}
            </label>
          ))}
        </fieldset>
      </li>
    ))}
  </ul>
);

const timesOf = ({ values }: Group, value: string): string =>
  count(values.find((one) => one.value === value)!.uses, 'time');
