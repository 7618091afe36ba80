import {
  AddPersonBody,
  MadeToken,
  OwnPasswordBody,
  PasswordBody,
  People,
  Person,
  RightBody,
  SignInBody,
  SiteRights,
  TokenBody,
  Tokens,
  Who,
} from '../people.ts';
import type { Route } from '../route.ts';

/** Who asks, who may, and who else there is. */
export const peopleRoutes = {
  who: {
    summary: 'Who asks, and whether there are accounts',
    reply: { status: 200, body: Who },
    problems: [],
  },
  signIn: {
    summary: 'Sign in with a name and password; a cookie stands for it from then on',
    body: SignInBody,
    reply: { status: 200, body: Who },
    problems: [401, 429],
  },
  signOut: {
    summary: 'Sign out here',
    reply: { status: 204, body: 'empty' },
    problems: [],
  },
  changePassword: {
    summary: 'Change the own password; whoever is signed in elsewhere with the old one is signed out',
    body: OwnPasswordBody,
    reply: { status: 204, body: 'empty' },
    problems: [401, 429],
  },
  listPeople: {
    summary: 'Everybody who may sign in',
    reply: { status: 200, body: People },
    problems: [403],
  },
  addPerson: {
    summary: 'Let somebody sign in',
    body: AddPersonBody,
    reply: { status: 201, body: Person },
    problems: [403, 409],
  },
  removePerson: {
    summary: 'Remove somebody; sites and what was saved stay',
    reply: { status: 204, body: 'empty' },
    problems: [403, 404, 409],
  },
  setPassword: {
    summary: "Set somebody's password; that person is signed out everywhere",
    body: PasswordBody,
    reply: { status: 204, body: 'empty' },
    problems: [403, 404],
  },
  listTokens: {
    summary: 'The own keys for the API',
    reply: { status: 200, body: Tokens },
    problems: [],
  },
  makeToken: {
    summary: 'Make a key for the API: sent as `Authorization: Bearer …` it stands for its person',
    body: TokenBody,
    reply: { status: 201, body: MadeToken },
    problems: [],
  },
  dropToken: {
    summary: 'Take an own key back',
    reply: { status: 204, body: 'empty' },
    problems: [404],
  },
  listRights: {
    summary: 'Who may do what with a site',
    reply: { status: 200, body: SiteRights },
    problems: [404],
  },
  setRight: {
    summary: 'Give somebody a right on a site, or take it back with `none`',
    body: RightBody,
    reply: { status: 200, body: SiteRights },
    problems: [403, 404, 409],
  },
} as const satisfies Record<string, Route>;
