import type { ChangedFileReply } from '@syndeton/contract';
import { api } from '../../app/api.ts';

export const handoffApi = api.injectEndpoints({
  endpoints: (build) => ({
    changesSince: build.query<
      readonly ChangedFileReply[],
      { readonly id: string; readonly number: number; readonly since: number }
    >({
      query: ({ id, number, since }) => `/sites/${id}/revisions/${number}/changes?since=${since}`,
      transformResponse: (reply: { changes: ChangedFileReply[] }) => reply.changes,
      providesTags: ['Site'],
    }),
  }),
});

export const { useChangesSinceQuery } = handoffApi;
