import { describe, expect, test } from '@jest/globals';
import fs from 'node:fs';
import { askChromium } from '../testing/chromium.ts';
import { siteOf } from '../testing/siteOf.ts';
import { parseSelectorList } from '../selectors/parseSelector.ts';
import { matchList } from '../selectors/matchSelector.ts';
import { desktop } from './environment.ts';
import { CascadeSession } from './pageCascade.ts';
import { comparableValue } from '../values/comparableValue.ts';
import { initialValues } from '../values/initialValues.ts';
import { PageOutcomes, type Outcome } from './pageOutcomes.ts';

interface Row {
  readonly source: string;
  readonly shows: string;
  readonly html: string;
  readonly files?: Readonly<Record<string, string>>;
  readonly select: string;
  readonly pseudo?: string;
  readonly property: string;
  /** The winning declaration, where a shorthand sets the longhand. */
  readonly via?: string;
  /** The winning value as declared; null when no declaration applies. */
  readonly outcome: string | null;
}

// each row names the standard and section it shows; run on core and on Chromium, so that both keep each other honest
const rows = JSON.parse(
  fs.readFileSync(new URL('../testing/fixtures/cascade.json', import.meta.url), 'utf8'),
) as readonly Row[];

/** The text an outcome comes down to. */
function valueOf(outcome: Outcome, property: string): string {
  switch (outcome.kind) {
    case 'declared':
      return outcome.contender.compiled.comparable;
    case 'inherited':
      return valueOf(outcome.outcome, property);
    case 'default':
      return outcome.declaration.comparable;
    case 'initial':
      return comparableValue(property, outcome.value);
  }
}

const declaredBy = (outcome: Outcome): string | undefined =>
  outcome.kind === 'declared'
    ? `${outcome.contender.compiled.declaration.property}: ${outcome.contender.compiled.declaration.value}`
    : undefined;

describe('core', () => {
  test.each(rows.map((row) => [`${row.source}: ${row.shows}`, row] as const))('%s', (_name, row) => {
    const site = siteOf({ 'index.html': row.html, ...row.files });
    const page = new CascadeSession().open(site, site.files.get('index.html')!);
    const selector = parseSelectorList(row.select)!;
    const element = page.tree.elements.find((e) => matchList(e, selector, { quirks: false, state: 'rest' }) === 2)!;
    const outcomes = new PageOutcomes(page, { environment: desktop });
    const outcome = outcomes.outcomeOf(element, row.property, row.pseudo ?? '');
    if (row.via !== undefined) {
      expect(declaredBy(outcome)).toBe(row.via);
      return;
    }
    const said = valueOf(outcome, row.property);
    expect(said).toBe(comparableValue(row.property, row.outcome ?? initialValues[row.property]!));
  });
});

test('Chromium', async () => {
  const answers = await askChromium(
    rows.map((row) => ({
      html: row.html,
      ...(row.files ? { files: row.files } : {}),
      ask: `(() => {
        const element = document.querySelector(${JSON.stringify(row.select)});
        const read = getComputedStyle(element, ${JSON.stringify(row.pseudo ?? null)}).getPropertyValue(${JSON.stringify(row.property)});
        const probe = document.createElement('div');
        document.body.append(probe);
        probe.style.setProperty('all', 'initial');
        probe.style.setProperty(${JSON.stringify(row.property)}, ${JSON.stringify(row.outcome ?? 'initial')});
        const wanted = ${JSON.stringify(row.pseudo ?? '')} ? ${JSON.stringify(row.outcome)} : getComputedStyle(probe).getPropertyValue(${JSON.stringify(row.property)});
        return read === wanted ? 'as said' : read + ' instead of ' + wanted;
      })()`,
    })),
  );
  expect(rows.map((row, i) => `${row.shows}: ${String(answers[i])}`)).toEqual(
    rows.map((row) => `${row.shows}: as said`),
  );
});
