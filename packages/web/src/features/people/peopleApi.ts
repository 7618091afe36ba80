import type {
  AddPersonRequest,
  MadeTokenReply,
  PersonReply,
  RightRequest,
  SiteRightsReply,
  TokenReply,
  WhoReply,
} from '@syndeton/contract';
import { api, requestFor } from '../../app/api.ts';

interface SignIn {
  readonly name: string;
  readonly password: string;
}

export const peopleApi = api.injectEndpoints({
  endpoints: (build) => ({
    who: build.query<WhoReply, void>({ query: () => requestFor('who', {}), providesTags: ['Who'] }),
    signIn: build.mutation<WhoReply, SignIn>({ query: (body) => requestFor('signIn', {}, { body }) }),
    signOut: build.mutation<void, void>({ query: () => requestFor('signOut', {}) }),
    changePassword: build.mutation<void, { readonly old: string; readonly password: string }>({
      query: (body) => requestFor('changePassword', {}, { body }),
    }),
    people: build.query<readonly PersonReply[], void>({
      query: () => requestFor('listPeople', {}),
      transformResponse: (reply: { people: PersonReply[] }) => reply.people,
      providesTags: ['People'],
    }),
    addPerson: build.mutation<PersonReply, AddPersonRequest>({
      query: (body) => requestFor('addPerson', {}, { body }),
      invalidatesTags: ['People'],
    }),
    removePerson: build.mutation<void, string>({
      query: (person) => requestFor('removePerson', { person }),
      invalidatesTags: ['People', 'Rights'],
    }),
    tokens: build.query<readonly TokenReply[], void>({
      query: () => requestFor('listTokens', {}),
      transformResponse: (reply: { tokens: TokenReply[] }) => reply.tokens,
      providesTags: ['Tokens'],
    }),
    makeToken: build.mutation<MadeTokenReply, string>({
      query: (label) => requestFor('makeToken', {}, { body: { label } }),
      invalidatesTags: ['Tokens'],
    }),
    dropToken: build.mutation<void, string>({
      query: (token) => requestFor('dropToken', { token }),
      invalidatesTags: ['Tokens'],
    }),
    rights: build.query<SiteRightsReply, string>({
      query: (id) => requestFor('listRights', { id }),
      providesTags: ['Rights'],
    }),
    setRight: build.mutation<SiteRightsReply, RightRequest & { readonly id: string }>({
      query: ({ id, ...body }) => requestFor('setRight', { id }, { body }),
      invalidatesTags: ['Rights'],
    }),
  }),
});

export const {
  useWhoQuery,
  useSignInMutation,
  useSignOutMutation,
  useChangePasswordMutation,
  usePeopleQuery,
  useAddPersonMutation,
  useRemovePersonMutation,
  useTokensQuery,
  useMakeTokenMutation,
  useDropTokenMutation,
  useRightsQuery,
  useSetRightMutation,
} = peopleApi;
