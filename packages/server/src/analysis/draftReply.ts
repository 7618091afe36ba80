import {
  changedFiles,
  describeStayReason,
  linkedSheets,
  decisionsOf,
  isAbsent,
  type KeptDraftState,
  type LeftRule,
  type Site,
} from '@syndeton/core';
import type { DraftReply } from '@syndeton/contract';
import { mistakesIn } from './mistakes.ts';
import type { MadeDraft, SiteState } from './tasks.ts';

/** A draft as its operations leave it, with the bytes that the one who asked has not. */
export function madeDraft(
  state: SiteState,
  { site, steps, before, problem }: KeptDraftState & { readonly before: Site },
  have: ReadonlySet<string>,
): MadeDraft {
  const changes = changesOf(before, site);
  const files = changes.map(({ path }) => [path, site.files.get(path)?.hash ?? null] as const);
  const fresh = new Map<string, Uint8Array>();
  for (const [path, hash] of files) if (hash !== null && !have.has(hash)) fresh.set(hash, site.files.get(path)!.bytes);
  return {
    draft: {
      base: state.number,
      operations: [...state.operations],
      steps: steps.map(({ sentence, left = [] }) => ({ sentence, left: left.map(describeLeft) })),
      changes,
      sheets: linkedSheets(site).map((s) => ({ ...s, pages: [...s.pages], isNew: !before.files.has(s.path) })),
      ...(problem ? { problem } : {}),
      missing: missingIn(site),
      mistakes: mistakesIn(before, site, changes),
    },
    decisions: decisionsOf(site),
    files,
    bytes: [...fresh],
  };
}

/** Sheets that count as nothing, in the order of their names. */
const missingIn = (site: Site): string[] => [...(site.absent ?? [])].filter((path) => isAbsent(site, path)).sort();

const describeLeft = ({ page, label, reason }: LeftRule): { page: string; label: string; reason: string } => ({
  page,
  label,
  reason:
    reason === 'order-conflict'
      ? 'pages hold it in orders that cannot be joined'
      : reason === 'no-scope'
        ? 'it cannot stand below a class of the body'
        : describeStayReason(reason),
});

/** The files that differ, with their sizes. */
export function changesOf(before: Site, after: Site): DraftReply['changes'] {
  return changedFiles(before, after).map(({ path, change }) => {
    const old = before.files.get(path);
    const now = after.files.get(path);
    return {
      path,
      change,
      bytesBefore: old?.size ?? 0,
      bytesAfter: now?.size ?? 0,
      kind: (now ?? old)!.kind,
    };
  });
}
