import type { CreatedSiteReply, SiteDetailReply, SiteSummaryReply } from '@syndeton/contract';
import { api } from '../../app/api.ts';

export const sitesApi = api.injectEndpoints({
  endpoints: (build) => ({
    sites: build.query<readonly SiteSummaryReply[], void>({
      query: () => '/sites',
      transformResponse: (reply: { sites: SiteSummaryReply[] }) => reply.sites,
      providesTags: ['Sites'],
    }),
    site: build.query<SiteDetailReply, string>({ query: (id) => `/sites/${id}`, providesTags: ['Site'] }),
    bringIn: build.mutation<CreatedSiteReply, { readonly archive: Blob; readonly name: string }>({
      query: ({ archive, name }) => {
        const body = new FormData();
        body.set('name', name);
        body.set('archive', archive, `${name}.zip`);
        return { url: '/sites', method: 'POST', body };
      },
      invalidatesTags: ['Sites'],
    }),
    loadDemo: build.mutation<CreatedSiteReply, void>({
      query: () => ({ url: '/sites/demo', method: 'POST' }),
      invalidatesTags: ['Sites'],
    }),
    restoreRevision: build.mutation<
      { number: number },
      { readonly id: string; readonly number: number; readonly base: number }
    >({
      query: ({ id, number, base }) => ({
        url: `/sites/${id}/revisions/${number}/restore`,
        method: 'POST',
        body: { base },
      }),
      invalidatesTags: ['Sites', 'Site', 'Draft', 'Proof'],
    }),
  }),
});

export const { useSitesQuery, useSiteQuery, useBringInMutation, useLoadDemoMutation, useRestoreRevisionMutation } =
  sitesApi;
