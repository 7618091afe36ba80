import { afterEach, describe, expect, test } from '@jest/globals';
import { applyOperations, makeSite, SiteProver, type Operation, type Site } from '@syndeton/core';
import { ThreadPartner } from './threadPartner.ts';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const page = (i: number): string =>
  `<!DOCTYPE html><title>t</title><style>p { top: ${i % 5}px } .n { color: red }</style><p class="n" style="left: ${i % 3}px">${i}`;
const siteOf = (count: number): Site =>
  makeSite([
    ...Array.from({ length: count }, (_, i) => [`p${i}.html`, bytes(page(i))] as const),
    ['s.css', bytes('.n { top: 0 }')],
  ]);

function after(site: Site, ...operations: Operation[]): Site {
  const done = applyOperations(site, operations);
  if (!done.ok) throw new Error(done.problem.problem.kind);
  return done.value.site;
}

const gather = { kind: 'gather-rules', sheet: 'css/all.css' } as const;
const attributes = { kind: 'gather-attributes', sheet: 'css/attributes.css' } as const;

let partner: ThreadPartner;
afterEach(() => partner.letGo());

describe('a thread that proves half of the pages', () => {
  const site = siteOf(320);
  const states = [after(site, gather), after(site, gather, attributes), after(site, attributes), site];

  test('says of one state after the other what one prover alone says', () => {
    partner = new ThreadPartner(256, 4);
    const prover = new SiteProver(site, partner);
    const alone = new SiteProver(site);
    prover.prepare();
    for (const state of states) {
      const told: number[] = [];
      const proof = prover.prove(state, { onPage: (done) => told.push(done) });
      expect(proof).toEqual(alone.prove(state));
      expect(told.at(-1)).toBe(320);
    }
    expect(partner.proved).toBeGreaterThan(320);
  });

  test('stops with the one who asked, and is asked again', () => {
    partner = new ThreadPartner(256, 4);
    const prover = new SiteProver(site, partner);
    const stop = (done: number): void => {
      if (done > 20) throw new Error('nobody waits');
    };
    expect(() => prover.prove(states[0]!, { onPage: stop })).toThrow('nobody waits');
    expect(prover.prove(states[1]!)).toEqual(new SiteProver(site).prove(states[1]!));
    expect(partner.proved).toBe(160);
  });

  test('goes over to another beginning', () => {
    partner = new ThreadPartner(256, 4);
    new SiteProver(site, partner).prove(states[0]!);
    const next = new SiteProver(states[0]!, partner);
    expect(next.prove(states[1]!)).toEqual(new SiteProver(states[0]!).prove(states[1]!));
    expect(new SiteProver(site, partner).prove(states[2]!)).toEqual(new SiteProver(site).prove(states[2]!));
  });

  test('reads ahead over a page that it cannot read without the others, and leaves that one out', () => {
    const served = makeSite(
      [...site.files.values()].map(
        (file) => [file.path, file.path === 'p1.html' ? bytes(`${page(1)}<?php echo $menu ?>`) : file.bytes] as const,
      ),
    );
    partner = new ThreadPartner(256, 4, 20_000);
    const prover = new SiteProver(served, partner);
    prover.prepare();
    expect(prover.prove(after(served, gather))).toEqual(new SiteProver(served).prove(after(served, gather)));
    expect(partner.proved).toBe(159);
  });

  test('is done without where it does not come', () => {
    // no thread gets that far with so little memory
    partner = new ThreadPartner(1, 4, 500);
    expect(new SiteProver(site, partner).prove(states[0]!)).toEqual(new SiteProver(site).prove(states[0]!));
    expect(partner.proved).toBe(0);
  });
});

test.each([
  ['few pages', siteOf(299), 4, false],
  ['many pages', siteOf(300), 4, true],
  ['many pages and two processors', siteOf(300), 2, false],
  ['many pages and files too large to copy', makeSite([...siteOf(300).files.values()].map(({ path, bytes: own }) => [path, path === 's.css' ? new Uint8Array(64_000_001) : own] as const)), 4, false], // oxfmt-ignore
])('whether it helps: %s', (_what, site, processors, helps) => {
  partner = new ThreadPartner(256, processors);
  expect(partner.helps(site)).toBe(helps);
});
