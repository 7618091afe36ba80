import type { DraftReply, ProposalReply } from '@syndeton/contract';

/** What a plan says besides its operations, which are in the draft. */
export type PlanWords = Omit<ProposalReply, 'operations'>;

interface Kept {
  /** The revision it was made on. */
  readonly base: number;
  /** What it writes to: where the draft does so no more, nothing it said holds. */
  readonly writes: readonly string[];
  readonly words: PlanWords;
}

const keyOf = (siteId: string): string => `syndeton-plan ${siteId}`;

const sheetsOf = (operations: DraftReply['operations']): readonly string[] =>
  operations.flatMap((one) => ('sheet' in one && typeof one.sheet === 'string' ? [one.sheet] : []));

/** The last plan of a site is there after a reload as well. */
export function keepPlan(siteId: string, base: number, { operations, ...words }: ProposalReply): void {
  const kept: Kept = { base, writes: sheetsOf(operations), words };
  try {
    localStorage.setItem(keyOf(siteId), JSON.stringify(kept));
  } catch {
    // without room it has to be made again
    localStorage.removeItem(keyOf(siteId));
  }
}

/** What was kept, if the plan is still in the draft. */
export function keptPlan(siteId: string, { base, operations }: DraftReply): PlanWords | undefined {
  const kept = read(siteId);
  const sheets = new Set(sheetsOf(operations));
  return kept?.base === base && kept.writes.every((sheet) => sheets.has(sheet)) ? kept.words : undefined;
}

function read(siteId: string): Kept | undefined {
  try {
    return JSON.parse(localStorage.getItem(keyOf(siteId)) ?? 'null') as Kept | undefined;
  } catch {
    // not ours
    return undefined;
  }
}
