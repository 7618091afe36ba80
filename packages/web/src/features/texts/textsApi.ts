import type { ChangedFileReply, FileTextReply } from '@syndeton/contract';
import { api, requestFor, tagsOf } from '../../app/api.ts';

export const textsApi = api.injectEndpoints({
  endpoints: (build) => ({
    /** A file's text in a state: `draft` or `r3`. What a revision holds never changes. */
    textIn: build.query<FileTextReply, { readonly id: string; readonly state: string; readonly path: string }>({
      query: (at) => requestFor('readFile', at),
      providesTags: (_reply, _error, { id, state }) => (state === 'draft' ? tagsOf(id, 'State', 'Draft') : []),
    }),
    changesBetween: build.query<
      readonly ChangedFileReply[],
      { readonly id: string; readonly number: number; readonly since: number }
    >({
      query: ({ since, ...at }) => requestFor('listChanges', at, { query: { since } }),
      transformResponse: (reply: { changes: ChangedFileReply[] }) => reply.changes,
    }),
  }),
});

export const { useTextInQuery, useChangesBetweenQuery } = textsApi;
