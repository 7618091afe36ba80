import type {
  DraftBodyRequest,
  DraftProofReply,
  DraftReply,
  PlanSettingsRequest,
  ProposalReply,
  SavedRevisionReply,
} from '@syndeton/contract';
import { api } from '../../app/api.ts';

export const draftsApi = api.injectEndpoints({
  endpoints: (build) => ({
    draft: build.query<DraftReply, string>({ query: (id) => `/sites/${id}/draft`, providesTags: ['Draft'] }),
    putDraft: build.mutation<DraftReply, { readonly id: string; readonly body: DraftBodyRequest }>({
      query: ({ id, body }) => ({ url: `/sites/${id}/draft`, method: 'PUT', body }),
      // what comes back is the draft: nobody acts on an older one while it is asked for again
      onQueryStarted: async ({ id }, { dispatch, queryFulfilled }) => {
        try {
          const { data } = await queryFulfilled;
          await dispatch(draftsApi.util.upsertQueryData('draft', id, data));
        } catch {
          // the caller says what was refused
        }
      },
      invalidatesTags: (_result, error) => (error ? [] : ['Draft', 'Proof', 'Sites']),
    }),
    dropDraft: build.mutation<void, string>({
      query: (id) => ({ url: `/sites/${id}/draft`, method: 'DELETE' }),
      invalidatesTags: ['Draft', 'Proof', 'Sites'],
    }),
    draftProof: build.query<DraftProofReply, string>({
      query: (id) => `/sites/${id}/draft/proof`,
      providesTags: ['Proof'],
    }),
    propose: build.mutation<
      ProposalReply,
      {
        readonly id: string;
        readonly base: number;
        readonly sheet: string;
        readonly pages?: readonly string[];
        readonly settings?: PlanSettingsRequest;
      }
    >({
      query: ({ id, ...body }) => ({ url: `/sites/${id}/proposal`, method: 'POST', body }),
    }),
    save: build.mutation<SavedRevisionReply, { readonly id: string; readonly base: number }>({
      query: ({ id, base }) => ({ url: `/sites/${id}/revisions`, method: 'POST', body: { base } }),
      invalidatesTags: (_result, error) => (error ? ['Site'] : ['Site', 'Sites', 'Draft', 'Proof']),
    }),
  }),
});

export const {
  useDraftQuery,
  usePutDraftMutation,
  useDropDraftMutation,
  useDraftProofQuery,
  useProposeMutation,
  useSaveMutation,
} = draftsApi;
