import type { Finding, HoldingPage } from '@syndeton/core';
import { plural } from './printReport.ts';

/** What a build server is told: the findings that count as failures, and pages that hold styling gathered before. */
export interface Checked {
  readonly pages: number;
  readonly findings: readonly Finding[];
  readonly holding: readonly HoldingPage[];
  readonly fails: (finding: Finding) => boolean;
}

/** What a page that holds styling is told. */
export function holdingSentence({ page, blocks, styleAttributes, gatheredBefore }: HoldingPage): string {
  const held = [
    ...(blocks > 0 ? [plural(blocks, 'embedded block')] : []),
    ...(styleAttributes > 0 ? [plural(styleAttributes, 'style attribute')] : []),
  ];
  const again =
    gatheredBefore.length > 0
      ? `; in a sheet as well: ${gatheredBefore.slice(0, 5).join(', ')}${gatheredBefore.length > 5 ? ', …' : ''}`
      : '';
  return `${page} holds ${held.join(' and ')}${again}`;
}

export const plainSentence = (finding: Finding): string => finding.sentence.replaceAll('`', '');
