import { expect, test } from '@jest/globals';
import { checkSite, SiteChecker } from '../checks/checkSite.ts';
import { KeptDraft } from '../operations/keptDraft.ts';
import { applyOperations, type Operation } from '../operations/operation.ts';
import { proveSites } from '../proof/proveSites.ts';
import { SiteProver } from '../proof/siteProver.ts';
import { pagesOf, sheetsOf, type Site } from '../source/site.ts';
import { hostileSite } from '../testing/hostileSite.ts';
import { siteOf } from '../testing/siteOf.ts';

/** Numbers from 0 to `below`, the same for the same seed. */
function dice(seed: number): (below: number) => number {
  let state = seed * 2654435761 + 1;
  return (below) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state % below;
  };
}

/** Something a person might do next with the site as it is; not everything can be done. */
function nextOperation(site: Site, checker: SiteChecker, roll: (below: number) => number): Operation {
  const pick = <Item>(list: readonly Item[]): Item => list[roll(list.length)]!;
  const pages = [pick(pagesOf(site)).path];
  const sheet = pick(sheetsOf(site));
  const mends = checker.check(site).findings.filter(({ action }) => action.does === 'mend');
  switch (roll(8)) {
    case 0:
      return { kind: 'edit-sheet', path: sheet.path, hash: sheet.hash, text: `${sheet.text}\np { top: ${roll(9)}px }` };
    case 1:
      return { kind: 'unlink-sheet', sheet: sheet.path, pages };
    case 2:
      return { kind: 'move-link', sheet: sheet.path, pages, place: { at: pick(['first', 'last'] as const) } };
    case 3:
      return { kind: 'link-sheet', sheet: sheet.path, pages, place: { at: 'last' } };
    case 4:
      return { kind: 'gather-rules', sheet: `css/new${roll(3)}.css`, ...(roll(2) ? { pages } : {}) };
    case 5:
      return { kind: 'gather-attributes', sheet: `css/classes${roll(3)}.css` };
    default:
      return mends.length > 0 ? { kind: 'mend', finding: pick(mends).id } : { kind: 'copy-links', from: pages[0]!, pages: pagesOf(site).map(({ path }) => path) }; // prettier-ignore
  }
}

const told = (site: Site, check: ReturnType<typeof checkSite>): string => {
  const { elementsOf, ...rest } = check;
  return JSON.stringify([rest, rest.families.map(({ id }) => elementsOf(id)), [...site.files.keys()]], null, 1);
};

const sequences = Number(process.env['SEQUENCES'] ?? 20);

test.each(Array.from({ length: sequences }, (_, i) => i + 1))(
  'whatever is done one after the other, what is kept says what a fresh look says: %i',
  (seed) => {
    const roll = dice(seed);
    const before = siteOf(hostileSite(seed));
    const checker = new SiteChecker();
    const draft = new KeptDraft(before, checker);
    const prover = new SiteProver(before);
    let operations: readonly Operation[] = [];
    let done = 0;
    for (let step = 0; step < 8; step++) {
      const at = draft.apply(operations).site;
      const isUndone = operations.length > 1 && roll(4) === 0;
      const wanted = isUndone ? operations.slice(0, -1) : [...operations, nextOperation(at, checker, roll)];
      const state = draft.apply(wanted);
      const fresh = applyOperations(before, wanted);
      expect(state.problem === undefined).toBe(fresh.ok);
      if (!fresh.ok) continue;
      operations = wanted;
      done++;
      const bytes = (site: Site): unknown => [...site.files].map(([path, file]) => [path, Buffer.from(file.bytes).toString('latin1')]); // prettier-ignore
      expect(bytes(state.site)).toEqual(bytes(fresh.value.site));
      expect(told(state.site, checker.check(state.site))).toBe(told(state.site, checkSite(fresh.value.site)));
      const [kept, whole] = [prover.prove(state.site), proveSites(before, fresh.value.site)];
      const verdicts = (proof: typeof kept): unknown => proof.pages.map(({ path, verdict, causes, notes }) => [path, verdict, causes, notes]); // prettier-ignore
      expect(verdicts(kept)).toEqual(verdicts(whole));
    }
    expect(done).toBeGreaterThan(1);
  },
);
