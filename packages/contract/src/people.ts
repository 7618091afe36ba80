import { Type, type Static } from '@sinclair/typebox';

const Name = Type.String({ minLength: 1, maxLength: 100, pattern: '^\\S(.*\\S)?$' });
const Password = Type.String({ minLength: 10, maxLength: 200 });
/** A password as it is typed: what is too short is wrong, no more. */
const Typed = Type.String({ maxLength: 200 });

/** What somebody may do with a site: look at it, change it, or besides give it to others and remove it. */
export const SiteRight = Type.Union([Type.Literal('read'), Type.Literal('edit'), Type.Literal('own')]);

export const Person = Type.Object(
  { id: Type.String({ format: 'uuid' }), name: Type.String(), isAdministrator: Type.Boolean() },
  { $id: 'Person' },
);

/** Who asks: nobody where there are no accounts, or before signing in. */
export const Who = Type.Object({ accounts: Type.Boolean(), person: Type.Union([Person, Type.Null()]) }, { $id: 'Who' });

export const SignInBody = Type.Object(
  { name: Type.String({ maxLength: 100 }), password: Typed },
  { additionalProperties: false },
);
export const OwnPasswordBody = Type.Object({ old: Typed, password: Password }, { additionalProperties: false });
export const PasswordBody = Type.Object({ password: Password }, { additionalProperties: false });
export const AddPersonBody = Type.Object(
  { name: Name, password: Password, isAdministrator: Type.Optional(Type.Boolean()) },
  { additionalProperties: false },
);
export const People = Type.Object({ people: Type.Array(Person) }, { $id: 'People' });

/** A key for the API that stands for its person; the key itself is told once. */
export const Token = Type.Object(
  { id: Type.String({ format: 'uuid' }), label: Type.String(), createdAt: Type.String({ format: 'date-time' }) },
  { $id: 'Token' },
);
export const Tokens = Type.Object({ tokens: Type.Array(Token) }, { $id: 'Tokens' });
export const TokenBody = Type.Object({ label: Name }, { additionalProperties: false });
export const MadeToken = Type.Composite([Token, Type.Object({ token: Type.String() })], { $id: 'MadeToken' });

/** Who may do what with a site; `mine`: what the one who asks may. */
export const SiteRights = Type.Object(
  {
    mine: SiteRight,
    rights: Type.Array(Type.Object({ name: Type.String(), right: SiteRight })),
  },
  { $id: 'SiteRights' },
);
export const RightBody = Type.Object(
  { name: Type.String({ maxLength: 100 }), right: Type.Union([SiteRight, Type.Literal('none')]) },
  { additionalProperties: false },
);

export type SiteRightName = Static<typeof SiteRight>;
export type PersonReply = Static<typeof Person>;
export type WhoReply = Static<typeof Who>;
export type TokenReply = Static<typeof Token>;
export type MadeTokenReply = Static<typeof MadeToken>;
export type SiteRightsReply = Static<typeof SiteRights>;
export type RightRequest = Static<typeof RightBody>;
export type AddPersonRequest = Static<typeof AddPersonBody>;
