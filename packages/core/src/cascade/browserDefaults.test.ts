import { expect, test } from '@jest/globals';
import fs from 'node:fs';
import { parseSheet } from '../sheet/parseSheet.ts';
import { askChromium } from '../testing/chromium.ts';
import { siteOf } from '../testing/siteOf.ts';
import { comparableValue } from '../values/comparableValue.ts';
import { initialValues } from '../values/initialValues.ts';
import { longhandsOf } from '../values/longhands.ts';
import { desktop } from './environment.ts';
import { CascadeSession } from './pageCascade.ts';
import { PageOutcomes, type Outcome } from './pageOutcomes.ts';

const tags =
  'svg video canvas embed object textarea audio rp ruby center font map area picture template optgroup datalist noframes param a abbr acronym address article aside b bdi bdo big blockquote button center cite code dd del details dfn dialog dir div dl dt em fieldset figcaption figure footer form h1 h2 h3 h4 h5 h6 header hgroup hr i iframe img input ins kbd label legend li listing main mark marquee menu meter nav nobr ol option output p plaintext pre progress q s samp section select small span strike strong sub summary sup table tt u ul var wbr xmp'.split(
    ' ',
  );
// Chromium counts text-decoration, which is a shorthand, among the longhands
const svgTags =
  'rect g text tspan image a title style symbol marker pattern use defs foreignObject linearGradient svg'.split(' ');
const longhands = Object.keys(initialValues).filter((name) => name !== 'text-decoration');

function outcomes(html: string): (index: number, longhand: string) => Outcome {
  const site = siteOf({ 'index.html': html });
  const page = new CascadeSession().open(site, site.files.get('index.html')!);
  const found = new PageOutcomes(page, { environment: desktop });
  const marked = page.tree.elements.filter((e) => e.classes.includes('it'));
  return (index, longhand) => found.outcomeOf(marked[index]!, longhand);
}

/** The declaration that stands for an outcome in a style attribute. */
function text(outcome: Outcome, longhand: string): string {
  if (outcome.kind === 'initial') return `${longhand}: initial`;
  if (outcome.kind === 'inherited') return `${longhand}: inherit`;
  if (outcome.kind === 'declared') throw new Error('nothing is declared here');
  return `${outcome.declaration.declaration.property}: ${outcome.declaration.declaration.value}`;
}

// Chromium's own sheet does more here than HTML's: what these become depends on more than declarations
const apart = new Set(['iframe', 'meter', 'progress', 'option', 'marquee', 'dialog', 'plaintext', 'select']);

test('what core says browsers declare changes nothing when declared, in Chromium', async () => {
  const own = tags.filter((tag) => !apart.has(tag));
  const html = `<!DOCTYPE html><body>${own.map((tag) => `<div><${tag} class=it>${/^(hr|img|input|wbr|embed|area|param)$/.test(tag) ? '' : `x</${tag}>`}</div>`).join('')}<svg>${svgTags.map((tag) => `<${tag} class=it></${tag}>`).join('')}</svg>`;
  const ask_core = outcomes(html);
  const plan = [...own, ...svgTags].map((_, i) => longhands.map((longhand) => text(ask_core(i, longhand), longhand)));
  const ask = `(() => {
    const all = [...document.querySelectorAll('.it')];
    const plan = ${JSON.stringify(plan)};
    return all.flatMap((element, i) => ${JSON.stringify(longhands)}.flatMap((name, k) => {
      const before = getComputedStyle(element).getPropertyValue(name);
      element.style.cssText = plan[i][k];
      const after = getComputedStyle(element).getPropertyValue(name);
      element.style.cssText = '';
      return before === after ? [] : [element.localName + ' ' + name + ': ' + before + ', core says ' + plan[i][k]];
    }));
  })()`;
  const [answers] = (await askChromium([{ html, ask }])) as [readonly string[]];
  expect(answers).toEqual([]);
  expect(own.length * longhands.length).toBeGreaterThan(2000);
});

// html-ua-styles 0.5.0 (npm, MIT): the sheet of the HTML Standard's "Rendering"
test('the standard says the same of every element alone, but for listed ones', () => {
  const css = fs.readFileSync(new URL('../../../../node_modules/html-ua-styles/index.css', import.meta.url), 'utf8');
  const known = new Set(tags.filter((tag) => !apart.has(tag)));
  const said = new Map<string, string>();
  for (const rule of parseSheet(css.replaceAll(':heading(', ':nope(').replaceAll(':heading', 'h1, h2, h3, h4, h5, h6'))
    .rules) {
    if (rule.kind !== 'style' || rule.selector.includes('(') || rule.selector.includes('*')) continue;
    for (const selector of rule.selector.split(',').map((s) => s.trim()))
      for (const { property, value } of known.has(selector) ? rule.declarations : [])
        if (longhandsOf(property).length === 1) said.set(`${selector} ${property}`, comparableValue(property, value));
  }
  const order = [...known];
  const ask = outcomes(`<!DOCTYPE html><body>${order.map((tag) => `<${tag} class=it></${tag}>`).join('')}`);
  const parted = [...said].flatMap(([key, value]) => {
    const [tag, property] = key.split(' ') as [string, string];
    const outcome = ask(order.indexOf(tag), property);
    const own = outcome.kind === 'default' ? outcome.declaration.comparable : outcome.kind;
    return own === value || (own === 'initial' && value === 'initial') ? [] : [`${key}: ${value}, core ${own}`];
  });
  expect(parted).toEqual(differences);
  expect(said.size).toBeGreaterThan(150);
});

// by element: Chromium has forms and subscripts its own way (margins of forms are none, line heights stay), list markers hang by
// default, and form controls get their font as one shorthand
const differences: readonly string[] = [
  'form margin-block-end: 1em, core initial',
  'sub line-height: normal, core initial',
  'sup line-height: normal, core initial',
  'ol counter-reset: list-item, core initial',
  'ul counter-reset: list-item, core initial',
  'menu counter-reset: list-item, core initial',
  'li list-style-position: inside, core initial',
  'input line-height: initial, core 13.3333px Arial',
  'button line-height: initial, core 13.3333px Arial',
  'textarea line-height: initial, core 13.3333px Arial',
  'input text-align: initial, core start',
  'textarea text-align: initial, core start',
];
