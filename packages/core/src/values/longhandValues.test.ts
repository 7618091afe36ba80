import { describe, expect, test } from '@jest/globals';
import { askChromium } from '../testing/chromium.ts';
import { comparableValue } from './comparableValue.ts';
import { declarationValidity } from './declarationValidity.ts';
import { longhandsOf } from './longhands.ts';
import { longhandValues } from './longhandValues.ts';

/** Every part, every two and every three of them, in every order. */
function orders(parts: readonly string[], most: number): readonly string[] {
  const all: string[][] = parts.map((one) => [one]);
  for (let i = 0; i < all.length; i++)
    if (all[i]!.length < most) for (const one of parts) if (!all[i]!.includes(one)) all.push([...all[i]!, one]);
  return all.map((list) => list.join(' '));
}

const made: Readonly<Record<string, readonly string[]>> = {
  border: orders(['1px', '0', 'medium', 'solid', 'none', '#b9ced2', 'Red', 'currentColor', 'rgb(0 0 0 / 50%)'], 3),
  'border-left': orders(['2px', 'dotted', 'navy', '#ABC', 'transparent'], 3),
  'column-rule': orders(['thin', 'solid', 'blue'], 3),
  outline: orders(['1px', 'none', 'solid', 'auto', 'red', 'invert'], 3),
  'list-style': orders(['none', 'inside', 'square', 'url(x.png)', 'disc'], 3),
  'text-decoration': orders(['none', 'underline', 'overline', 'dotted', 'red', '#f00', '2px'], 3),
  'border-radius': ['3px', '1px 2px', '1px 2px 3px', '1px 2px 3px 4px', '50%', '1px / 2px', '0'],
  gap: ['1em', '1em 2px', '0', 'normal', '5%'],
  overflow: ['auto', 'hidden scroll', 'visible', 'clip hidden'],
  flex: ['1', 'none', 'auto', '2 0', '1 1 0%', '0 0 10px', '1 2 auto', '0', '1 1 0px', '3 30px', 'initial'],
  'flex-flow': orders(['row', 'column-reverse', 'wrap', 'nowrap'], 2),
  background: [
    ...orders(['red', '#fff', 'none', 'url(a.png)', 'no-repeat', 'repeat-x', 'fixed', 'left', 'top', '50%', '0'], 3),
    'url(a.png) 10px 20px no-repeat #eee', 'transparent', 'url(a.png) center / cover', 'url(a.png), red', 'none padding-box',
    'url(a.png) left 10px top 5px', 'bottom right', 'right bottom', 'center', '0 0', 'center top', 'top center', 'top 10px', '10px left',
    'linear-gradient(red, blue)', 'url(a.png) round space', 'inherit', 'white url("b c.png") repeat-y scroll 100% 0',
  ],
  font: [
    '12px Arial', 'bold 12px/1.5 Arial, sans-serif', 'italic small-caps 700 1em/normal Georgia', 'caption', '12px', 'normal 80% serif',
    'oblique 10pt "Courier New", monospace', "italic bold .8em/1.2 Arial", 'larger Times New Roman', 'condensed 12px x', 'menu', '12px/14px "Gill Sans"',
    'oblique 20deg 12px Arial', 'medium/1.4 Verdana, Geneva', '900 XX-LARGE serif', '12px / 2 Arial', 'inherit',
  ],
  margin: ['0', '0 auto', '1px 2px 3px', '1px 2px 3px 4px', 'calc(1px + 1em) 0'],
  inset: ['0', '1px auto'],
  'border-color': ['red', 'red blue', 'transparent', 'rgb(1, 2, 3) red'],
}; // oxfmt-ignore

const rows = Object.entries(made).flatMap(([property, values]) =>
  values.filter((value) => declarationValidity(property, value) === 'valid').map((value) => [property, value] as const),
);
const parted = rows.flatMap(([property, value]) => {
  const values = longhandValues(property, comparableValue(property, value));
  return values ? [{ property, value, longhands: longhandsOf(property), values }] : [];
});

describe('shorthands are parted as browsers part them', () => {
  test('most of them', () => {
    expect(rows.length).toBeGreaterThan(700);
    expect(parted.length / rows.length).toBeGreaterThan(0.7);
  });

  test('each value is spelled as the longhand alone would be', () => {
    for (const { longhands, values } of parted)
      longhands.forEach((longhand, i) => {
        expect(`${longhand}:${comparableValue(longhand, values[i]!)}`).toBe(`${longhand}:${values[i]!}`);
      });
  });

  test('and so says Chromium of every longhand', async () => {
    const spelled = parted.map(({ values, ...one }) => ({
      ...one,
      values: values.map((v) =>
        v.replace(
          /^(#[0-9a-f]{6})\/([\d.]+)$/,
          (_, hex: string, alpha: string) =>
            hex +
            Math.round(Number(alpha) * 255)
              .toString(16)
              .padStart(2, '0'),
        ),
      ),
    }));
    const ask = `${JSON.stringify(spelled)}.map(({ property, value, longhands, values }) => {
      const one = document.createElement('p'), two = document.createElement('p');
      document.body.append(one, two);
      one.style.setProperty(property, value);
      longhands.forEach((name, i) => two.style.setProperty(name, values[i]));
      const wrong = longhands.filter((name) => two.style.getPropertyValue(name) === '' || getComputedStyle(one).getPropertyValue(name) !== getComputedStyle(two).getPropertyValue(name));
      const out = wrong.map((name) => property + ': ' + value + ' gives ' + name + ': ' + one.style.getPropertyValue(name) + ', not ' + two.style.getPropertyValue(name));
      one.remove(); two.remove();
      return out;
    }).flat()`;
    const [answers] = await askChromium([{ html: '<!DOCTYPE html><body>', ask }]);
    expect(answers).toEqual([]);
  });
});

test.each([
  ['border', 'var(--x)'],
  ['background', 'url(a.png), red'],
  ['font', 'caption'],
  ['margin', 'calc(1px + var(--x))'],
  ['color', 'red'],
  ['flex', 'calc(1 + 1)'],
])('%s: %s is not parted', (property, value) => {
  expect(longhandValues(property, comparableValue(property, value))).toBeUndefined();
});
