import type {
  ChangedSiteReply,
  CreatedSiteReply,
  ImportReply,
  OutsideChangesReply,
  SiteDetailReply,
  SiteSummaryReply,
} from '@syndeton/contract';
import { api, requestFor, revisionTags, tagsOf } from '../../app/api.ts';

/** Files of a site on their way to its newest revision. */
interface Files {
  readonly id: string;
  readonly base: number;
  readonly archive: Blob;
}

function formOf({ base, archive }: Files): FormData {
  const body = new FormData();
  body.set('base', String(base));
  body.set('archive', archive, 'files.zip');
  return body;
}

export const sitesApi = api.injectEndpoints({
  endpoints: (build) => ({
    sites: build.query<readonly SiteSummaryReply[], void>({
      query: () => requestFor('listSites', {}),
      transformResponse: (reply: { sites: SiteSummaryReply[] }) => reply.sites,
      providesTags: ['Sites'],
    }),
    site: build.query<SiteDetailReply, string>({
      query: (id) => requestFor('readSite', { id }),
      providesTags: (_reply, _error, id) => tagsOf(id, 'Site'),
    }),
    bringIn: build.mutation<ImportReply, { readonly archive: Blob; readonly name: string }>({
      query: ({ archive, name }) => {
        const body = new FormData();
        body.set('name', name);
        body.set('archive', archive, `${name}.zip`);
        return requestFor('startImport', {}, { body });
      },
    }),
    imports: build.query<readonly ImportReply[], void>({
      query: () => requestFor('listImports', {}),
      transformResponse: (reply: { imports: ImportReply[] }) => reply.imports,
    }),
    stopImport: build.mutation<void, string>({ query: (id) => requestFor('stopImport', { id }) }),
    renameSite: build.mutation<void, { readonly id: string; readonly name: string }>({
      query: ({ id, name }) => requestFor('renameSite', { id }, { body: { name } }),
      invalidatesTags: (_reply, _error, { id }) => ['Sites', ...tagsOf(id, 'Site')],
    }),
    removeSite: build.mutation<void, string>({
      query: (id) => requestFor('removeSite', { id }),
      invalidatesTags: ['Sites'],
    }),
    bringBackSite: build.mutation<void, string>({
      query: (id) => requestFor('restoreSite', { id }),
      invalidatesTags: ['Sites'],
    }),
    putIn: build.mutation<ChangedSiteReply, Files>({
      query: (files) => requestFor('addFiles', { id: files.id }, { body: formOf(files) }),
      invalidatesTags: (_reply, _error, { id }) => revisionTags(id),
    }),
    compareOutside: build.mutation<OutsideChangesReply, Files>({
      query: (files) => requestFor('compareFiles', { id: files.id }, { body: formOf(files) }),
    }),
    takeOutside: build.mutation<ChangedSiteReply, Files & { readonly gone: boolean }>({
      query: ({ gone, ...files }) => {
        const body = formOf(files);
        body.set('gone', String(gone));
        return requestFor('takeOutside', { id: files.id }, { body });
      },
      invalidatesTags: (_reply, _error, { id }) => revisionTags(id),
    }),
    takeOut: build.mutation<
      ChangedSiteReply,
      { readonly id: string; readonly base: number; readonly paths: readonly string[] }
    >({
      query: ({ id, ...body }) => requestFor('removeFiles', { id }, { body }),
      invalidatesTags: (_reply, _error, { id }) => revisionTags(id),
    }),
    takeIn: build.mutation<ChangedSiteReply, { readonly id: string; readonly base: number; readonly path: string }>({
      query: ({ id, ...body }) => requestFor('takeInFile', { id }, { body }),
      invalidatesTags: (_reply, _error, { id }) => revisionTags(id),
    }),
    readAsPages: build.mutation<
      ChangedSiteReply,
      { readonly id: string; readonly base: number; readonly endings: string[] }
    >({
      query: ({ id, ...body }) => requestFor('readAsPages', { id }, { body }),
      invalidatesTags: (_reply, _error, { id }) => revisionTags(id),
    }),
    loadDemo: build.mutation<CreatedSiteReply, void>({
      query: () => requestFor('createDemo', {}),
      invalidatesTags: ['Sites'],
    }),
    restoreRevision: build.mutation<
      { number: number },
      { readonly id: string; readonly number: number; readonly base: number }
    >({
      query: ({ id, number, base }) => requestFor('restoreRevision', { id, number }, { body: { base } }),
      invalidatesTags: (_reply, _error, { id }) => revisionTags(id),
    }),
  }),
});

export const {
  useSitesQuery,
  useSiteQuery,
  useBringInMutation,
  useCompareOutsideMutation,
  useBringBackSiteMutation,
  useImportsQuery,
  useLoadDemoMutation,
  usePutInMutation,
  useRemoveSiteMutation,
  useRenameSiteMutation,
  useRestoreRevisionMutation,
  useStopImportMutation,
  useReadAsPagesMutation,
  useTakeInMutation,
  useTakeOutMutation,
  useTakeOutsideMutation,
} = sitesApi;
