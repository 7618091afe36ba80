import { expect, test } from '@jest/globals';
import { proveSites } from '../proof/proveSites.ts';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { KeptDraft } from './keptDraft.ts';
import { applyOperations, type Operation } from './operation.ts';

const page = (own: string): string =>
  pageOf(`<style>p { top: 0 } .n { left: ${own}px }</style>`, '<p class=n style="color: red">a');
const site = siteOf({ 'a.html': page('1'), 'b.html': page('1'), 'c.html': page('2') });
const attributes: Operation = { kind: 'gather-attributes', sheet: 'css/a.css' };
const rules: Operation = { kind: 'gather-rules', sheet: 'css/s.css', rules: [{ family: 'p' }] };
const rest: Operation = { kind: 'gather-blocks', folder: 'css' };

test('a draft that goes on from the last one is what it would be from the beginning', () => {
  const draft = new KeptDraft(site);
  const without: Operation = { ...rules, except: [{ family: 'p', page: 'b.html' }] };
  for (const operations of [
    [attributes, rules, rest],
    [attributes, without, rest],
    [attributes, rules, rest],
    [rules],
    [],
    [rules, attributes],
  ]) {
    // oxfmt-ignore
    const kept = draft.apply(operations);
    const fresh = applyOperations(
      siteOf({ 'a.html': page('1'), 'b.html': page('1'), 'c.html': page('2') }),
      operations,
    );
    if (!fresh.ok) throw new Error(fresh.problem.problem.kind);
    const hashes = (files: typeof kept.site.files): unknown =>
      [...files.values()].map(({ path, hash }) => [path, hash]);
    expect(hashes(kept.site.files)).toEqual(hashes(fresh.value.site.files));
    expect(kept.steps.map(({ sentence }) => sentence)).toEqual(fresh.value.steps.map(({ sentence }) => sentence));
  }
});

test('pages that a changed decision leaves alone are the same files as before', () => {
  const draft = new KeptDraft(site);
  const first = draft.apply([attributes, rules, rest]);
  const second = draft.apply([attributes, { ...rules, except: [{ family: 'p', page: 'b.html' }] }, rest]);
  const same = ['a.html', 'b.html', 'c.html'].filter(
    (path) => first.site.files.get(path) === second.site.files.get(path),
  );
  expect(same).toContain('c.html');
  expect(same).not.toContain('b.html');
  expect(proveSites(site, second.site).pages.map(({ path }) => path)).toEqual(['a.html', 'b.html', 'c.html']);
});

test('an operation that does not fit is told with its place, and those before it stand', () => {
  const state = new KeptDraft(site).apply([
    rules,
    { kind: 'gather-rules', sheet: 'css/s.css', rules: [{ family: 'p' }] },
    rest,
  ]);
  expect(state.problem).toMatchObject({
    index: 1,
    detail: expect.stringMatching(/None of the chosen pages/) as unknown,
  });
  expect(state.site.files.has('css/s.css')).toBe(true);
});
