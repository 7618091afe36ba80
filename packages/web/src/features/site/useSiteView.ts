import { useCallback, useMemo } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import type { SiteDetailReply, SurveyReply } from '@syndeton/contract';
import { byPath } from '@syndeton/core';
import { useSiteQuery } from './sitesApi.ts';
import { useSurveyQuery } from './surveyApi.ts';
import { stationNames, type StationName } from './stations.ts';

/** What the address says: which site and station, which pages are chosen, which one thing is opened. */
export interface SiteView {
  readonly siteId: string;
  readonly station: StationName;
  readonly site: SiteDetailReply | undefined;
  readonly survey: SurveyReply | undefined;
  readonly failed: unknown;
  /** All pages in rail order. */
  readonly pages: readonly string[];
  /** The chosen pages; all when nothing is chosen. */
  readonly scope: readonly string[];
  readonly scoped: boolean;
  readonly setScope: (pages: readonly string[]) => void;
  /** The one thing a station has opened: a page in Proof, a sheet in Sheets. */
  readonly opened: string | undefined;
  readonly open: (name: string | undefined) => void;
  readonly go: (station: StationName, opened?: string) => void;
}

export function useSiteView(): SiteView {
  const { siteId = '', station: given } = useParams();
  const station = stationNames.find((name) => name === given) ?? 'survey';
  const [search, setSearch] = useSearchParams();
  const navigate = useNavigate();
  const site = useSiteQuery(siteId);
  const number = site.data?.revision;
  const survey = useSurveyQuery({ id: siteId, number: number ?? 1 }, { skip: number === undefined });
  const pages = useMemo(
    () => (survey.data ? [...survey.data.pages].sort(byPath).map((page) => page.path) : []),
    [survey.data],
  );
  const chosen = search.getAll('page');
  const scope = chosen.length === 0 ? pages : pages.filter((page) => chosen.includes(page));
  const setScope = useCallback(
    (next: readonly string[]) =>
      setSearch((old) => {
        const params = new URLSearchParams(old);
        params.delete('page');
        for (const page of next) params.append('page', page);
        return params;
      }),
    [setSearch],
  );
  const open = useCallback(
    (name: string | undefined) =>
      setSearch((old) => {
        const params = new URLSearchParams(old);
        if (name === undefined) params.delete('open');
        else params.set('open', name);
        return params;
      }),
    [setSearch],
  );
  const go = useCallback(
    (next: StationName, name?: string) => {
      const params = new URLSearchParams(search);
      params.delete('open');
      if (name !== undefined) params.set('open', name);
      void navigate({ pathname: `/sites/${siteId}/${next}`, search: params.toString() });
    },
    [navigate, search, siteId],
  );
  return {
    siteId,
    station,
    site: site.data,
    survey: survey.data,
    failed: site.error ?? survey.error,
    pages,
    scope,
    scoped: chosen.length > 0 && scope.length > 0 && scope.length < pages.length,
    setScope,
    opened: search.get('open') ?? undefined,
    open,
    go,
  };
}
