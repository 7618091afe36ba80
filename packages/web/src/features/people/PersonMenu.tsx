import { UserRound } from 'lucide-react';
import { useState } from 'react';
import { iconLook, squareLook } from '../../ui/looks.ts';
import { api } from '../../app/api.ts';
import { useAppDispatch } from '../../app/hooks.ts';

import { Menu, MenuItem } from '../../ui/Menu.tsx';
import { KeysBox } from './KeysBox.tsx';
import { PasswordBox } from './PasswordBox.tsx';
import { PeopleBox } from './PeopleBox.tsx';
import { RightsBox } from './RightsBox.tsx';
import { useSignOutMutation, useWhoQuery } from './peopleApi.ts';

interface Props {
  /** The site at hand, if one is. */
  readonly site?: { readonly id: string; readonly name: string } | undefined;
}

/** Who is signed in, and what that person can do about accounts; nothing where there are none. */
export function PersonMenu({ site }: Props) {
  const { data: who } = useWhoQuery();
  const [signOut] = useSignOutMutation();
  const [open, setOpen] = useState<'password' | 'keys' | 'people' | 'rights' | undefined>(undefined);
  const dispatch = useAppDispatch();
  const person = who?.person;
  if (!person) return null;
  const leave = async (): Promise<void> => {
    await signOut();
    dispatch(api.util.resetApiState());
  };
  const close = (): void => setOpen(undefined);
  return (
    <>
      <Menu
        label="You"
        trigger={
          <button type="button" className={squareLook} aria-label={`Signed in as ${person.name}`} title={person.name}>
            <UserRound className={iconLook} aria-hidden="true" />
          </button>
        }
      >
        <p className="text-note text-ink-3 px-3 py-1">
          {person.name}
          {person.isAdministrator ? ', administrator' : ''}
        </p>
        {site && <MenuItem onSelect={() => setOpen('rights')}>Who may see {site.name}</MenuItem>}
        <MenuItem onSelect={() => setOpen('password')}>Change your password</MenuItem>
        <MenuItem onSelect={() => setOpen('keys')}>Keys for programs</MenuItem>
        {person.isAdministrator && <MenuItem onSelect={() => setOpen('people')}>People</MenuItem>}
        <MenuItem onSelect={() => void leave()}>Sign out</MenuItem>
      </Menu>
      {open === 'rights' && site && <RightsBox site={site} onClose={close} />}
      {open === 'password' && <PasswordBox onClose={close} />}
      {open === 'keys' && <KeysBox onClose={close} />}
      {open === 'people' && <PeopleBox own={person.id} onClose={close} />}
    </>
  );
}
