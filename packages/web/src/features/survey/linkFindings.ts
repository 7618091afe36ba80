import type { SurveyReply } from '@syndeton/contract';

export interface LinkFinding {
  readonly target: string;
  readonly words: string;
  readonly pages: readonly string[];
}

const wordsFor: Readonly<Record<string, string>> = {
  missing: 'there is no such file',
  'wrong-case': 'the file’s name has other capitals; wrong on most servers',
};

/** Links and imports that lead to no file, the same ones grouped over pages. */
export function linkFindings(pages: readonly SurveyReply['pages'][number][]): readonly LinkFinding[] {
  const found = new Map<string, { target: string; words: string; pages: string[] }>();
  for (const page of pages)
    for (const { target, problem } of page.sources) {
      const words = problem === null ? undefined : wordsFor[problem];
      if (words === undefined || target === null) continue;
      const key = `${target}\n${problem}`;
      const known = found.get(key) ?? { target, words, pages: [] };
      if (!known.pages.includes(page.path)) known.pages.push(page.path);
      found.set(key, known);
    }
  return [...found.values()];
}
