import type {
  ElementTableReply,
  NoteRequest,
  OverridesReply,
  QuestionReply,
  ValuePlacesReply,
} from '@syndeton/contract';
import { api } from '../../app/api.ts';

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

const at = ({ id, number }: At, what: string, params: URLSearchParams): string =>
  `/sites/${id}/revisions/${number}/${what}?with=draft&${params.toString()}`;

/** All as the draft leaves the pages. */
export const precedenceApi = api.injectEndpoints({
  endpoints: (build) => ({
    element: build.query<ElementTableReply, ElementAsked>({
      query: ({ path, element, pseudo, medium, width, states, peeled, ...where }) => {
        const params = new URLSearchParams({ path, element, pseudo, medium, width: String(width) });
        for (const state of states) params.append('state', state);
        for (const peel of peeled) params.append('peel', peel);
        return at(where, 'element', params);
      },
      providesTags: ['Site', 'Draft'],
    }),
    question: build.query<
      QuestionReply,
      At & { readonly selector: string; readonly property: string; readonly medium: string }
    >({
      query: ({ selector, property, medium, ...where }) =>
        at(where, 'question', new URLSearchParams({ selector, property, medium })),
      providesTags: ['Site', 'Draft'],
      structuralSharing: false,
    }),
    overrides: build.query<OverridesReply, At>({
      query: (where) => at(where, 'overrides', new URLSearchParams()),
      providesTags: ['Site', 'Draft'],
      structuralSharing: false,
    }),
    value: build.query<ValuePlacesReply, At & { readonly value: string }>({
      query: ({ value, ...where }) => at(where, 'value', new URLSearchParams({ value })),
      providesTags: ['Site', 'Draft'],
    }),
    putNote: build.mutation<undefined, NoteRequest & { readonly id: string }>({
      query: ({ id, ...body }) => ({ url: `/sites/${id}/notes`, method: 'PUT', body }),
      invalidatesTags: ['Site'],
    }),
  }),
});

export const { useElementQuery, useQuestionQuery, useOverridesQuery, useValueQuery, usePutNoteMutation } =
  precedenceApi;
