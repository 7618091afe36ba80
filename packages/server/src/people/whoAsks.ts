import { AsyncLocalStorage } from 'node:async_hooks';

/** Somebody who is signed in. */
export interface Person {
  readonly id: string;
  readonly name: string;
  readonly isAdministrator: boolean;
}

const asking = new AsyncLocalStorage<Person | undefined>();

/** Who asked for what is being done; undefined where there are no accounts, and for what the server does by itself. */
export const whoAsks = (): Person | undefined => asking.getStore();

/** Does something in the name of a person, all that goes on after it included. */
export const asPerson = <Result>(person: Person | undefined, act: () => Result): Result => asking.run(person, act);
