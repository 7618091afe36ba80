import { describe, expect, test } from '@jest/globals';
import { planGatherRules } from '../operations/gather/gatherRules.ts';
import { applyOperations } from '../operations/operation.ts';
import { packedFile, packedName, termsOf, unpackedFile } from '../source/packedFile.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { applyChangeSet } from '../source/changeSet.ts';
import { hostileSite } from '../testing/hostileSite.ts';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import type { ProofPartner, SharedProof } from './partner.ts';
import { SiteProver } from './siteProver.ts';

/** The site as a partner is told of it. */
function told(site: Site, share: ReadonlySet<string>): Site {
  const files = [...site.files.values()].map((file) =>
    unpackedFile(structuredClone(file.kind !== 'page' || share.has(file.path) ? packedFile(file) : packedName(file))),
  );
  return { ...structuredClone(termsOf(site)), files: new Map(files.map((file) => [file.path, file])) };
}

/** Everything gathered without care for the look, so that pages differ in many ways. */
function careless(site: Site): Site {
  const plan = planGatherRules(site, { kind: 'gather-rules', sheet: 'css/all.css' });
  const gathered = plan.ok ? applyChangeSet(site, plan.value.changes) : undefined;
  const start = gathered?.ok ? gathered.value : site;
  const after = applyOperations(start, [{ kind: 'gather-attributes', sheet: 'css/attributes.css' }]);
  return after.ok ? after.value.site : start;
}

describe.each(Array.from({ length: 8 }, (_, seed) => seed))('hostile site %i', (seed) => {
  test('who knows half of the pages, and the others by name, says of these what who knows all says', () => {
    const before = siteOf(hostileSite(seed));
    const after = careless(before);
    const share = new Set(pagesOf(before).flatMap(({ path }, i) => (i % 2 === seed % 2 ? path : [])));
    const whole = new SiteProver(before).prove(after).pages.filter(({ path }) => share.has(path));
    const said = new SiteProver(told(before, share)).proveShare(told(after, share), share, () => undefined);
    expect(said).toEqual(whole);
  });
});

/** A partner in this thread that is told of sites as another thread is; `spoil` takes what it found. */
class NearPartner implements ProofPartner {
  asked = 0;
  given = 0;
  private readonly spoil: ((...said: ReturnType<SharedProof['wait']>[]) => ReturnType<SharedProof['wait']>) | undefined;

  constructor(spoil?: NearPartner['spoil']) {
    this.spoil = spoil;
  }

  helps(): boolean {
    return true;
  }

  prepare(): void {}

  begin(
    before: Site,
    after: Site,
    share: ReadonlySet<string>,
    pages: readonly { readonly path: string }[],
  ): SharedProof {
    this.asked += pages.length;
    let waited = 0;
    return {
      done: () => waited,
      wait: () => {
        if (waited++ < 2) return undefined;
        const only = new Set(pages.map(({ path }) => path));
        const proofs = new SiteProver(told(before, share)).proveShare(told(after, share), only, () => undefined);
        this.given += proofs.length;
        const said = proofs.map((proof) => ({ proof, names: undefined }));
        return this.spoil ? this.spoil(said) : said;
      },
      stop: () => undefined,
    };
  }
}

describe('a large site', () => {
  const nameOf = (i: number): string => `p${i}.html`;
  const files = Object.fromEntries(
    Array.from({ length: 260 }, (_, i) => [
      nameOf(i),
      pageOf(`<style>p { top: ${i % 4}px } .n { color: red }</style>`, `<p class=n style="left: ${i % 3}px">a`),
    ]),
  );
  const before = siteOf({ ...files, 's.css': 'b { top: 0 }' });
  const after = careless(before);
  const plain = new SiteProver(before).prove(after);

  test('half of the pages are proved elsewhere, and the proof is the same, in the same order', () => {
    expect(new Set(plain.pages.map(({ verdict }) => verdict)).size).toBeGreaterThan(1);
    const partner = new NearPartner();
    const steps: number[] = [];
    expect(new SiteProver(before, partner).prove(after, { onPage: (done) => steps.push(done) })).toEqual(plain);
    expect(partner.asked).toBe(130);
    expect(steps.at(-1)).toBe(260);
  });

  test.each([
    ['is lost', () => 'lost' as const],
    [
      'leaves most pages out',
      (said: ReturnType<SharedProof['wait']>) => (Array.isArray(said) ? said.slice(100) : said),
    ],
  ])('a partner that %s is not asked again; nothing is missing', (_how, spoil) => {
    const partner = new NearPartner(spoil);
    const prover = new SiteProver(before, partner);
    expect(prover.prove(after)).toEqual(plain);
    expect(prover.prove(before).verdict).toBe('same');
    expect(prover.prove(after)).toEqual(plain);
    expect(partner.asked).toBe(130);
  });

  test('a page that a server writes into depends on what other pages say: it is left to who knows these', () => {
    const served = { ...files, [nameOf(1)]: pageOf('<style>p { top: 0 }</style>', '<p class=n>a<?php echo $menu ?>') };
    const [one, two] = [siteOf(served), careless(siteOf(served))];
    const partner = new NearPartner();
    expect(new SiteProver(one, partner).prove(two)).toEqual(new SiteProver(one).prove(two));
    expect(partner.given).toBe(129);
  });

  test('few pages are not shared', () => {
    const partner = new NearPartner();
    new SiteProver(before, partner).prove(after, { only: new Set([nameOf(1), nameOf(2), nameOf(3)]) });
    expect(partner.asked).toBe(0);
  });
});
