import type { FileTextReply } from '@syndeton/contract';
import { api } from '../../app/api.ts';

export const sheetsApi = api.injectEndpoints({
  endpoints: (build) => ({
    /** A sheet's text as the draft leaves it. */
    sheetText: build.query<FileTextReply, { readonly id: string; readonly path: string }>({
      query: ({ id, path }) => `/sites/${id}/files/draft/${path.split('/').map(encodeURIComponent).join('/')}`,
      providesTags: ['Site', 'Draft'],
    }),
  }),
});

export const { useSheetTextQuery } = sheetsApi;
