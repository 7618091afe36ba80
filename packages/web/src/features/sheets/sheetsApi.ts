import type {
  ElementTableReply,
  FileTextReply,
  RuleScoreReply,
  SelectorReachReply,
  SheetReachReply,
  SiteWordsReply,
} from '@syndeton/contract';
import { api, requestFor, tagsOf } from '../../app/api.ts';

interface At {
  readonly id: string;
  readonly number: number;
}

const draft = { with: 'draft' };

/** All as the draft leaves the site. */
export const sheetsApi = api.injectEndpoints({
  endpoints: (build) => ({
    /** Asked without a number, so another revision makes it new as well. */
    sheetText: build.query<FileTextReply, { readonly id: string; readonly path: string }>({
      query: (at) => requestFor('readFile', { ...at, state: 'draft' }),
      providesTags: (_reply, _error, { id }) => tagsOf(id, 'State', 'Draft'),
    }),
    sheetReach: build.query<SheetReachReply, At & { readonly path: string }>({
      query: ({ path, ...at }) => requestFor('readSheet', at, { query: { ...draft, path } }),
      providesTags: (_reply, _error, { id }) => tagsOf(id, 'State'),
    }),
    ruleScore: build.query<RuleScoreReply, At & { readonly path: string; readonly start: number }>({
      query: ({ path, start, ...at }) => requestFor('readRule', at, { query: { ...draft, path, start } }),
      providesTags: (_reply, _error, { id }) => tagsOf(id, 'State'),
    }),
    selectorReach: build.query<SelectorReachReply, At & { readonly selector: string; readonly sheet?: string }>({
      query: ({ selector, sheet, ...at }) => requestFor('matchSelector', at, { query: { ...draft, selector, sheet } }),
      providesTags: (_reply, _error, { id }) => tagsOf(id, 'State'),
    }),
    /** What decides an element that was picked on a page. */
    picked: build.query<ElementTableReply, At & { readonly path: string; readonly element: string }>({
      query: ({ path, element, ...at }) => requestFor('readElement', at, { query: { ...draft, path, element } }),
      providesTags: (_reply, _error, { id }) => tagsOf(id, 'State'),
    }),
    siteWords: build.query<SiteWordsReply, At>({
      query: (at) => requestFor('readWords', at, { query: draft }),
      providesTags: (_reply, _error, { id }) => tagsOf(id, 'State'),
    }),
  }),
});

export const { useSheetTextQuery, useSheetReachQuery, useRuleScoreQuery, useSelectorReachQuery, useSiteWordsQuery } =
  sheetsApi;
