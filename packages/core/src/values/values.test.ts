import { describe, expect, test } from '@jest/globals';
import { askChromium } from '../testing/chromium.ts';
import { boxSides } from './boxSides.ts';
import { comparableValue } from './comparableValue.ts';
import { declarationValidity } from './declarationValidity.ts';
import { isInherited, longhandsOf, physicalCounterparts } from './longhands.ts';
import { longhandNames, longhandsOfShorthand } from './propertyTable.ts';

describe('spellings of one value are one text; Chromium computes them alike', () => {
  const rows: readonly (readonly [string, string, string])[] = [
    ['color', 'rgb(255, 255, 0)', '#ffff00'],
    ['color', '#FF0', 'yellow'],
    ['color', 'rgb(100% 0% 0%)', 'red'],
    ['color', 'RED', '#f00'],
    ['margin-left', '0px', '0'],
    ['margin', '0 0px', '0px 0'],
    ['padding', '1.50em', '1.5EM'],
    ['padding', '.5em', '0.5em'],
    ['font-family', "'Courier New', serif", '"Courier New", serif'],
    ['border', '1px  solid\nRED', '1px solid #f00'],
    ['background', 'url( "a.png" ) no-repeat', 'url("a.png")  no-repeat'],
    ['opacity', '0.50', '.5'],
  ];
  test.each(rows)('%s: %s = %s', (property, one, two) => {
    expect(comparableValue(property, one)).toBe(comparableValue(property, two));
  });
  test('and so says Chromium', async () => {
    const ask = `${JSON.stringify(rows)}.map(([p, a, b]) => { const read = (v) => { const e = document.createElement('p'); document.body.append(e); e.style.setProperty(p, v); return [...e.style].map((n) => getComputedStyle(e)[n]).join('|'); }; return read(a) === read(b) && read(a) !== ''; })`;
    const [answers] = await askChromium([{ html: '<!doctype html><body>', ask }]);
    expect(answers).toEqual(rows.map(() => true));
  });
});

test.each([
  ['animation', 'Spin 2s', 'spin 2s'],
  ['--x', '#FFF', '#fff'],
  ['content', '"A"', '"a"'],
  ['flex', '0px', '0'],
  ['line-height', '0px', '0'],
  ['color', 'red', 'blue'],
  ['background', 'url(A.png)', 'url(a.png)'],
  ['width', 'calc(1px + 0px)', 'calc(1px + 0)'],
])('%s: %s is kept apart from %s', (property, one, two) => {
  expect(comparableValue(property, one)).not.toBe(comparableValue(property, two));
});

describe('what the table says of longhands, Chromium says now', () => {
  test('every shorthand, and that every longhand is one', async () => {
    const names = [...Object.keys(longhandsOfShorthand), ...longhandNames];
    const ask = `${JSON.stringify(names)}.map((n) => { const e = document.createElement('p'); e.style.setProperty(n, 'initial'); return [...e.style].join(' '); })`;
    const [answers] = (await askChromium([{ html: '<!doctype html>', ask }])) as [readonly string[]];
    names.forEach((name, i) => expect(`${name}: ${longhandsOf(name).join(' ')}`).toBe(`${name}: ${answers[i]}`));
  });
});

test('inheritance of properties everyone knows (CSS 2.1, "Full property table")', () => {
  for (const name of [
    'color',
    'font-size',
    'line-height',
    'list-style-type',
    'visibility',
    'border-collapse',
    'white-space-collapse',
    '--x',
  ])
    expect(`${name} ${isInherited(name)}`).toBe(`${name} true`);
  for (const name of ['margin-top', 'background-color', 'display', 'width', 'vertical-align', 'text-decoration-line'])
    expect(`${name} ${isInherited(name)}`).toBe(`${name} false`);
});

test('flow-relative longhands may land on these (CSS Logical Properties 1)', () => {
  expect(physicalCounterparts('margin-inline-start')).toEqual([
    'margin-top',
    'margin-right',
    'margin-bottom',
    'margin-left',
  ]);
  expect(physicalCounterparts('inline-size')).toEqual(['width', 'height']);
  expect(physicalCounterparts('border-block-end-color')).toContain('border-left-color');
  expect(physicalCounterparts('margin-left')).toEqual([]);
});

test.each([
  ['margin', '1px', ['1px', '1px', '1px', '1px']],
  ['padding', '1px 2px 3px', ['1px', '2px', '3px', '2px']],
  ['border-color', 'red blue', ['red', 'blue', 'red', 'blue']],
  ['margin', 'calc(1px + 1px)', undefined],
  ['border-radius', '1px', undefined],
])('%s: %s parts into sides', (property, value, sides) => {
  expect(boxSides(property, value)).toEqual(sides);
});

describe('validity: what is called valid or invalid, Chromium takes or refuses', () => {
  const rows = (
    'color:red|color:bogus|color:#12|margin:10|margin:10px|margin:10 px|width:100%|width:-1px|padding:-1px|font:12px serif|font:12px|' +
    'background:url(a.png) no-repeat|background:red blue|border:1px solid|border:1px solid 2px|display:block|display:blok|float:center|' +
    'font-weight:bolder|font-weight:450|line-height:1.5|text-decoration:underline overline|text-align:centre|z-index:1.5|opacity:2|' +
    'transform:rotate(3deg)|transform:rotate(3)|transition:all .3s|content:"x"|quotes:none|position:sticky|color:rgb(1,2)|' +
    'letter-spacing:.02em|vertical-align:middle|list-style:square|cursor:hand|cursor:pointer|white-space:nowrap|overflow:hidden|' +
    'clear:left|text-indent:1em|border-spacing:2px 3px|caption-side:top|empty-cells:hide|clip:rect(0,0,0,0)|min-width:0|flex:1|' +
    'grid-template-columns:1fr 2fr|color:inherit|margin:inherit 0|background-position:left top|font-family:"A",serif|font-family:A B'
  )
    .split('|')
    .map((row) => [row.slice(0, row.indexOf(':')), row.slice(row.indexOf(':') + 1)] as const);
  test('over common declarations', async () => {
    const ask = `${JSON.stringify(rows)}.map(([p, v]) => CSS.supports(p, v))`;
    const [answers] = (await askChromium([{ html: '<!doctype html>', ask }])) as [readonly boolean[]];
    const wrong = rows.flatMap(([property, value], i) => {
      const said = declarationValidity(property, value);
      return said === 'unsure' || (said === 'valid') === answers[i]
        ? []
        : [`${property}: ${value} is ${said}, Chromium says ${answers[i]}`];
    });
    expect(wrong).toEqual([]);
    expect(rows.filter(([p, v]) => declarationValidity(p, v) === 'unsure').length).toBeLessThan(rows.length / 4);
  });
  test.each([
    ['nonsense', 'red', 'invalid'],
    ['color', 'red\\9', 'invalid'],
    ['width', '100', 'quirks'],
    ['color', '008000', 'quirks'],
    ['border', '3 solid', 'invalid'],
    ['width', '10 px', 'invalid'],
    ['font-family', "'Courier\n", 'invalid'],
    ['color', 'r\\65 d', 'unsure'],
    ['color', 'var(--x)', 'valid'],
    ['--x', '', 'valid'],
    ['display', '-moz-box', 'unsure'],
  ])('%s: %s is %s', (property, value, validity) => {
    expect(declarationValidity(property, value)).toBe(validity);
  });
});
