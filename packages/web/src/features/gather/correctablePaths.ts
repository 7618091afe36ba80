import type { FindingReply } from '@syndeton/contract';

/** By the path that links ask for, the finding that puts another in its place. */
export const correctablePaths = (findings: readonly FindingReply[]): ReadonlyMap<string, string> =>
  new Map(
    findings.flatMap(({ id, action }) => {
      const path = /^link-(?:missing|wrong-case) (.*)$/.exec(id)?.[1];
      return path !== undefined && action.does === 'mend' ? [[path, id] as const] : [];
    }),
  );
