import { expect, test } from '@jest/globals';
import { applyChangeSet } from '../source/changeSet.ts';
import type { Site } from '../source/site.ts';
import { planGatherRules, type GatherRules } from '../operations/gatherRules.ts';
import { proveSites } from '../proof/proveSites.ts';
import { familiesOf } from '../survey/families.ts';
import { askChromium, type Question } from '../testing/chromium.ts';
import { hostileSite } from '../testing/hostileSite.ts';
import { siteOf } from '../testing/siteOf.ts';
import { planLookKeepingGather } from './planGather.ts';

const seeds = Array.from(
  { length: Number(process.env['HOSTILE_SITES'] ?? 2) },
  (_, i) => i + 1 + Number(process.env['HOSTILE_FROM'] ?? 0),
);
const environments = [{ width: 1280 }, { width: 400 }, { media: 'print' as const }];
// a fingerprint of every computed value of every element and its ::before; the values themselves would be megabytes
const ask = `(() => {
  const names = [...getComputedStyle(document.documentElement)].concat('--c');
  let hash = 7;
  let count = 0;
  for (const element of document.querySelectorAll('*')) {
    if (element.localName === 'style' || element.localName === 'link') continue;
    for (const pseudo of [null, '::before']) {
      const style = getComputedStyle(element, pseudo);
      if (pseudo && style.content === 'none') continue;
      count++;
      const text = names.map((name) => style.getPropertyValue(name)).join('|').replaceAll(location.origin, '');
      for (let i = 0; i < text.length; i++) hash = (Math.imul(hash, 31) + text.charCodeAt(i)) | 0;
    }
  }
  return count + ' ' + hash;
})()`;

const filesOf = (site: Site): Record<string, string> =>
  Object.fromEntries([...site.files].map(([path, file]) => [path, file.text ?? '']));

function questions(site: Site, page: string): Question[] {
  const files = filesOf(site);
  return environments.map((environment) => ({ html: files[page]!, files, ask, ...environment }));
}

/** Two states of a site and the pages core calls the same. */
interface Claim {
  readonly name: string;
  readonly before: Site;
  readonly after: Site;
  readonly pages: readonly string[];
}

function claims(seed: number): readonly Claim[] {
  const before = siteOf(hostileSite(seed));
  const out: Claim[] = [];
  // one page's blocks moved, and one family's rules on all pages, whatever comes of it: what core calls the same has to be
  const pages = [...before.files.keys()].filter((path) => path.endsWith('.html'));
  const families = familiesOf(before).filter((family) => family.stays === undefined);
  const tries: Partial<GatherRules>[] = [
    ...pages.map((page) => ({ pages: [page] })),
    ...families.slice(0, 6).map((family) => ({ rules: [{ family: family.id }] })),
  ];
  for (const some of tries) {
    const plan = planGatherRules(before, { kind: 'gather-rules', sheet: 'css/new.css', ...some });
    if (!plan.ok) continue;
    const applied = applyChangeSet(before, plan.value.changes);
    if (!applied.ok) throw new Error(applied.problem.kind);
    const proof = proveSites(before, applied.value, { paths: new Set(plan.value.pages) });
    const same = proof.pages.filter((page) => page.verdict === 'same').map((page) => page.path);
    out.push({ name: `site ${seed}, ${JSON.stringify(some)}`, before, after: applied.value, pages: same });
  }
  const kept = planLookKeepingGather(before, 'css/new.css');
  if (!kept.ok) throw new Error(kept.problem.kind);
  expect(kept.value.proof.verdict).toBe('same');
  out.push({
    name: `site ${seed}, planned`,
    before,
    after: kept.value.site,
    pages: [...before.files.keys()].filter((path) => path.endsWith('.html')),
  });
  return out;
}

test('hostile sites: what core calls the same is the same in Chromium, wide, narrow and printed', async () => {
  const all = seeds.flatMap(claims).flatMap((claim) => claim.pages.map((page) => ({ ...claim, page })));
  const answers = await askChromium(
    all.flatMap(({ before, after, page }) => [...questions(before, page), ...questions(after, page)]),
  );
  const each = environments.length;
  const wrong = all.flatMap(({ name, page }, i) => {
    const at = i * 2 * each;
    return environments.flatMap((environment, j) =>
      answers[at + j] === answers[at + each + j] ? [] : [`${name}, ${page}, ${JSON.stringify(environment)}`],
    );
  });
  expect(wrong).toEqual([]);
  // the check is worth something only when much was called the same
  expect(all.length).toBeGreaterThan(seeds.length * 8);
}, 600_000);
