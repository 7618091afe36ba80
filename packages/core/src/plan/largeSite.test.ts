import { expect, test } from '@jest/globals';
import type { Proof } from '../proof/proof.ts';
import { SiteProver, type ProofOptions } from '../proof/siteProver.ts';
import type { Site } from '../source/site.ts';
import { pageOf, siteOf, textIn } from '../testing/siteOf.ts';
import { planWhole } from './planWhole.ts';

/** Puts down what is proved, and what comes of it. */
class WatchedProver extends SiteProver {
  readonly proofs: string[] = [];

  override prove(after: Site, options: ProofOptions = {}): Proof {
    const proof = super.prove(after, options);
    const others = proof.pages.filter(({ verdict }) => verdict !== 'same').length;
    this.proofs.push(`${options.only ? 'some' : 'all'}, ${others} not the same`);
    return proof;
  }
}

const count = 210;
const nameOf = (i: number): string => `p${String(i).padStart(3, '0')}.html`;
const style = '<style>p { color: red } b { top: 0 }</style>';
/** No rule may leave its block: the script counts them. */
const script = '<script>if (document.querySelectorAll("style").length > 0) document.body.title = "styled"</script>';

function planned(pageAt: (i: number) => string): {
  files: (i: number) => string;
  proofs: readonly string[];
  told: readonly string[];
} {
  const site = siteOf(Object.fromEntries(Array.from({ length: count }, (_, i) => [nameOf(i), pageAt(i)])));
  const prover = new WatchedProver(site);
  const told: string[] = [];
  const onStep = (step: string, done: number, total: number): void => void told.push(`${step} ${done}/${total}`);
  const plan = planWhole(site, 'css/site.css', { onStep }, prover);
  if (!plan.ok) throw new Error(plan.problem.kind);
  expect(plan.value.proof.verdict).toBe('same');
  expect(new SiteProver(site).prove(plan.value.site).verdict).toBe('same');
  return { files: (i) => textIn(plan.value.site, nameOf(i))!, proofs: prover.proofs, told };
}

test('a plan that is right is tried on some pages, and proved once', () => {
  const { files, proofs, told } = planned((i) => pageOf(style, `<p style="margin: ${i % 3}px">a <b>b</b>`));
  expect(proofs).toEqual(['some, 0 not the same', 'all, 0 not the same']);
  // how far the trial is would look like the end of the whole
  const proving = told.filter((one) => one.startsWith('proving'));
  expect([proving[0], proving[39], proving[40], proving.at(-1)]).toEqual([
    'proving 0/210',
    'proving 0/210',
    'proving 1/210',
    'proving 210/210',
  ]);
  expect(files(7)).not.toMatch(/style="|<style/);
});

test('what is wrong with blocks everywhere shows on some pages, before all are proved', () => {
  const { files, proofs } = planned((i) => pageOf(style + (i % 2 ? script : ''), '<p>a <b>b</b>'));
  expect(proofs[0]).toBe('some, 20 not the same');
  expect(proofs.filter((one) => one.startsWith('all')).length).toBeLessThanOrEqual(3);
  expect(files(0)).not.toMatch(/<style/);
  expect(files(1)).toMatch(/<style>p { color: red } b { top: 0 }<\/style>/);
});

test('a page that makes trouble and was not tried is found by the proof of all; its block stays, all else goes', () => {
  const odd = 1;
  const { files, proofs } = planned((i) =>
    pageOf(style + (i === odd ? script : ''), '<p style="margin: 0">a <b>b</b>'),
  );
  expect(proofs[0]).toBe('some, 0 not the same');
  expect(proofs[1]).toBe('all, 1 not the same');
  // whether the block or the attribute is to blame is asked of this page alone
  expect(proofs[2]).toBe('some, 1 not the same');
  expect(proofs.at(-1)).toBe('all, 0 not the same');
  expect(files(odd)).toMatch(/<style/);
  expect(files(odd + 1)).not.toMatch(/style="|<style/);
});
