import type { ChangedFileReply, ReportReply } from '@syndeton/contract';
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
    report: build.query<ReportReply, { readonly id: string; readonly number: number; readonly since: number }>({
      query: ({ since, ...at }) => requestFor('readReport', at, { query: { since } }),
      providesTags: ['Site'],
    }),
  }),
});

export const { useChangesSinceQuery, useReportQuery } = handoffApi;
