import {
  desktop,
  findOverrides,
  KeptDraft,
  makeSite,
  outcomesAfter,
  pagesOf,
  SiteChecker,
  sheetsOf,
  type Operation,
} from '@syndeton/core';
import { makeFiles } from './makeSite.ts';

/** Wall times of a person who changes something small: the draft, then the survey and the overrides of it. */
export function smallChanges(pages: number): readonly (readonly [string, string, string])[] {
  const rows: [string, string, string][] = [];
  const site = makeSite(makeFiles(pages, 'shared'));
  const checker = new SiteChecker();
  const draft = new KeptDraft(site, checker);
  const first = performance.now();
  checker.check(site);
  let outcomes = outcomesAfter(undefined, site);
  findOverrides(outcomes, desktop);
  const before = performance.now() - first;
  const [sheet, page] = [sheetsOf(site)[0]!, pagesOf(site)[pages >> 1]!];
  const text = `#own7 p { color: teal }\n${sheet.text!}`;
  const changes: Record<string, Operation> = {
    'a moved link': { kind: 'move-link', sheet: sheet.path, pages: [page.path], place: { at: 'last' } },
    'a rule for one page, put into a shared sheet': { kind: 'edit-sheet', path: sheet.path, hash: sheet.hash, text },
  };
  for (const [name, operation] of Object.entries(changes)) {
    const times = [performance.now()];
    const { site: after, problem } = draft.apply([operation]);
    if (problem) throw new Error(problem.detail);
    times.push(performance.now());
    checker.check(after);
    times.push(performance.now());
    outcomes = outcomesAfter(outcomes, after);
    findOverrides(outcomes, desktop);
    times.push(performance.now());
    const [drafted, looked, answered] = times.slice(1).map((at, i) => Math.round(at - times[i]!));
    rows.push([`${name}: the draft`, `${drafted!} ms`, '']);
    rows.push([`${name}: survey, families, checks`, `${looked!} ms`, '']);
    rows.push([
      `${name}: all overrides`,
      `${answered!} ms`,
      `target 1,000 for all three; the first time took ${Math.round(before)} ms`,
    ]);
  }
  return rows;
}
