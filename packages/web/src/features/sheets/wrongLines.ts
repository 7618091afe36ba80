import type { TextFinding } from '@syndeton/core';

/** On how many lines something is that does not do what it says. */
export function wrongLines(text: string, findings: readonly TextFinding[]): number {
  const starts = findings.filter(({ severity }) => severity !== 'note').map(({ span }) => span.start);
  starts.sort((a, b) => a - b);
  return starts.filter((start, i) => i === 0 || text.slice(starts[i - 1], start).includes('\n')).length;
}
