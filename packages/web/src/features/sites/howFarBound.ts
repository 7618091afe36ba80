import type { SiteSummaryReply } from '@syndeton/contract';
import { count } from '../../ui/format.ts';

/** Which of the seven stations are done for a site as saved, and what waits next, in words. */
export function howFarBound({ figures, revision }: SiteSummaryReply): {
  readonly tied: readonly boolean[];
  readonly words: string;
} {
  const left = figures.embeddedRules + figures.styleAttributes;
  const waiting = figures.waiting ?? { drifted: 0, links: 0, overrides: 0, findings: 0 };
  const gathered = left === 0 && figures.sheets > 0;
  const linked = waiting.links === 0 && figures.sheets > 0;
  const settled = gathered && waiting.overrides === 0;
  const tied = [
    true,
    gathered,
    gathered && linked,
    linked,
    settled,
    settled && revision > 1,
    settled && linked && revision > 1,
  ];
  if (tied.every(Boolean)) return { tied, words: 'all done' };
  if (figures.sheets === 0) return { tied, words: 'no sheet yet' };
  if (!gathered && waiting.drifted > 0)
    return {
      tied,
      words: `${count(waiting.drifted, 'decision')} ${waiting.drifted === 1 ? 'waits' : 'wait'} in Gather`,
    };
  if (waiting.links > 0) return { tied, words: `${count(waiting.links, 'link')} to mend` };
  if (waiting.overrides > 0) return { tied, words: 'overrides to look at' };
  return { tied, words: gathered ? 'gathered' : 'still in the pages' };
}

/** Sites of one name are told apart by a number, the oldest first. */
export function namesApart(
  sites: readonly { readonly id: string; readonly name: string }[],
): ReadonlyMap<string, string> {
  const byName = new Map<string, string[]>();
  // the list has the newest first
  for (const { id, name } of [...sites].reverse()) byName.set(name, [...(byName.get(name) ?? []), id]);
  return new Map(
    sites.map(({ id, name }) => [id, byName.get(name)!.length > 1 ? ` (${byName.get(name)!.indexOf(id) + 1})` : '']),
  );
}
