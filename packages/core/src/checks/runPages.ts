import { runPagesUnread } from '../source/site.ts';
import { extensionOf } from '../source/sitePath.ts';
import type { CheckMaker } from './check.ts';
import type { FoundFinding } from './finding.ts';
import { code, count, namesInWords, verb } from './words.ts';

/** Files that a server runs (`.php`) and that hold whole pages: nobody reads them until somebody says so. */
export const runPages: CheckMaker = {
  kinds: ['page-not-read'],
  make: ({ site }) => ({
    findings(): readonly FoundFinding[] {
      const byEnding = new Map<string, string[]>();
      for (const { path } of runPagesUnread(site)) {
        const ending = extensionOf(path);
        byEnding.set(ending, [...(byEnding.get(ending) ?? []), path]);
      }
      return [...byEnding].map(([ending, paths]) => ({
        id: `page-not-read ${ending}`,
        kind: 'page-not-read',
        severity: 'note',
        sentence: `${count(paths.length, 'file')} ending in ${code(`.${ending}`)} ${verb(paths.length, 'hold whole pages', 'holds a whole page')} that a server runs; ${verb(paths.length, 'they are', 'it is')} not read: ${namesInWords(paths)}`,
        pages: [],
        places: paths.map((path) => ({ path, line: 1, column: 1 })),
        action: { does: 'read', label: paths.length === 1 ? 'Read it as a page' : 'Read them as pages' },
        mends: [],
      }));
    },
  }),
};
