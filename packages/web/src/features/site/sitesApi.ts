import type {
  ChangedSiteReply,
  CreatedSiteReply,
  ImportReply,
  SiteDetailReply,
  SiteSummaryReply,
} from '@syndeton/contract';
import { api } from '../../app/api.ts';

const everything = ['Sites', 'Site', 'Draft', 'Proof'] as const;

export const sitesApi = api.injectEndpoints({
  endpoints: (build) => ({
    sites: build.query<readonly SiteSummaryReply[], void>({
      query: () => '/sites',
      transformResponse: (reply: { sites: SiteSummaryReply[] }) => reply.sites,
      providesTags: ['Sites'],
    }),
    site: build.query<SiteDetailReply, string>({ query: (id) => `/sites/${id}`, providesTags: ['Site'] }),
    bringIn: build.mutation<ImportReply, { readonly archive: Blob; readonly name: string }>({
      query: ({ archive, name }) => {
        const body = new FormData();
        body.set('name', name);
        body.set('archive', archive, `${name}.zip`);
        return { url: '/imports', method: 'POST', body };
      },
    }),
    imports: build.query<readonly ImportReply[], void>({
      query: () => '/imports',
      transformResponse: (reply: { imports: ImportReply[] }) => reply.imports,
    }),
    stopImport: build.mutation<void, string>({ query: (id) => ({ url: `/imports/${id}`, method: 'DELETE' }) }),
    renameSite: build.mutation<void, { readonly id: string; readonly name: string }>({
      query: ({ id, name }) => ({ url: `/sites/${id}`, method: 'PATCH', body: { name } }),
      invalidatesTags: ['Sites', 'Site'],
    }),
    removeSite: build.mutation<void, string>({
      query: (id) => ({ url: `/sites/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Sites'],
    }),
    bringBackSite: build.mutation<void, string>({
      query: (id) => ({ url: `/sites/${id}/restore`, method: 'POST' }),
      invalidatesTags: ['Sites'],
    }),
    putIn: build.mutation<ChangedSiteReply, { readonly id: string; readonly base: number; readonly archive: Blob }>({
      query: ({ id, base, archive }) => {
        const body = new FormData();
        body.set('base', String(base));
        body.set('archive', archive, 'files.zip');
        return { url: `/sites/${id}/files`, method: 'POST', body };
      },
      invalidatesTags: everything,
    }),
    takeOut: build.mutation<
      ChangedSiteReply,
      { readonly id: string; readonly base: number; readonly paths: readonly string[] }
    >({
      query: ({ id, ...body }) => ({ url: `/sites/${id}/files/remove`, method: 'POST', body }),
      invalidatesTags: everything,
    }),
    takeIn: build.mutation<ChangedSiteReply, { readonly id: string; readonly base: number; readonly path: string }>({
      query: ({ id, ...body }) => ({ url: `/sites/${id}/files/take`, method: 'POST', body }),
      invalidatesTags: everything,
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

export const {
  useSitesQuery,
  useSiteQuery,
  useBringInMutation,
  useBringBackSiteMutation,
  useImportsQuery,
  useLoadDemoMutation,
  usePutInMutation,
  useRemoveSiteMutation,
  useRenameSiteMutation,
  useRestoreRevisionMutation,
  useStopImportMutation,
  useTakeInMutation,
  useTakeOutMutation,
} = sitesApi;
