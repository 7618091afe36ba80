import type {
  ElementTableReply,
  NoteRequest,
  OverridesReply,
  QuestionReply,
  ValuePlacesReply,
} from '@syndeton/contract';
import { api, requestFor, tagsOf } from '../../app/api.ts';

interface At {
  readonly id: string;
  readonly number: number;
}

export interface ElementAsked extends At {
  readonly path: string;
  readonly element: string;
  readonly pseudo: string;
  readonly medium: string;
  readonly width: number;
  readonly states: readonly string[];
  readonly peeled: readonly string[];
}

const draft = { with: 'draft' };

/** All as the draft leaves the pages. */
export const precedenceApi = api.injectEndpoints({
  endpoints: (build) => ({
    element: build.query<ElementTableReply, ElementAsked>({
      query: ({ id, number, states: state, peeled: peel, ...asked }) =>
        requestFor('readElement', { id, number }, { query: { ...draft, ...asked, state, peel } }),
      providesTags: (_reply, _error, { id }) => tagsOf(id, 'State'),
    }),
    question: build.query<
      QuestionReply,
      At & { readonly selector: string; readonly property: string; readonly medium: string }
    >({
      query: ({ id, number, ...asked }) => requestFor('askQuestion', { id, number }, { query: { ...draft, ...asked } }),
      providesTags: (_reply, _error, { id }) => tagsOf(id, 'State'),
      structuralSharing: false,
    }),
    overrides: build.query<OverridesReply, At>({
      query: (at) => requestFor('listOverrides', at, { query: draft }),
      providesTags: (_reply, _error, { id }) => tagsOf(id, 'State'),
      structuralSharing: false,
    }),
    value: build.query<ValuePlacesReply, At & { readonly value: string }>({
      query: ({ value, ...at }) => requestFor('findValue', at, { query: { ...draft, value } }),
      providesTags: (_reply, _error, { id }) => tagsOf(id, 'State'),
    }),
    putNote: build.mutation<undefined, NoteRequest & { readonly id: string }>({
      query: ({ id, ...body }) => requestFor('writeNote', { id }, { body }),
      invalidatesTags: (_reply, _error, { id }) => tagsOf(id, 'State'),
    }),
  }),
});

export const { useElementQuery, useQuestionQuery, useOverridesQuery, useValueQuery, usePutNoteMutation } =
  precedenceApi;
