import type { RevisionWordsRequest, SavedRevisionReply, WithoutRequest } from '@syndeton/contract';
import { api, requestFor, revisionTags, tagsOf } from '../../app/api.ts';

interface At {
  readonly id: string;
  readonly number: number;
}

const historyApi = api.injectEndpoints({
  endpoints: (build) => ({
    wordRevision: build.mutation<void, At & RevisionWordsRequest>({
      query: ({ id, number, ...body }) => requestFor('wordRevision', { id, number }, { body }),
      invalidatesTags: (_reply, _error, { id }) => ['Sites', ...tagsOf(id, 'Site')],
    }),
    takeOutOperation: build.mutation<SavedRevisionReply, At & WithoutRequest>({
      query: ({ id, number, ...body }) => requestFor('takeOutOperation', { id, number }, { body }),
      invalidatesTags: (_reply, _error, { id }) => revisionTags(id),
    }),
  }),
});

export const { useWordRevisionMutation, useTakeOutOperationMutation } = historyApi;
