import { describe, expect, test } from '@jest/globals';
import { proveSites } from '../proof/proveSites.ts';
import { askChromium } from './chromium.ts';
import { pageOf, siteOf } from './siteOf.ts';

const body = '<h1 id=t class="x y">T</h1><p class=x>a <a href="#">l</a></p><pre>  k  </pre>';

/** Two states of a page, and what the proof has to say of them. */
export interface Row {
  readonly shows: string;
  readonly before: Readonly<Record<string, string>>;
  readonly after: Readonly<Record<string, string>>;
  readonly verdict: 'same' | 'differs';
  /** A browser, looked at in its first state on a screen, shows a difference too. */
  readonly visible?: boolean;
}

export const page = (head: string, inner = body): Record<string, string> => ({ 'index.html': pageOf(head, inner) });
export const row = (
  shows: string,
  verdict: Row['verdict'],
  before: Row['before'],
  after: Row['after'],
  visible?: boolean,
): Row => ({ shows, verdict, before, after, ...(visible === undefined ? {} : { visible }) });

/** Tests that core says so of each row, and that Chromium shows no difference where core says none. */
export function checkRows(rows: readonly Row[]): void {
  describe('core', () => {
    test.each(rows.map((r) => [r.shows, r] as const))('%s', (_shows, r) => {
      const proof = proveSites(siteOf(r.before), siteOf(r.after));
      expect(proof.pages[0]!.verdict).toBe(r.verdict);
      if (r.verdict === 'differs') {
        const said = [...proof.pages[0]!.causes.map((c) => c.reason), ...proof.pages[0]!.notes];
        expect(said.length).toBeGreaterThan(0);
        for (const sentence of said) expect(sentence).toMatch(/^[^ ].*\.$/s);
      }
    });
  });

  test('Chromium: where core says same nothing is seen to differ, and where a row says so something is', async () => {
    const ask = `[...document.querySelectorAll('*')].filter((e) => e.localName !== 'style' && e.localName !== 'link').flatMap((e) => [null, '::before', '::after'].map((p) => { const s = getComputedStyle(e, p); return [...s].map((n) => s.getPropertyValue(n)).join('|').replaceAll(location.origin, ''); }))`;
    const question = (files: Readonly<Record<string, string>>) => ({ html: files['index.html']!, files, ask });
    const answers = await askChromium(rows.flatMap((r) => [question(r.before), question(r.after)]));
    const seen = rows.map(
      (r, i) =>
        `${r.shows}: ${JSON.stringify(answers[2 * i]) === JSON.stringify(answers[2 * i + 1]) ? 'same' : 'differs'}`,
    );
    rows.forEach((r, i) => {
      if (r.verdict === 'same') expect(seen[i]).toBe(`${r.shows}: same`);
      if (r.visible !== undefined) expect(seen[i]).toBe(`${r.shows}: ${r.visible ? 'differs' : 'same'}`);
    });
  });
}
