import type { Request } from 'express';
import { parse } from 'cookie';
import { needs, type RouteName } from '@syndeton/contract';
import type { Person } from '../../people/whoAsks.ts';
import type { PeopleService } from './peopleService.ts';

/** Says who asks, and refuses what that person may not ask. */
export interface Admission {
  readonly isOn: boolean;
  readonly admit: (request: Request, name: RouteName) => Promise<Person | undefined>;
  /** For a file of a site shown by its address. */
  readonly admitPreview: (request: Request, siteId: string) => Promise<void>;
}

export const cookieName = 'syndeton';

/** Everybody may do everything: one person on a machine of their own. */
export const openDoor: Admission = {
  isOn: false,
  admit: () => Promise.resolve(undefined),
  admitPreview: () => Promise.resolve(),
};

export function makeAdmission(people: PeopleService): Admission {
  async function who(request: Request): Promise<Person | undefined> {
    const secret = secretOf(request);
    return secret === undefined ? undefined : people.whoHas(secret);
  }
  return {
    isOn: true,
    async admit(request, name) {
      const person = await who(request);
      const { id } = request.params;
      const siteId = typeof id === 'string' ? id : undefined;
      await people.check(person, needs[name], siteId);
      // another site it is held against has to be one that may be seen
      const { against } = request.query;
      for (const one of [against].flat()) if (typeof one === 'string') await people.check(person, 'read', one);
      return person;
    },
    async admitPreview(request, siteId) {
      await people.check(await who(request), 'read', siteId);
    },
  };
}

/** From the cookie of a browser, or the key a program sends. RFC 6750, "Authorization Request Header Field". */
export function secretOf(request: Request): string | undefined {
  const bearer = /^Bearer ([\w-]{20,200})$/.exec(request.headers.authorization ?? '');
  if (bearer) return bearer[1];
  return parse(request.headers.cookie ?? '')[cookieName];
}
