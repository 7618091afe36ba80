import type { ProofReply } from '@syndeton/contract';
import type { MeasuredDifference } from './compareDocuments.ts';

/** A window to look through: how wide, and for which medium. */
export interface MeasuredView {
  readonly width: number;
  readonly medium: 'screen' | 'print';
}

export const viewWords = ({ width, medium }: MeasuredView): string => (medium === 'print' ? 'in print' : `${width} px`);

/** What this browser said of one page, over all views. */
export interface MeasuredPage {
  readonly count: number;
  readonly named: readonly (MeasuredDifference & { readonly view: string })[];
  /** Why it could not be measured. */
  readonly failed?: string;
}

/** Kept by site and states until they are others. */
export interface Measured {
  readonly views: readonly MeasuredView[];
  readonly pages: Readonly<Record<string, MeasuredPage>>;
  /** It was begun and not stopped. */
  readonly running: boolean;
}

export const nothingMeasured: Measured = { views: [{ width: 1280, medium: 'screen' }], pages: {}, running: false };

const prefix = 'syndeton-measured';

/** `state`: what the two states are called, with the draft's version. Only the last comparison of a site is kept. */
export function readMeasured(siteId: string, state: string): Measured | undefined {
  const kept = localStorage.getItem(`${prefix} ${siteId}`);
  if (kept === null) return undefined;
  const at = kept.indexOf('\n');
  return kept.slice(0, at) === state ? (JSON.parse(kept.slice(at + 1)) as Measured) : undefined;
}

export function keepMeasured(siteId: string, state: string, measured: Measured): void {
  try {
    localStorage.setItem(`${prefix} ${siteId}`, `${state}\n${JSON.stringify(measured)}`);
  } catch {
    // without room it has to be measured again after a reload
  }
}

/** Where this browser shows a difference on a page that the proof calls the same: a fault of ours. */
export const disagreements = (proof: ProofReply, { pages }: Measured): readonly string[] =>
  proof.pages
    .filter(({ path, verdict }) => verdict === 'same' && (pages[path]?.count ?? 0) > 0)
    .map(({ path }) => path);
