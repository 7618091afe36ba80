import { expect, test } from '@jest/globals';
import { applyChangeSet } from '../source/changeSet.ts';
import type { Site } from '../source/site.ts';
import { planGatherRules, type GatherRules } from '../operations/gather/gatherRules.ts';
import { proveSites } from '../proof/proveSites.ts';
import { familiesOf } from '../survey/families.ts';
import { askChromium, type Question } from '../testing/chromium.ts';
import { hostileSite } from '../testing/hostileSite.ts';
import { siteOf } from '../testing/siteOf.ts';
import { planWhole } from './planWhole.ts';
import type { WholePlanOptions } from './wholePlan.ts';

const seeds = Array.from(
  { length: Number(process.env['HOSTILE_SITES'] ?? 6) },
  (_, i) => i + 1 + Number(process.env['HOSTILE_FROM'] ?? 0),
);
/** Partial moves tried of each site, beside the whole plan. */
const tries = Number(process.env['HOSTILE_TRIES'] ?? 2);
const environments = [{ width: 1280 }, { width: 400 }, { media: 'print' as const }];
// a fingerprint of every computed value of every element and its ::before; the values themselves would be megabytes
const ask = `(() => {
  for (const animation of document.getAnimations()) {
    animation.pause();
    animation.currentTime = 300;
  }
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
  Object.fromEntries(
    [...site.files].flatMap(([path, file]) => (file.kind === 'sheet' ? [[path, file.text ?? '']] : [])),
  );

function questions(site: Site, page: string): Question[] {
  const files = filesOf(site);
  const bytes = Buffer.from(site.files.get(page)!.bytes).toString('base64');
  return environments.map((environment) => ({ bytes, path: page, files, ask, ...environment }));
}

/** Two states of a site and the pages core calls the same. */
interface Claim {
  readonly name: string;
  readonly seed: number;
  readonly before: Site;
  readonly after: Site;
  readonly pages: readonly string[];
}

const pagesIn = (site: Site): string[] => [...site.files.keys()].filter((path) => path.endsWith('.html'));

/** The whole plan; and one page's blocks moved, or one family's rules on all pages, whatever comes of it. */
function claims(seed: number): readonly Claim[] {
  const before = siteOf(hostileSite(seed));
  const out: Claim[] = [];
  const families = familiesOf(before).filter((family) => family.stays === undefined);
  const some: Partial<GatherRules>[] = [
    ...pagesIn(before).map((page) => ({ pages: [page] })),
    ...families.slice(0, 6).map((family) => ({ rules: [{ family: family.id }] })),
  ];
  const chosen = Array.from({ length: tries }, (_, i) => some[(seed + i * 3) % some.length]!);
  for (const operation of chosen) {
    const plan = planGatherRules(before, { kind: 'gather-rules', sheet: 'css/new.css', ...operation });
    if (!plan.ok) continue;
    const applied = applyChangeSet(before, plan.value.changes);
    if (!applied.ok) throw new Error(applied.problem.kind);
    const moved = new Set(plan.value.pages);
    const proof = proveSites(before, applied.value);
    const same = proof.pages.filter((page) => page.verdict === 'same' && moved.has(page.path)).map((page) => page.path);
    out.push({ name: JSON.stringify(operation), seed, before, after: applied.value, pages: same });
  }
  const hints = seed % 2 === 0;
  const settings: WholePlanOptions = {
    hints,
    keepImports: seed % 10 === 0,
    oldBrowsers: seed % 7 === 0,
    sheets: seed % 5 === 0 ? 'own' : 'one',
    singlePage: (['shared', 'shared', 'own', 'stay'] as const)[seed % 4]!,
  };
  const whole = planWhole(before, 'css/new.css', settings);
  if (!whole.ok) throw new Error(whole.problem.kind);
  expect(whole.value.proof.verdict).toBe('same');
  // where nothing stayed, gathering once more changes nothing more
  if (whole.value.stays.length === 0 && settings.singlePage !== 'stay')
    expect(planWhole(whole.value.site, 'css/again.css', settings)).toMatchObject({
      ok: true,
      value: { operations: [] },
    });
  out.push({ name: 'planned', seed, before, after: whole.value.site, pages: pagesIn(before) });
  return out;
}

test('hostile sites: what core calls the same is the same in Chromium, wide, narrow and printed', async () => {
  const all = seeds.flatMap(claims).flatMap((claim) => claim.pages.map((page) => ({ ...claim, page })));
  const asked: Question[] = [];
  const places = new Map<string, number>();
  const place = (key: string, site: Site, page: string): number => {
    let at = places.get(key);
    if (at === undefined) {
      places.set(key, (at = asked.length));
      asked.push(...questions(site, page));
    }
    return at;
  };
  const compared = all.map(({ name, seed, page, before, after }) => ({
    text: `site ${seed}, ${name}, ${page}`,
    before: place(`${seed} ${page}`, before, page),
    after: place(`${seed} ${page} ${name}`, after, page),
  }));
  const answers = await askChromium(asked);
  const differing = compared.flatMap(({ text, before, after }) =>
    environments.flatMap((environment, i) =>
      answers[before + i] === answers[after + i]
        ? []
        : [{ text: `${text}, ${JSON.stringify(environment)}`, pair: [asked[before + i]!, asked[after + i]!] }],
    ),
  );
  // among thousands a page was once answered for before its sheets had come: what differs is asked again, each state twice
  const again = await askChromium(differing.flatMap(({ pair }) => [...pair, ...pair]));
  const wrong = differing.flatMap(({ text }, i) => {
    const [a, b, c, d] = again.slice(i * 4, i * 4 + 4);
    return a === b && c === d ? [] : [text];
  });
  expect(wrong).toEqual([]);
  // the check is worth something only when much was called the same
  expect(all.length).toBeGreaterThan(seeds.length * 4);
}, 3_600_000);
