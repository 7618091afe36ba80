import { expect, test } from '@jest/globals';
import { checkSite, SiteChecker } from '../checks/checkSite.ts';
import { desktop, type Environment } from '../cascade/environment.ts';
import { KeptDraft } from '../operations/keptDraft.ts';
import { applyOperations, type Operation } from '../operations/operation.ts';
import { KeptOutcomes } from '../precedence/keptOutcomes.ts';
import { findOverrides } from '../precedence/overrides.ts';
import { askSite } from '../precedence/question.ts';
import { ruleScore } from '../precedence/ruleScore.ts';
import { outcomesAfter } from '../precedence/outcomesAfter.ts';
import { proveSites } from '../proof/proveSites.ts';
import { SiteProver } from '../proof/siteProver.ts';
import { parseSheet } from '../sheet/parseSheet.ts';
import { pagesOf, sheetsOf, type Site } from '../source/site.ts';
import { hostileSite } from '../testing/hostileSite.ts';
import { siteWords } from '../writing/siteWords.ts';
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
      return { kind: 'edit-sheet', path: sheet.path, hash: sheet.hash, text: edited(sheet.text ?? '', roll) };
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
      return mends.length > 0
        ? { kind: 'mend', finding: pick(mends).id }
        : { kind: 'copy-links', from: pages[0]!, pages: pagesOf(site).map(({ path }) => path) };
  }
}

/** A rule put at the end, at the beginning or between others, or taken out, or only moved. */
function edited(text: string, roll: (below: number) => number): string {
  const rule = `${['p', 'li', '.lost', 'td, h2'][roll(4)]!} { top: ${roll(9)}px }`;
  const spans = parseSheet(text).rules.map(({ span }) => span);
  const span = spans[roll(Math.max(spans.length, 1))] ?? { start: 0, end: 0 };
  switch (roll(5)) {
    case 0:
      return `${text}\n${rule}`;
    case 1:
      return `${rule}\n${text}`;
    case 2:
      return `${text.slice(0, span.start)}${rule}\n${text.slice(span.start)}`;
    case 3:
      return text.slice(0, span.start) + text.slice(span.end);
    default:
      return `${text.slice(0, span.start)}\n/* ${roll(9)} */\n${text.slice(span.start)}`;
  }
}

const told = (site: Site, check: ReturnType<typeof checkSite>): string => {
  const { elementsOf, ...rest } = check;
  return JSON.stringify([rest, rest.families.map(({ id }) => elementsOf(id)), [...site.files.keys()]], null, 1);
};

function breakOff(outcomes: KeptOutcomes, after: number): void {
  const stop = new Error('nobody waits');
  try {
    outcomes.readAll((done) => {
      if (done > after) throw stop;
    });
  } catch (error) {
    if (error !== stop) throw error;
  }
}

/** All that is asked of kept outcomes, over all sheets, in two environments. */
function answers(kept: KeptOutcomes): unknown {
  const phone: Environment = { ...desktop, width: 390 };
  const asked = [desktop, phone].flatMap((environment) => [
    findOverrides(kept, environment),
    ...['p', 'li:first-child, td', '*'].map((selector) => askSite(kept, { selector, property: 'color', environment })),
    askSite(kept, { selector: 'a', property: 'margin', environment }),
  ]);
  const rules = sheetsOf(kept.site).flatMap(({ path, text }) =>
    parseSheet(text ?? '').rules.map((rule) => [path, rule] as const),
  );
  const scores = rules.map(([path, { span }]) => [
    path,
    span.start,
    ruleScore(kept, desktop, { path, start: span.start }),
  ]);
  return JSON.stringify([asked, scores, siteWords(kept.site, kept)], null, 1);
}

const sequences = Number(process.env['SEQUENCES'] ?? 20);

test.each(Array.from({ length: sequences }, (_, i) => i + 1))(
  'whatever is done one after the other, what is kept says what a fresh look says: %i',
  (seed) => {
    const roll = dice(seed);
    const before = siteOf(hostileSite(seed));
    const checker = new SiteChecker();
    const draft = new KeptDraft(before, checker);
    const prover = new SiteProver(before);
    let outcomes = outcomesAfter(undefined, before);
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
      const bytes = (site: Site): unknown =>
        [...site.files].map(([path, file]) => [path, Buffer.from(file.bytes).toString('latin1')]);
      expect(bytes(state.site)).toEqual(bytes(fresh.value.site));
      expect(told(state.site, checker.check(state.site))).toBe(told(state.site, checkSite(fresh.value.site)));
      outcomes = outcomesAfter(outcomes, state.site);
      if (roll(3) > 0) expect(answers(outcomes)).toBe(answers(new KeptOutcomes(fresh.value.site)));
      // what is overtaken by the next step is broken off
      else breakOff(outcomes, roll(3));
      const [kept, whole] = [prover.prove(state.site), proveSites(before, fresh.value.site)];
      const verdicts = (proof: typeof kept): unknown =>
        proof.pages.map(({ path, verdict, causes, notes }) => [path, verdict, causes, notes]);
      expect(verdicts(kept)).toEqual(verdicts(whole));
    }
    expect(done).toBeGreaterThan(0);
  },
);
