import { expect, test } from '@jest/globals';
import { askChromium } from '../testing/chromium.ts';
import { values } from '../testing/declarationValues.ts';
import { grammarValues } from '../testing/grammarValues.ts';
import { Random } from '../testing/random.ts';
import { declarationValidity } from './declarationValidity.ts';
import { longhandsOf } from './longhands.ts';
import { longhandNames, longhandsOfShorthand } from './propertyTable.ts';

const shorthands = Object.keys(longhandsOfShorthand);

/** Every property is asked with every 41st value, each value of every 41st property; the nightly form asks for all. */
const steps = process.env['ALL_VALUES'] === '1' ? 1 : 41;

// the browser answers by CSS.supports: properties it knows with the values above
test('what core calls valid Chromium takes, what core calls invalid it refuses; the rest is called unsure', async () => {
  const names = [...longhandNames, ...shorthands];
  const rows = names.map((name, i) => [name, values.filter((_, k) => (i + k) % steps === 0)] as const);
  const ask = `(${JSON.stringify(rows)}).map(([name, list]) => list.map((value) => (CSS.supports(name, value) ? 1 : 0)).join(''))`;
  const [answers] = (await askChromium([{ html: '<!DOCTYPE html>', ask }])) as [readonly string[]];
  const wrong: string[] = [];
  let asked = 0;
  let unsure = 0;
  rows.forEach(([name, list], i) =>
    list.forEach((value, k) => {
      asked++;
      const said = declarationValidity(name, value);
      if (said === 'unsure') unsure++;
      else if ((said === 'valid') !== (answers[i]![k] === '1')) wrong.push(`${name}: ${value} is ${said} here`);
    }),
  );
  expect(wrong).toEqual([]);
  expect(asked).toBeGreaterThan(400_000 / steps);
  expect(unsure / asked).toBeLessThan(0.35);
}, 200_000);

// the grammar makes the values and near misses of them; the browser reads them as rules of a sheet
test('values as the grammar makes them: what core calls valid Chromium takes, what it calls invalid it refuses', async () => {
  const seed = Number(process.env['VALUE_SEED'] ?? '1');
  const count = Number(process.env['VALUES_EACH'] ?? '6');
  const rows = [...longhandNames, ...shorthands].flatMap((name, i) =>
    grammarValues(name, count, new Random(seed * 1000 + i)).map((value) => [name, value] as const),
  );
  const ask = `(${JSON.stringify(rows)}).map(([name, value]) => {
    const sheet = new CSSStyleSheet();
    sheet.replaceSync('p{' + name + ':' + value + '}');
    return sheet.cssRules[0].style.length > 0 ? 1 : 0;
  }).join('')`;
  const [answers] = (await askChromium([{ html: '<!DOCTYPE html>', ask }])) as [string];
  const said = rows.map(([name, value]) => declarationValidity(name, value));
  const wrong = rows.filter((_, i) => said[i] !== 'unsure' && (said[i] === 'valid') !== (answers[i] === '1'));
  expect(wrong.map(([name, value]) => `${name}: ${value}`)).toEqual([]);
  expect(rows.length).toBeGreaterThan(400 * count);
  expect(said.filter((one) => one === 'unsure').length / rows.length).toBeLessThan(0.5);
}, 200_000);

// CSS Cascading 5, "Shorthand Properties": the browser answers by element.style
test('every shorthand sets the longhands the table says, whatever its value', async () => {
  const ask = `${JSON.stringify(shorthands)}.map((n) => {
    const style = document.createElement('p').style;
    return ${JSON.stringify(values)}.flatMap((v) => {
      style.cssText = '';
      style.setProperty(n, v);
      const set = [...style].sort().join(' ');
      return set === '' ? [] : [set];
    });
  })`;
  const [answers] = (await askChromium([{ html: '<!DOCTYPE html>', ask }])) as [readonly (readonly string[])[]];
  const parted = shorthands.flatMap((name, i) => {
    const own = [...longhandsOf(name)].sort().join(' ');
    return [...new Set(answers[i])].filter((set) => set !== own).map((set) => `${name}: ${set} here ${own}`);
  });
  expect(parted).toEqual([]);
  expect(answers.flat().length).toBeGreaterThan(1000);
});
