import type { FileTextReply } from '@syndeton/contract';
import { api, requestFor } from '../../app/api.ts';

export const sheetsApi = api.injectEndpoints({
  endpoints: (build) => ({
    /** A sheet's text as the draft leaves it. */
    sheetText: build.query<FileTextReply, { readonly id: string; readonly path: string }>({
      query: (at) => requestFor('readFile', { ...at, state: 'draft' }),
      providesTags: ['Site', 'Draft'],
    }),
  }),
});

export const { useSheetTextQuery } = sheetsApi;
