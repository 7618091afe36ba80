import type { Difference } from './checkPage.ts';

/** Where core and Chromium may part, and why. The oracle prints the ones it met. */
export interface Exception {
  readonly reason: string;
  readonly covers: (difference: Difference) => boolean;
}

export const exceptions: readonly Exception[] = [];
