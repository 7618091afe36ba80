import type {
  AttributeGroupsReply,
  FamiliesReply,
  FamilyReply,
  FindingReply,
  PageBandsReply,
  SurveyReply,
} from '@syndeton/contract';
import { api, requestFor, tagsOf } from '../../app/api.ts';

interface At {
  readonly id: string;
  readonly number: number;
}

export const surveyApi = api.injectEndpoints({
  endpoints: (build) => ({
    /** The pages as the draft leaves them. */
    survey: build.query<SurveyReply, At>({
      query: (at) => requestFor('readSurvey', at, { query: { with: 'draft' } }),
      providesTags: (_reply, _error, { id }) => tagsOf(id, 'State'),
      // large, and always wanted whole: comparing it with the old one takes longer than drawing it
      structuralSharing: false,
    }),
    /** What a validator says of the pages' markup, as the draft leaves them. */
    markup: build.query<readonly FindingReply[], At>({
      query: (at) => requestFor('readMarkup', at, { query: { with: 'draft' } }),
      transformResponse: (reply: { findings: FindingReply[] }) => reply.findings,
      providesTags: (_reply, _error, { id }) => tagsOf(id, 'State'),
      structuralSharing: false,
    }),
    /** One page opened, as the draft leaves it. */
    pageBands: build.query<PageBandsReply, At & { readonly path: string }>({
      query: ({ path, ...at }) => requestFor('readPage', at, { query: { with: 'draft', path } }),
      providesTags: (_reply, _error, { id }) => tagsOf(id, 'State'),
      // large, and always wanted whole: comparing it with the old one takes longer than drawing it
      structuralSharing: false,
    }),
    /** Of the saved revision: what is in the draft is shown beside each. */
    families: build.query<readonly FamilyReply[], At>({
      query: (at) => requestFor('readFamilies', at),
      transformResponse: (reply: FamiliesReply) => reply.families,
      // large, and always wanted whole: comparing it with the old one takes longer than drawing it
      structuralSharing: false,
    }),
    /** Style attributes of the saved revision, grouped by what they say. */
    attributes: build.query<AttributeGroupsReply, At>({
      query: (at) => requestFor('readAttributes', at),
      structuralSharing: false,
    }),
  }),
});

export const { useAttributesQuery, useMarkupQuery, useSurveyQuery, useFamiliesQuery, usePageBandsQuery } = surveyApi;
