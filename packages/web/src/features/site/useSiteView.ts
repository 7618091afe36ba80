import { useCallback, useMemo } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import type { SiteDetailReply, SurveyReply } from '@syndeton/contract';
import { byPath } from '@syndeton/core';
import { readScope, writeScope } from './scopeInAddress.ts';
import { useSiteQuery } from './sitesApi.ts';
import { useSurveyQuery } from './surveyApi.ts';
import { stationNames, type StationName } from './stations.ts';

/** What one station asks of the next. */
export interface Asked {
  readonly propose?: boolean;
}

/** What the address says: which site and station, which pages are chosen, which one thing is opened. */
export interface SiteView {
  /** Another station with one thing opened at a line. */
  readonly openAt: (station: StationName, name: string, line: number) => void;
  readonly siteId: string;
  /** The station as the address names it, known or not. */
  readonly given: string;
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
  /** Which of a station's views is shown; the first when undefined. */
  readonly way: string | undefined;
  readonly setWay: (way: string | undefined) => void;
  /** Another station with what its address is to say. */
  readonly goWith: (station: StationName, said: Readonly<Record<string, string>>) => void;
  /** The line to look at in it. */
  readonly line: number | undefined;
  readonly open: (name: string | undefined, line?: number) => void;
  /** `asked`: something to do on arriving; `pages`: another scope. */
  readonly go: (station: StationName, opened?: string, asked?: Asked, pages?: readonly string[]) => void;
}

export function useSiteView(): SiteView {
  const { siteId = '', station: given = 'survey' } = useParams();
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
  const written = search.getAll('page').join('\n') + search.getAll('folder').join('\n') + (search.get('pages') ?? '');
  const scope = useMemo(() => readScope(search, pages), [pages, written]); // oxlint-disable-line react-hooks/exhaustive-deps -- written stands for the search
  const setScope = useCallback(
    (next: readonly string[]) => setSearch((old) => writeScope(old, next, pages)),
    [setSearch, pages],
  );
  const open = useCallback(
    (name: string | undefined, line?: number) =>
      setSearch((old) => {
        const params = new URLSearchParams(old);
        params.delete('line');
        if (name === undefined) params.delete('open');
        else params.set('open', name);
        if (line !== undefined) params.set('line', String(line));
        return params;
      }),
    [setSearch],
  );
  const go = useCallback(
    (next: StationName, name?: string, asked?: Asked, chosen?: readonly string[]) => {
      const params = chosen ? writeScope(search, chosen, pages) : new URLSearchParams(search);
      params.delete('open');
      params.delete('line');
      if (name !== undefined) params.set('open', name);
      void navigate({ pathname: `/sites/${siteId}/${next}`, search: params.toString() }, { state: asked ?? null });
    },
    [navigate, search, siteId, pages],
  );
  const openAt = useCallback(
    (next: StationName, name: string, line: number) => {
      const params = new URLSearchParams({ open: name, line: String(line) });
      void navigate({ pathname: `/sites/${siteId}/${next}`, search: params.toString() });
    },
    [navigate, siteId],
  );
  const goWith = useCallback(
    (next: StationName, said: Readonly<Record<string, string>>) =>
      void navigate({ pathname: `/sites/${siteId}/${next}`, search: new URLSearchParams(said).toString() }),
    [navigate, siteId],
  );
  const setWay = useCallback(
    (way: string | undefined) =>
      setSearch((old) => {
        const params = new URLSearchParams(old);
        if (way === undefined) params.delete('way');
        else params.set('way', way);
        return params;
      }),
    [setSearch],
  );
  return {
    openAt,
    goWith,
    setWay,
    siteId,
    given,
    station,
    site: site.data,
    survey: survey.data,
    failed: site.error ?? survey.error,
    pages,
    scope,
    scoped: scope.length < pages.length,
    setScope,
    opened: search.get('open') ?? undefined,
    way: search.get('way') ?? undefined,
    line: Number(search.get('line') ?? 0) || undefined,
    open,
    go,
  };
}
