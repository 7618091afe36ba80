import { useState, type ReactNode } from 'react';
import { api, problemText } from '../../app/api.ts';
import { useAppDispatch } from '../../app/hooks.ts';
import { headLook, sayLook } from '../../ui/looks.ts';
import { Field } from '../../ui/Field.tsx';
import { Brand } from '../../ui/Brand.tsx';
import { Button } from '../../ui/Button.tsx';
import { Problem } from '../../ui/Said.tsx';
import { useSignInMutation, useWhoQuery } from './peopleApi.ts';

/** Where there are accounts, what is inside is shown to who is signed in. */
export function SignedIn({ children }: { readonly children: ReactNode }) {
  const { data: who, error } = useWhoQuery();
  if (who && (!who.accounts || who.person)) return children;
  if (who) return <SignInPage />;
  return error === undefined ? null : <p className="font-medium text-error p-6">{problemText(error)}</p>;
}

function SignInPage() {
  const dispatch = useAppDispatch();
  const [signIn, { isLoading, error }] = useSignInMutation();
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const enter = async (): Promise<void> => {
    const { error: refused } = await signIn({ name, password });
    // nothing of what somebody else saw here before stays
    if (!refused) dispatch(api.util.resetApiState());
    else setPassword('');
  };
  return (
    <div className="grid min-h-screen grid-rows-[44px_1fr]">
      <header className={headLook}>
        <Brand />
      </header>
      <main className="mx-auto mt-16 w-80 max-w-[calc(100vw-2rem)]">
        <h1 className={`${sayLook} pb-4`}>Who are you?</h1>
        <form
          className="grid gap-3 text-table"
          onSubmit={(event) => {
            event.preventDefault();
            void enter();
          }}
        >
          <label className="grid gap-1">
            Name
            <Field
              autoComplete="username"
              autoFocus
              required
              value={name}
              onChange={(event) => setName(event.target.value)}
            />
          </label>
          <label className="grid gap-1">
            Password
            <Field
              type="password"
              autoComplete="current-password"
              required
              value={password}
              onChange={(event) => setPassword(event.target.value)}
            />
          </label>
          {error !== undefined && <Problem>{problemText(error)}</Problem>}
          <Button type="submit" next className="justify-self-start" disabled={isLoading}>
            {isLoading ? 'Looking …' : 'Sign in'}
          </Button>
          <p className="text-note text-ink-3">
            Somebody who administers this machine lets people in and gives new passwords.
          </p>
        </form>
      </main>
    </div>
  );
}
