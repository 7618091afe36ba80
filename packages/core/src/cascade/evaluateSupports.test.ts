import { expect, test } from '@jest/globals';
import { askChromium } from '../testing/chromium.ts';
import { evaluateSupports } from './evaluateSupports.ts';

// CSS Conditional Rules 3, "Feature queries"; Level 4, selector(); Level 5, font-tech() and font-format()
const conditions = [
  '(display: grid)', '(display:grid)', '( display : grid )', '(DISPLAY: GRID)', 'not (display: grid)', '(display: bogus)',
  'not (display: bogus)', '(bogus: 1)', 'not (bogus: 1)', '(--x: y)', '(--x:)', '(--x: ;)', '(color: red !important)', '(color: red ! important)',
  '(color: red !bogus)', '(color: red; top: 0)', 'display: grid', 'display', '(display)', 'not (display)', '((display: grid))',
  '(not (display: grid))', '(display: grid) and (color: red)', '(display: grid) and (bogus: 1)', '(bogus: 1) or (color: red)',
  '(display: grid) and (color: red) or (bogus: 1)', '((display: grid) and (color: red)) or (bogus: 1)', '(display:grid)and (color:red)',
  '(display: grid) and(color: red)', '(display:grid)/**/and/**/(color:red)', 'not(display: grid)', 'not(bogus: 1)', 'not not (display: grid)',
  'not (not (display: grid))', '(display: grid) and not (bogus: 1)', '(display: grid) or not (bogus: 1)', '(display: grid))', '',
  'selector(a)', 'selector(a > b)', 'selector(a, b)', 'selector(:has(a))', 'selector(:bogus)', 'selector(::bogus)', 'selector(::-webkit-bogus)', 'selector(::-webkit-scrollbar)',
  'selector(:is(a))', 'selector(:is(:bogus))', 'selector(:is(a, :bogus))', 'selector(:not(:bogus))', 'selector(> a)', 'selector(&)', 'selector()', 'not selector(:bogus)',
  'selector(svg|a)', 'selector(*|a)', 'SELECTOR(a)', 'font-format(woff2)', 'font-format(woff)', 'font-format(bogus)', 'font-format("woff")',
  'font-format(opentype)', 'font-format(embedded-opentype)', 'font-tech(color-COLRv1)', 'font-tech(variations)', 'font-tech(features-graphite)', 'font-tech(bogus)', 'not font-tech(bogus)',
  'at-rule(@media)', 'bogus(x)', 'not bogus(x)', '(bogus x)', 'not (bogus x)', '([)])', '(a[b]) or (color: red)', '({}) or (color: red)', '(color: red) and (color: blue) and (top: 0)',
  '(margin: 1px 2px)', '(margin: 1px 2px bogus)', '(width: calc(1px + 2px))', '(width: calc(1px + 2s))', '(width: var(--x))', '(font: 12px/1 serif)', '(-webkit-appearance: none)',
  '(-moz-appearance: none)', '(co\\6c or: red)', '(col/**/or: red)', '(color/**/: red)', '(color: r/**/ed)', '(all: unset)', '(zoom: 2)', '(width: 3)', '(color: 008000)',
]; // oxfmt-ignore

test('as Chromium answers', async () => {
  const ask = `${JSON.stringify(conditions)}.map((c, i) => {
    const style = document.body.appendChild(document.createElement('style'));
    style.textContent = '@supports ' + c + ' { #a { --x: yes } }';
    const answer = getComputedStyle(document.getElementById('a')).getPropertyValue('--x') === 'yes';
    style.remove();
    return answer;
  })`;
  const [answers] = (await askChromium([{ html: '<!DOCTYPE html><p id=a>', ask }])) as [readonly boolean[]];
  const said = conditions.map((c) => evaluateSupports(c));
  const unsure = conditions.filter((_, i) => said[i] === undefined);
  expect(unsure).toEqual(expect.arrayContaining(['(width: calc(1px + 2s))', 'selector(:is(a, :bogus))']));
  expect(unsure.length).toBeLessThan(10);
  expect(conditions.filter((_, i) => said[i] !== undefined && said[i] !== answers[i])).toEqual([]);
});
