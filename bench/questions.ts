import { askSite, desktop, findOverrides, KeptOutcomes, makeSite, type Site } from '@syndeton/core';
import { makeFiles } from './makeSite.ts';

export interface QuestionFigures {
  /** CPU milliseconds for the first reading of all pages. */
  readonly reading: number;
  /** Wall milliseconds of the answers after the first of each. */
  readonly answers: readonly number[];
  readonly firsts: readonly number[];
  readonly overrides: number;
  readonly bytesPerPage: number;
}

const asked = [
  ['h1, .notice', 'color'],
  ['p', 'margin-top'],
  ['a', 'color'],
  ['body', 'margin'],
  ['nav ul li a', 'background'],
  ['em', 'font-family'],
  ['.k7 > p', 'color'],
  ['p:first-child a', 'text-decoration-line'],
] as const;

/** How long a person waits for what decides a property on all pages. */
export function questions(
  pages: number,
  measure: (run: () => void) => number,
  heap: () => number,
): QuestionFigures & { readonly site: Site } {
  const site = makeSite(makeFiles(pages, 'embedded'));
  const before = heap();
  let kept: KeptOutcomes | undefined;
  const reading = measure(() => (kept = new KeptOutcomes(site)).readAll());
  const bytesPerPage = (heap() - before) / pages;
  const wall = (run: () => unknown): number => {
    const started = performance.now();
    run();
    return performance.now() - started;
  };
  const ask = ([selector, property]: (typeof asked)[number]): number =>
    wall(() => {
      if (!askSite(kept!, { selector, property, environment: desktop }).ok) throw new Error('refused');
    });
  const firsts = asked.map(ask);
  const answers = asked.flatMap((one) => [ask(one), ask(one), ask(one)]);
  return { site, reading, firsts, answers, overrides: wall(() => findOverrides(kept!, desktop)), bytesPerPage };
}
