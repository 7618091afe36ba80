import { expect, test } from '@jest/globals';
import { markupFindings } from '../../checks/pageMarkup.ts';
import { proveSites } from '../../proof/proveSites.ts';
import { askChromium } from '../../testing/chromium.ts';
import { pageOf, siteOf } from '../../testing/siteOf.ts';
import { applyOperations } from '../operation.ts';

/** The body after each finding that can be mended was, with what the acts are called. */
function mended(body: string): { readonly body: string; readonly acts: readonly string[]; readonly verdict: string } {
  const before = siteOf({ 'a.html': pageOf('', body), 'b.html': pageOf('', '<p>y') });
  const found = markupFindings(before).filter(({ action }) => action.does === 'mend');
  const done = applyOperations(
    before,
    found.map(({ id, pages }) => ({ kind: 'mend', finding: id, files: pages })),
  );
  if (!done.ok) throw new Error(JSON.stringify(done.problem));
  const text = done.value.site.files.get('a.html')!.text!;
  const [head, tail] = pageOf('', '\0').split('\0') as [string, string];
  const left = text.slice(head.length, text.length - tail.length);
  return {
    body: left,
    acts: found.map(({ action }) => action.label),
    verdict: proveSites(before, done.value.site).verdict,
  };
}

test.each<readonly [body: string, after: string, ...acts: string[]]>([
  ['<p class="a" class="b" class = \'c\'>x</p>', '<p class="a">x</p>', 'Remove the one that does not count'],
  [
    '<p title=a title=b hidden hidden>x</p>',
    '<p title=a hidden>x</p>',
    'Remove the one that does not count',
    'Remove the one that does not count',
  ],
  ['<p class="a b  a">x</p>', '<p class="a b">x</p>', 'Say it once'],
  ['<div>x</div></div>y', '<div>x</div>y', 'Remove the end tag'],
  ['x<img src=a.png alt=""></img>y', 'x<img src=a.png alt="">y', 'Remove the end tag'],
  // an end tag that makes an element of its own
  ['<p>x<div>y</div></p>', '<p>x<div>y</div></p>'],
  ['x</br>y', 'x</br>y'],
  ['<b>x<i>y</b></i>', '<b>x<i>y</b></i>'],
])('%s is mended where browsers build the same of it', (body, after, ...acts) => {
  expect(mended(body)).toEqual({ body: after, acts, verdict: 'same' });
});

test('what Chromium builds of it is the same', async () => {
  const bodies = [
    '<p class="a" class="b">x</p>',
    '<p title=a title=b hidden hidden>x',
    '<p class="a b  a">x</p>',
    '<div>x</div></div>y',
    'x<img src=a.png alt=""></img>y',
    '<table><tr><td>x</td></td></table>',
  ];
  const ask = `(() => {
    for (const one of document.querySelectorAll('[class]')) one.setAttribute('class', [...one.classList].join(' '));
    return document.documentElement.outerHTML;
  })()`;
  const both = bodies.map((body) => [pageOf('', body), pageOf('', mended(body).body)] as const);
  const answers = await askChromium(both.flatMap((pair) => pair.map((html) => ({ html, ask }))));
  both.forEach(([one, two], i) => {
    expect(two).not.toBe(one);
    expect(answers[2 * i]).toBe(answers[2 * i + 1]);
  });
});
