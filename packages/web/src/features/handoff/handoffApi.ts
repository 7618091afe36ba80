import type { ChangedFileReply, FittedRecipeReply, RecipeRequest, ReportReply } from '@syndeton/contract';
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
    fitRecipe: build.mutation<FittedRecipeReply, { readonly id: string } & RecipeRequest>({
      query: ({ id, ...body }) => requestFor('fitRecipe', { id }, { body }),
    }),
  }),
});

export const { useChangesSinceQuery, useReportQuery, useFitRecipeMutation } = handoffApi;
