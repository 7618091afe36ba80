import { expect, test } from '@jest/globals';
import { askChromium } from '../testing/chromium.ts';
import { grammarValues } from '../testing/grammarValues.ts';
import { Random } from '../testing/random.ts';
import { spellings } from '../testing/spellings.ts';
import { comparableValue } from './comparableValue.ts';
import { declarationValidity } from './declarationValidity.ts';
import { longhandsOf } from './longhands.ts';
import { longhandValues } from './longhandValues.ts';
import { longhandNames, longhandsOfShorthand } from './propertyTable.ts';

interface Group {
  readonly property: string;
  readonly longhands: readonly string[];
  readonly values: readonly string[];
}

/** Words of an author's own that no browser knows say nothing, whatever their case. */
const ofNoEffect = /^(color-scheme|(-webkit-)?transition(-property)?)$/;

/** Values of a property that compare as equal: by the longhands they set, or as they stand. */
function equalValues(property: string, count: number, random: Random): readonly Group[] {
  const longhands = longhandsOf(property);
  const groups = new Map<string, Set<string>>();
  const near = grammarValues(property, count, random).flatMap((value) => spellings(value, 10, random));
  for (const value of near) {
    if (declarationValidity(property, value) === 'invalid') continue;
    const comparable = comparableValue(property, value);
    const key = longhandValues(property, comparable)?.join('|') ?? comparable;
    groups.set(key, (groups.get(key) ?? new Set()).add(value));
  }
  return [...groups.values()].flatMap((set) => (set.size > 1 ? [{ property, longhands, values: [...set] }] : []));
}

// CSSOM 1, "Resolved Values": the browser answers by getComputedStyle, where each value has something to act on
test('values that compare as equal, made by the grammar and spelled otherwise, show alike in Chromium', async () => {
  const seed = Number(process.env['VALUE_SEED'] ?? '1');
  const count = Number(process.env['VALUES_EACH'] ?? '3');
  const groups = [...longhandNames, ...Object.keys(longhandsOfShorthand)].flatMap((name, i) =>
    ofNoEffect.test(name) ? [] : equalValues(name, count, new Random(seed * 1000 + i)),
  );
  const html = `<!DOCTYPE html><div style="color:rgb(1,2,3);font-size:13px"><div id=e>x</div></div>`;
  const base =
    'display:block;position:absolute;border:5px solid;outline:5px solid;column-rule:5px solid;text-decoration:underline;' +
    'font-size:17px;width:300px;height:100px;color:rgb(9,8,7);background-image:linear-gradient(red,blue);columns:2';
  const ask = `(${JSON.stringify(groups)}).flatMap(({ property, longhands, values }) => {
    const element = document.getElementById('e');
    const shown = getComputedStyle(element);
    const seen = values.flatMap((value) => {
      element.style.cssText = ${JSON.stringify(base)};
      if (!CSS.supports(property, value)) return [];
      element.style.setProperty(property, value);
      return [[longhands.map((name) => shown.getPropertyValue(name)).join('|'), value]];
    });
    return [[seen.length, ...seen.flatMap(([look, value]) => (look === seen[0][0] ? [] : [property + ': ' + seen[0][1] + ' and ' + value]))]];
  })`;
  const [answers] = (await askChromium([{ html, ask }])) as [readonly (readonly [number, ...string[]])[]];
  expect(answers.flatMap(([, ...parted]) => parted)).toEqual([]);
  expect(answers.reduce((sum, [asked]) => sum + asked, 0)).toBeGreaterThan(100 * count);
}, 200_000);
