import type { ProofReply } from '@syndeton/contract';
import { api, requestFor, tagsOf } from '../../app/api.ts';

export interface Compared {
  readonly id: string;
  readonly since: number;
  readonly number: number;
  /** With the draft on it. */
  readonly draft: boolean;
  /** Another site that `since` is a revision of. */
  readonly against?: string | undefined;
}

export const proofApi = api.injectEndpoints({
  endpoints: (build) => ({
    /** Two states of a site, page by page. */
    compared: build.query<ProofReply, Compared>({
      query: ({ since, draft, against, ...at }) =>
        requestFor('compareRevisions', at, { query: { since, against, ...(draft ? { with: 'draft' } : {}) } }),
      providesTags: (_reply, _error, { id }) => tagsOf(id, 'State'),
      structuralSharing: false,
    }),
  }),
});

export const { useComparedQuery } = proofApi;
