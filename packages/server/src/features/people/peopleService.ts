import { createHash, randomBytes } from 'node:crypto';
import type {
  AddPersonRequest,
  MadeTokenReply,
  Needs,
  RightRequest,
  SiteRightsReply,
  TokenReply,
} from '@syndeton/contract';
import { Refusal } from '../../http/refusal.ts';
import { hashPassword, isPassword } from '../../people/passwords.ts';
import type { Person } from '../../people/whoAsks.ts';
import type { PeopleStore } from '../../stores/peopleStore.ts';
import { noSuchSite } from '../sites/index.ts';

/** What stands for a person who signed in: told to the browser once, never kept. */
export interface Pass {
  readonly person: Person;
  readonly secret: string;
  readonly endsAt: Date;
}

/** People and their rights. `undefined` where a person is asked for: nobody is signed in. */
export interface PeopleService {
  signIn(name: string, password: string): Promise<Pass>;
  signOut(secret: string): Promise<void>;
  whoHas(secret: string): Promise<Person | undefined>;
  changePassword(person: Person, old: string, password: string, secret: string): Promise<void>;
  list(): Promise<readonly Person[]>;
  add(person: AddPersonRequest): Promise<Person>;
  remove(id: string): Promise<void>;
  setPassword(id: string, password: string): Promise<void>;
  tokens(person: Person): Promise<readonly TokenReply[]>;
  makeToken(person: Person, label: string): Promise<MadeTokenReply>;
  dropToken(person: Person, id: string): Promise<void>;
  /** Refuses what the person may not do; of a site that it may not see it says that there is none. */
  check(person: Person | undefined, needs: Needs, siteId: string | undefined): Promise<void>;
  rights(person: Person, siteId: string): Promise<SiteRightsReply>;
  setRight(person: Person, siteId: string, wanted: RightRequest): Promise<SiteRightsReply>;
  purge(): Promise<void>;
}

/** How long a browser stays signed in, in milliseconds. */
const signedInFor = 14 * 86_400_000;
const uuid = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;
const ranks = { read: 1, edit: 2, own: 3 } as const;

/** Of 256 random bits a plain hash tells nothing. */
const hashOf = (secret: string): string => createHash('sha256').update(secret).digest('hex');
const newSecret = (): string => randomBytes(32).toString('base64url');

export function makePeopleService(store: PeopleStore): PeopleService {
  async function rightOf(person: Person, siteId: string): Promise<keyof typeof ranks | undefined> {
    if (person.isAdministrator) return 'own';
    return uuid.test(siteId) ? store.right(siteId, person.id) : undefined;
  }

  async function rights(person: Person, siteId: string): Promise<SiteRightsReply> {
    return { mine: (await rightOf(person, siteId)) ?? 'read', rights: [...(await store.rights(siteId))] };
  }

  return {
    async signIn(name, password) {
      const found = await store.byName(name.trim());
      if (!(await isPassword(password, found?.password)) || !found)
        throw new Refusal('sign-in', 'This name and password do not belong together.');
      const { id, isAdministrator } = found;
      const secret = newSecret();
      const endsAt = new Date(Date.now() + signedInFor);
      await store.addPass({ hash: hashOf(secret), personId: id, label: null, endsAt });
      return { person: { id, name: found.name, isAdministrator }, secret, endsAt };
    },
    signOut: (secret) => store.dropPass(hashOf(secret)),
    whoHas: (secret) => store.personOf(hashOf(secret)),
    async changePassword(person, old, password, secret) {
      const found = await store.byId(person.id);
      if (!(await isPassword(old, found?.password)))
        throw new Refusal('not-allowed', 'That is not your password until now. Nothing was changed.');
      await store.setPassword(person.id, await hashPassword(password), hashOf(secret));
    },
    list: () => store.list(),
    async add({ name, password, isAdministrator = false }) {
      const person = await store.add({ name, password: await hashPassword(password), isAdministrator });
      if (!person) throw new Refusal('person-refused', `There is somebody named ${name} already.`);
      return person;
    },
    async remove(id) {
      const outcome = uuid.test(id) ? await store.remove(id) : 'nobody';
      if (outcome === 'nobody') throw noSuchPerson(id);
      if (outcome === 'last-administrator')
        throw new Refusal('person-refused', 'This is the last administrator. Make another one first.');
    },
    async setPassword(id, password) {
      if (!uuid.test(id) || !(await store.setPassword(id, await hashPassword(password)))) throw noSuchPerson(id);
    },
    async tokens(person) {
      return (await store.tokens(person.id)).map(tokenReply);
    },
    async makeToken(person, label) {
      const token = newSecret();
      const made = await store.addPass({ hash: hashOf(token), personId: person.id, label, endsAt: null });
      return { ...tokenReply(made), token };
    },
    async dropToken(person, id) {
      if (!uuid.test(id) || !(await store.dropToken(person.id, id)))
        throw new Refusal('file-not-found', 'You have no such key.');
    },
    async check(person, needs, siteId) {
      if (needs === 'anyone') return;
      if (!person) throw new Refusal('sign-in', 'Sign in first.');
      if (needs === 'person') return;
      if (needs === 'administrator') {
        if (!person.isAdministrator) throw new Refusal('not-allowed', 'Only an administrator may do that.');
        return;
      }
      const right = await rightOf(person, siteId ?? '');
      if (right === undefined) throw noSuchSite(siteId ?? '');
      if (ranks[right] < ranks[needs])
        throw new Refusal(
          'not-allowed',
          needs === 'own' ? 'Only who owns the site may do that.' : 'You may look at this site, not change it.',
        );
    },
    rights,
    async setRight(person, siteId, { name, right }) {
      const other = await store.byName(name.trim());
      if (!other) throw new Refusal('person-not-found', `Nobody here is named ${name}.`);
      if (!(await store.setRight(siteId, other.id, right)))
        throw new Refusal('person-refused', 'Nobody would own the site any more. Let somebody else own it first.');
      return rights(person, siteId);
    },
    purge: () => store.purge(),
  };
}

const noSuchPerson = (id: string): Refusal => new Refusal('person-not-found', `There is nobody with the id ${id}.`);

const tokenReply = ({
  id,
  label,
  createdAt,
}: {
  readonly id: string;
  readonly label: string;
  readonly createdAt: Date;
}): TokenReply => ({ id, label, createdAt: createdAt.toISOString() });
