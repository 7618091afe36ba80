import type { ChangedFileReply } from '@syndeton/contract';
import { api, requestFor } from '../../app/api.ts';

export const handoffApi = api.injectEndpoints({
  endpoints: (build) => ({
    changesSince: build.query<
      readonly ChangedFileReply[],
      { readonly id: string; readonly number: number; readonly since: number }
    >({
      query: ({ since, ...at }) => requestFor('listChanges', at, { query: { since } }),
      transformResponse: (reply: { changes: ChangedFileReply[] }) => reply.changes,
      providesTags: ['Site'],
    }),
  }),
});

export const { useChangesSinceQuery } = handoffApi;
