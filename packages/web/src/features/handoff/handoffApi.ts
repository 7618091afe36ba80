import type {
  ChangedFileReply,
  FittedRecipeReply,
  MachineKeyReply,
  MachineRequest,
  RecipeRequest,
  ReportReply,
  UploadReply,
  UploadRequest,
} from '@syndeton/contract';
import { api, requestFor, tagsOf } from '../../app/api.ts';

export const handoffApi = api.injectEndpoints({
  endpoints: (build) => ({
    changesSince: build.query<
      readonly ChangedFileReply[],
      { readonly id: string; readonly number: number; readonly since: number }
    >({
      query: ({ since, ...at }) => requestFor('listChanges', at, { query: { since } }),
      transformResponse: (reply: { changes: ChangedFileReply[] }) => reply.changes,
    }),
    report: build.query<ReportReply, { readonly id: string; readonly number: number; readonly since: number }>({
      query: ({ since, ...at }) => requestFor('readReport', at, { query: { since } }),
      providesTags: (_reply, _error, { id }) => tagsOf(id, 'Site'),
    }),
    askMachine: build.mutation<MachineKeyReply, { readonly id: string } & MachineRequest>({
      query: ({ id, ...body }) => requestFor('askMachine', { id }, { body }),
    }),
    startUpload: build.mutation<UploadReply, { readonly id: string; readonly number: number } & UploadRequest>({
      query: ({ id, number, ...body }) => requestFor('startUpload', { id, number }, { body }),
    }),
    stopUpload: build.mutation<void, string>({ query: (id) => requestFor('stopUpload', { id }) }),
    fitRecipe: build.mutation<FittedRecipeReply, { readonly id: string } & RecipeRequest>({
      query: ({ id, ...body }) => requestFor('fitRecipe', { id }, { body }),
    }),
  }),
});

export const {
  useChangesSinceQuery,
  useReportQuery,
  useFitRecipeMutation,
  useAskMachineMutation,
  useStartUploadMutation,
  useStopUploadMutation,
} = handoffApi;
