import type { SiteRightName } from '@syndeton/contract';
import type { Person } from '../people/whoAsks.ts';

export interface KnownPerson extends Person {
  /** What is kept of the password. */
  readonly password: string;
}

/** A key for the API. */
export interface TokenRecord {
  readonly id: string;
  readonly label: string;
  readonly createdAt: Date;
}

/** What came of a write that must leave somebody who may do everything. */
export type PersonGone = 'done' | 'nobody' | 'last-administrator';

/** People, what stands for them, and what they may do with sites. */
export interface PeopleStore {
  /** In order of names. */
  list(): Promise<readonly Person[]>;
  byName(name: string): Promise<KnownPerson | undefined>;
  byId(id: string): Promise<KnownPerson | undefined>;
  /** Undefined where somebody has that name, in whatever case. */
  add(person: Omit<KnownPerson, 'id'>): Promise<Person | undefined>;
  remove(id: string): Promise<PersonGone>;
  /** Also signs the person out everywhere but where `except` stands for it, a hash; keys for the API end as well. */
  setPassword(id: string, password: string, except?: string): Promise<boolean>;
  /** `hash`: of what stands for the person from now on. */
  addPass(pass: {
    readonly hash: string;
    readonly personId: string;
    readonly label: string | null;
    readonly endsAt: Date | null;
  }): Promise<TokenRecord>;
  /** Whom it stands for, unless it ended. */
  personOf(hash: string): Promise<Person | undefined>;
  dropPass(hash: string): Promise<void>;
  tokens(personId: string): Promise<readonly TokenRecord[]>;
  dropToken(personId: string, id: string): Promise<boolean>;
  /** What has ended goes. */
  purge(): Promise<void>;
  right(siteId: string, personId: string): Promise<SiteRightName | undefined>;
  /** Those with most rights first. */
  rights(siteId: string): Promise<readonly { readonly name: string; readonly right: SiteRightName }[]>;
  /** False where the last one who owns the site would own it no more. */
  setRight(siteId: string, personId: string, right: SiteRightName | 'none'): Promise<boolean>;
}
