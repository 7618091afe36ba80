import type { RevisionWordsRequest, SavedRevisionReply, WithoutRequest } from '@syndeton/contract';
import { api, requestFor } from '../../app/api.ts';

interface At {
  readonly id: string;
  readonly number: number;
}

const historyApi = api.injectEndpoints({
  endpoints: (build) => ({
    wordRevision: build.mutation<void, At & RevisionWordsRequest>({
      query: ({ id, number, ...body }) => requestFor('wordRevision', { id, number }, { body }),
      invalidatesTags: ['Sites', 'Site'],
    }),
    takeOutOperation: build.mutation<SavedRevisionReply, At & WithoutRequest>({
      query: ({ id, number, ...body }) => requestFor('takeOutOperation', { id, number }, { body }),
      invalidatesTags: ['Sites', 'Site', 'Draft', 'Proof'],
    }),
  }),
});

export const { useWordRevisionMutation, useTakeOutOperationMutation } = historyApi;
