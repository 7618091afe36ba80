// Where Gecko and WebKit take a value that Chromium drops, or the other way round, core must call it unsure: asks the two for each
// property with each value of the tests and with values the grammar makes, and for selectors of all forms. node … oracle/engines.ts [--seed N] [--each N] [--engine firefox,webkit]
import { parseArgs } from 'node:util';
import { readByBoth } from '../packages/core/src/selectors/parseSelector.ts';
import { isYoung } from '../packages/core/src/selectors/pseudoTable.ts';
import { values as handValues } from '../packages/core/src/testing/declarationValues.ts';
import { grammarValues } from '../packages/core/src/testing/grammarValues.ts';
import { Random } from '../packages/core/src/testing/random.ts';
import { selectorForms } from '../packages/core/src/testing/selectorForms.ts';
import { declarationValidity } from '../packages/core/src/values/declarationValidity.ts';
import { meantElsewhere } from '../packages/core/src/values/knownElsewhere.ts';
import { propertyKind } from '../packages/core/src/values/longhands.ts';
import { longhandNames, longhandsOfShorthand } from '../packages/core/src/values/propertyTable.ts';
import { openTab } from './openTab.ts';
import { serve } from './serve.ts';

const { values } = parseArgs({
  options: {
    seed: { type: 'string', default: '1' },
    each: { type: 'string', default: '30' },
    engine: { type: 'string', default: 'firefox,webkit' },
  },
});

type Asked = readonly [property: string, values: readonly string[]];

const asked = [...longhandNames, ...Object.keys(longhandsOfShorthand)].map((name, i): Asked => {
  const random = new Random(Number(values.seed) * 1000 + i);
  return [name, [...handValues, ...grammarValues(name, Number(values.each), random)]];
});

/** In the page: a row of signs a property, the first whether it is known at all. No name inside: the function travels as text. */
const answer = (rows: readonly Asked[]): readonly string[] =>
  rows.map(([name, list]) =>
    ['inherit', ...list]
      .map((value) => {
        const sheet = new CSSStyleSheet();
        sheet.replaceSync(`p{${name}:${value}}`);
        return (sheet.cssRules[0] as CSSStyleRule).style.length > 0 ? '1' : '0';
      })
      .join(''),
  );

/** In the page: a sign a selector. */
const readSelectors = (list: readonly string[]): string =>
  list
    .map((selector) => {
      const sheet = new CSSStyleSheet();
      sheet.replaceSync(`${selector}{color:red}`);
      return sheet.cssRules.length > 0 ? '1' : '0';
    })
    .join('');

/** In the page: every property its styles have. */
const ownNames = (): readonly string[] => {
  const { style } = document.documentElement;
  const spelled = Object.keys(Object.getOwnPropertyDescriptors(Object.getPrototypeOf(style)));
  for (const key in style as object) spelled.push(key);
  return [...new Set([...getComputedStyle(document.documentElement), ...spelled])]
    .map((key) => key.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`).replace(/^(webkit|moz)-/, '-$1-'))
    .filter((key) => CSS.supports(key, 'inherit'));
};

const forms = selectorForms();

const server = await serve(() => new TextEncoder().encode('<!DOCTYPE html><p>'));
let wrong = 0;
for (const name of values.engine.split(',')) {
  const { tab, close } = await openTab(name);
  await tab.goto(`${server.origin}/p.html`);
  let count = 0;
  for (let i = 0; i < asked.length; i += 40) {
    const part = asked.slice(i, i + 40);
    const answers = await tab.evaluate<readonly string[]>(answer, part);
    part.forEach(([property, list], k) => {
      const [known, ...signs] = answers[k]!;
      for (const [n, sign] of known === '1' ? signs.entries() : []) {
        count++;
        const said = declarationValidity(property, list[n]!);
        if (said === 'unsure' || said === 'quirks' || (said === 'valid') === (sign === '1')) continue;
        console.log(`${name} ${sign === '1' ? 'takes' : 'drops'} what is ${said} here: ${property}: ${list[n]}`);
        wrong++;
      }
    });
  }
  const named = await tab.evaluate<readonly string[]>(ownNames, undefined);
  for (const property of named) {
    if (propertyKind(property) !== 'unknown' || meantElsewhere(property) !== undefined) continue;
    console.log(`${name} knows a property that nobody does here: ${property}`);
    wrong++;
  }
  const taken = await tab.evaluate<string>(readSelectors, forms);
  for (const [n, selector] of forms.entries()) {
    const { ours, any } = readByBoth(selector);
    if (taken[n] === '1' ? any !== undefined : ours === undefined || isYoung(selector)) continue;
    console.log(`${name} ${taken[n] === '1' ? 'takes what nobody does' : 'drops what all take'} here: ${selector}`);
    wrong++;
  }
  await close();
  console.log(`${name}: ${count} values of properties it knows, ${wrong} wrong so far`);
}
server.close();
process.exit(wrong > 0 ? 1 : 0);
