import { serialize } from 'cookie';
import type { Request, RequestHandler } from 'express';
import { rateLimit } from 'express-rate-limit';
import type { RouteName } from '@syndeton/contract';
import { Refusal } from '../../http/refusal.ts';
import type { Handlers } from '../../http/router.ts';
import { whoAsks, type Person } from '../../people/whoAsks.ts';
import { cookieName, secretOf } from './admission.ts';
import type { PeopleService } from './peopleService.ts';

type Names =
  | 'who'
  | 'signIn'
  | 'signOut'
  | 'changePassword'
  | 'listPeople'
  | 'addPerson'
  | 'removePerson'
  | 'setPassword'
  | 'listTokens'
  | 'makeToken'
  | 'dropToken'
  | 'listRights'
  | 'setRight';

/** `secure`: the application is opened by https, and the cookie goes by nothing else. */
export function peopleHandlers(people: PeopleService, isOn: boolean, secure: boolean): Handlers<Names> {
  const cookie = (value: string, expires: Date): string =>
    serialize(cookieName, value, { path: '/', httpOnly: true, sameSite: 'strict', secure, expires });
  const someone = (): Person => {
    const person = whoAsks();
    if (!person) throw new Refusal('not-allowed', 'There are no accounts here: who can open it may do everything.');
    return person;
  };
  return {
    who: () => ({ accounts: isOn, person: whoAsks() ?? null }),
    async signIn({ body }, { response }) {
      if (!isOn) throw new Refusal('not-allowed', 'There are no accounts here: nobody has to sign in.');
      const { person, secret, endsAt } = await people.signIn(body.name, body.password);
      response.setHeader('set-cookie', cookie(secret, endsAt));
      return { accounts: true, person };
    },
    async signOut(_given, { response }) {
      const secret = secretOf(response.req);
      if (secret !== undefined) await people.signOut(secret);
      response.setHeader('set-cookie', cookie('', new Date(0)));
    },
    changePassword: ({ body }, { response }) =>
      people.changePassword(someone(), body.old, body.password, secretOf(response.req)!),
    async listPeople() {
      someone();
      return { people: [...(await people.list())] };
    },
    addPerson: ({ body }) => (someone(), people.add(body)),
    removePerson: ({ params }) => (someone(), people.remove(params.person)),
    setPassword: ({ params, body }) => (someone(), people.setPassword(params.person, body.password)),
    listTokens: async () => ({ tokens: [...(await people.tokens(someone()))] }),
    makeToken: ({ body }) => people.makeToken(someone(), body.label),
    dropToken: ({ params }) => people.dropToken(someone(), params.token),
    listRights: ({ params }) => people.rights(someone(), params.id),
    setRight: ({ params, body }) => people.setRight(someone(), params.id, body),
  };
}

/** Passwords can be tried so often: in a quarter of an hour ten times for one name, from wherever, and fifty times from one address. */
export function passwordLimits(): Partial<Record<RouteName, readonly RequestHandler[]>> {
  const byAddress = limitBy(50, (request) => `from ${request.ip}`);
  const byName = limitBy(
    10,
    (request) => `name ${String((request.body as { name?: unknown } | undefined)?.name).toLowerCase()}`,
  );
  return { signIn: [byAddress, byName], changePassword: [byAddress] };
}

function limitBy(limit: number, keyOf: (request: Request) => string): RequestHandler {
  return rateLimit({
    windowMs: 15 * 60_000,
    limit,
    keyGenerator: keyOf,
    validate: false,
    skipSuccessfulRequests: true,
    handler: () => {
      throw new Refusal('too-often', 'Too many passwords were tried. Wait a quarter of an hour.');
    },
  });
}
