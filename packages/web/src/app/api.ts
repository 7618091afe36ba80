import { createApi, fetchBaseQuery, type FetchArgs } from '@reduxjs/toolkit/query/react';
import { addresses, addressOf, type ParamsOf, type RouteName } from '@syndeton/contract';

const plainQuery = fetchBaseQuery({ baseUrl: '/' });

/** Who was signed out meanwhile is asked for again: then the page to sign in shows. */
const asSignedIn: typeof plainQuery = async (request, around, more) => {
  const result = await plainQuery(request, around, more);
  if (result.error?.status === 401 && around.endpoint !== 'signIn') around.dispatch(api.util.invalidateTags(['Who']));
  return result;
};

/**
 * All server state. Features add their endpoints; tags name domain things, of one site by its ID. `Draft` is the list of operations,
 * `State` what was found in the pages as it leaves them. What was found in a revision, asked for
 * by its number, never changes and has no tag.
 */
export const api = createApi({
  reducerPath: 'api',
  baseQuery: asSignedIn,
  tagTypes: ['Sites', 'Site', 'Draft', 'State', 'Proof', 'Who', 'People', 'Tokens', 'Rights'],
  endpoints: () => ({}),
});

type OfSite = 'Site' | 'Draft' | 'State' | 'Proof';

/** Tags of one site. */
export const tagsOf = <Type extends OfSite>(
  id: string,
  ...types: Type[]
): { readonly type: Type; readonly id: string }[] => types.map((type) => ({ type, id }));

/** What another draft of a site makes new. */
export const draftTags = (id: string) => tagsOf(id, 'Draft', 'State', 'Proof');

/** What a new revision makes new: what is found in it is asked for by its number. */
export const revisionTags = (id: string) => [...tagsOf(id, 'Site', 'Draft', 'Proof'), 'Sites' as const];

/** A request by its name in the contract. */
export function requestFor<Name extends RouteName>(
  name: Name,
  params: { readonly [Part in keyof ParamsOf<Name>]: string | number },
  { query, body }: { readonly query?: Parameters<typeof addressOf>[2]; readonly body?: unknown } = {},
): FetchArgs {
  const [method] = addresses[name];
  return { url: addressOf(name, params, query), method: method.toUpperCase(), body };
}

/** What a refused request says to the person. */
export function problemText(error: unknown): string {
  if (typeof error === 'object' && error !== null) {
    if ('data' in error && typeof error.data === 'object' && error.data !== null && 'detail' in error.data)
      return String(error.data.detail);
    if ('status' in error && error.status === 'FETCH_ERROR')
      return 'The server does not answer. Start it again with npm start.';
    if ('message' in error) return String(error.message);
  }
  return 'Something went wrong. Look at what is there before you do it again.';
}

export const isConflict = (error: unknown): boolean =>
  typeof error === 'object' && error !== null && 'status' in error && error.status === 409;

/** What a change that came too late can be redone by. */
export function redoOf(error: unknown): string | undefined {
  if (typeof error !== 'object' || error === null || !('data' in error)) return undefined;
  const { data } = error;
  if (typeof data !== 'object' || data === null || !('redo' in data)) return undefined;
  return typeof data.redo === 'string' ? data.redo : undefined;
}
