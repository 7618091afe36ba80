import { describe, expect, test } from '@jest/globals';
import type { ElementTableReply } from '@syndeton/contract';
import { findElements, Peeling } from './frameDocument.ts';

type Row = ElementTableReply['rows'][number];
type Entry = Row['entries'][number];

function pageOf(markup: string): Document {
  document.documentElement.innerHTML = markup;
  return document;
}

const head =
  '<head><style>p { color: red } b, i > u { color: teal }</style><link rel="icon" href="i.png"><style media="all">@media (min-width: 1px) { P { margin: 4px } }</style></head>';

/** Only what is read of a table. */
function tableOf(
  ...entries: (Pick<Entry, 'id' | 'source' | 'declared'> & { rule?: string; selector?: string; property?: string })[]
): ElementTableReply {
  const rows = entries.map(({ property = 'color', ...entry }) => ({ property, entries: [entry] }));
  return {
    rows,
    sources: [
      { id: '0:', kind: 'embedded' },
      { id: '1:', kind: 'embedded' },
    ],
  } as unknown as ElementTableReply;
}

describe('elements of a page', () => {
  const page = pageOf(
    '<head></head><body><p class="note">Ferries <b>leave</b> at eight</p><p>Nothing leaves</p></body>',
  );

  test('are found by a selector', () => {
    expect(findElements(page, 'p.note')).toHaveLength(1);
  });

  test('are found by their own words where that is no selector, or reaches nothing, in any case of letters', () => {
    expect(findElements(page, 'LEAVE').map(({ localName }) => localName)).toEqual(['b', 'p']);
    expect(findElements(page, ' At eight ').map(({ className }) => className)).toEqual(['note']);
    expect(findElements(page, 'nobody says this')).toEqual([]);
  });
});

describe('what is peeled off', () => {
  test('a block is switched off, and on again by the next choice', () => {
    const page = pageOf(`${head}<body><p>a</p></body>`);
    const peeling = new Peeling();
    const [first, second] = page.querySelectorAll('style');
    peeling.apply(page, null, tableOf(), ['0:']);
    expect([first, second].map((one) => Boolean(one!.sheet!.disabled))).toEqual([true, false]);
    // a link that loads no sheet is not counted
    peeling.apply(page, null, tableOf(), ['1:']);
    expect([first, second].map((one) => Boolean(one!.sheet!.disabled))).toEqual([false, true]);
    peeling.apply(page, null, tableOf(), []);
    expect(second!.sheet!.disabled).toBe(false);
  });

  test('a declaration of a rule goes alone, however its selector is spaced, and comes back as it was written', () => {
    const page = pageOf(`${head}<body><i><u>a</u></i></body>`);
    const peeling = new Peeling();
    const table = tableOf({ id: 'd1', source: '0:', declared: 'color', rule: 'b,i>u' });
    const rule = (): string => page.querySelector('style')!.sheet!.cssRules[1]!.cssText;
    peeling.apply(page, page.querySelector('u'), table, ['d1']);
    expect(rule()).not.toContain('teal');
    peeling.apply(page, page.querySelector('u'), table, []);
    expect(rule()).toContain('color: teal');
  });

  test('a declaration within a group rule is found', () => {
    const page = pageOf(`${head}<body><p>a</p></body>`);
    const rule = (): string => page.querySelectorAll('style')[1]!.sheet!.cssRules[0]!.cssText;
    new Peeling().apply(
      page,
      null,
      tableOf({ id: 'd2', source: '1:', declared: 'margin', rule: 'p', property: 'margin-top' }),
      ['d2'],
    );
    expect(rule()).not.toContain('4px');
  });

  test('of a style attribute one declaration, or all of it; presentational attributes by name', () => {
    const page = pageOf('<head></head><body><p style="color: red; top: 0" align="right" bgcolor="lime">a</p></body>');
    const element = page.querySelector('p')!;
    const peeling = new Peeling();
    peeling.apply(page, element, tableOf({ id: 'd3', source: 'attribute', declared: 'color' }), ['d3']);
    expect(element.getAttribute('style')).toBe('top: 0px;');
    peeling.apply(page, element, tableOf(), ['attribute']);
    expect(element.hasAttribute('style')).toBe(false);
    const hints = tableOf({ id: 'h', source: 'presentational', declared: '', selector: 'align' });
    peeling.apply(page, element, hints, ['presentational']);
    expect([element.hasAttribute('align'), element.getAttribute('bgcolor')]).toEqual([false, 'lime']);
    peeling.apply(page, element, hints, []);
    expect([
      element.getAttribute('align'),
      element.getAttribute('style')?.replace('0px', '0').replace(/;$/, ''),
    ]).toEqual(['right', 'color: red; top: 0']);
  });

  test('what is not in the page any more is passed over', () => {
    const page = pageOf('<head></head><body><p>a</p></body>');
    const peeling = new Peeling();
    peeling.apply(page, null, undefined, ['0:', '7:css/gone.css', 'attribute', 'presentational', 'nobody']);
    peeling.apply(page, null, undefined, []);
    expect(page.body.innerHTML).toBe('<p>a</p>');
  });
});
