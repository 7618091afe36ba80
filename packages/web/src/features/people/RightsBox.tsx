import { useState } from 'react';
import type { SiteRightName } from '@syndeton/contract';
import { listRowLook } from '../../ui/looks.ts';
import { Act } from '../../ui/Act.tsx';
import { Field, SelectField } from '../../ui/Field.tsx';
import { Button } from '../../ui/Button.tsx';
import { Box } from '../../ui/Box.tsx';
import { Problem } from '../../ui/Said.tsx';
import { useRightsQuery, useSetRightMutation } from './peopleApi.ts';
import { useAttempt } from './useAttempt.ts';

interface Props {
  readonly site: { readonly id: string; readonly name: string };
  readonly onClose: () => void;
}

const words: Readonly<Record<SiteRightName, string>> = { read: 'looks', edit: 'changes', own: 'owns' };
const all = Object.keys(words) as SiteRightName[];

/** Who may look at a site, change it, or own it: give it to others, and remove it. */
export function RightsBox({ site, onClose }: Props) {
  const { data } = useRightsQuery(site.id);
  const [set] = useSetRightMutation();
  const [name, setName] = useState('');
  const [right, setRight] = useState<SiteRightName>('edit');
  const { problem, attempt } = useAttempt();
  const mayGive = data?.mine === 'own';
  const give = (to: string, what: SiteRightName | 'none'): Promise<boolean> =>
    attempt(() => set({ id: site.id, name: to, right: what }).unwrap());
  return (
    <Box closes open onClose={onClose} title={`Who may see ${site.name}`}>
      <div className="grid gap-3 text-table">
        <ul>
          {(data?.rights ?? []).map((one) => (
            <li key={one.name} className={listRowLook}>
              <span>{one.name}</span>
              {mayGive ? (
                <span className="flex items-center gap-3">
                  <RightChoice
                    label={`What ${one.name} may do`}
                    value={one.right}
                    onChoose={(next) => void give(one.name, next)}
                  />
                  <Act aria-label={`Take it back from ${one.name}`} onClick={() => void give(one.name, 'none')}>
                    Take it back
                  </Act>
                </span>
              ) : (
                <span className="text-note text-ink-3">{words[one.right]}</span>
              )}
            </li>
          ))}
        </ul>
        {data?.rights.length === 0 && <p>Nobody but administrators.</p>}
        {mayGive ? (
          <form
            className="flex items-end gap-3"
            onSubmit={(event) => {
              event.preventDefault();
              void give(name.trim(), right).then((done) => done && setName(''));
            }}
          >
            <label className="grid flex-1 gap-1">
              Name of somebody who may sign in
              <Field maxLength={100} value={name} onChange={(event) => setName(event.target.value)} />
            </label>
            <RightChoice label="What they may do" value={right} onChoose={setRight} />
            <Button type="submit" disabled={name.trim() === ''}>
              Give it
            </Button>
          </form>
        ) : (
          <p className="text-note text-ink-3">Who owns the site gives it to others.</p>
        )}
        {problem !== undefined && <Problem>{problem}</Problem>}
      </div>
    </Box>
  );
}

interface ChoiceProps {
  readonly label: string;
  readonly value: SiteRightName;
  readonly onChoose: (right: SiteRightName) => void;
}

function RightChoice({ label, value, onChoose }: ChoiceProps) {
  return (
    <SelectField
      className="w-auto!"
      aria-label={label}
      value={value}
      onChange={(event) => onChoose(event.target.value as SiteRightName)}
    >
      {all.map((one) => (
        <option key={one} value={one}>
          {words[one]}
        </option>
      ))}
    </SelectField>
  );
}
