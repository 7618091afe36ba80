import { parse, type DefaultTreeAdapterTypes } from 'parse5';
import { hostileSite } from '../testing/hostileSite.ts';
import { describe, expect, test } from '@jest/globals';
import { askChromium } from '../testing/chromium.ts';
import { elementAt, elementName, elementPath, parentElement, parsePage, textContent } from './parsePage.ts';
import { styleSources } from './styleSources.ts';

const odd = [
  '<p>one<p>two<table><td>x</table>',
  '<b><p>a</b>c</p>',
  '<ul><li>a<li>b</ul><select><option>x</select>',
  '<!DOCTYPE html><svg><foreignObject><div>x</div></foreignObject><linearGradient/></svg><math><mi>x</mi></math>',
  '<table><div>moved</div><tr><td>x',
  '<head><title>t</title><style>p{}</style></head><frameset><frame></frameset>',
  '<!DOCTYPE HTML PUBLIC "-//W3C//DTD HTML 4.01 Transitional//EN"><p>quirks',
  '<!DOCTYPE html PUBLIC "-//W3C//DTD XHTML 1.0 Transitional//EN" "http://www.w3.org/TR/xhtml1/DTD/xhtml1-transitional.dtd"><p>limited',
  '<template><style>p{}</style><p>x</p></template><noscript><p>y</p></noscript>',
  '<a href=1>x<a href=2>y</a>',
  '\ufeff<!DOCTYPE html><title>a byte order mark first</title><style>p{}</style><p>x',
];

test('odd pages: the tree and the mode Chromium builds', async () => {
  const ask = `document.compatMode + ' ' + [...document.querySelectorAll('*')].map((e) => (e.parentElement?.localName ?? '') + '>' + e.localName).join(' ')`;
  const answers = await askChromium(odd.map((html) => ({ html, ask })));
  const said = odd.map((html) => {
    const page = parsePage(html);
    return `${page.mode === 'quirks' ? 'BackCompat' : 'CSS1Compat'} ${page.elements.map((e) => `${parentElement(e)?.tag ?? ''}>${e.tag}`).join(' ')}`;
  });
  expect(said).toEqual(answers);
});

const deep = [
  '<!DOCTYPE html>' +
    '<div>'.repeat(600) +
    '</div>'.repeat(50) +
    '<p>a<span>b</span></p>' +
    '</div>'.repeat(100) +
    '<p>c',
  '<!DOCTYPE html>' + '<b><i><u><p>'.repeat(150),
  '<!DOCTYPE html>' + '<table><td>'.repeat(250),
  '<!DOCTYPE html><svg>' + '<g>'.repeat(600) + '<rect/>',
  '<!DOCTYPE html>' + '<ul><li>'.repeat(300),
];

test('deep pages: every element as deep as in Chromium', async () => {
  const ask = `[...document.querySelectorAll('*')].map((e) => {
    let depth = 0;
    for (let at = e; at; at = at.parentElement) depth++;
    return e.localName + depth;
  }).join(' ')`;
  const answers = await askChromium(deep.map((html) => ({ html, ask })));
  const said = deep.map((html) => {
    const depths: number[] = [];
    return parsePage(html)
      .elements.map((e) => {
        depths[e.index] = e.parent?.type === 'element' ? depths[e.parent.index]! + 1 : 1;
        return `${e.tag}${depths[e.index]!}`;
      })
      .join(' ');
  });
  expect(said).toEqual(answers);
});

test('places: elements, attributes, comments', () => {
  const text = '<!DOCTYPE html>\r\n<p id=a style="color:red">x<br>y</p><!-- c --><div>';
  const page = parsePage(text);
  const at = (tag: string) => page.elements.find((e) => e.tag === tag)!;
  expect(text.slice(at('p').start, at('p').end)).toBe('<p id=a style="color:red">x<br>y</p>');
  expect(text.slice(at('p').startTagEnd, at('p').endTagStart)).toBe('x<br>y');
  const { startOffset, endOffset } = at('p').attributeSpans!['style']!;
  expect(text.slice(startOffset, endOffset)).toBe('style="color:red"');
  expect(page.comments.map((c) => text.slice(c.start, c.end))).toEqual(['<!-- c -->']);
  expect([at('body').start, at('html').start]).toEqual([-1, -1]);
  expect([elementPath(at('br')), elementName(at('p')), textContent(at('p'))]).toEqual([
    'html>body:nth-child(2)>p:nth-child(1)>br:nth-child(1)',
    'p#a',
    'xy',
  ]);
});

describe('links and blocks in tree order', () => {
  const words = (html: string, path = 'a/b.html'): readonly string[] =>
    styleSources(parsePage(html), path).sheets.map(
      (s) =>
        `${s.kind}${s.kind === 'linked' ? ` ${s.target.kind === 'site' ? s.target.path : s.target.kind}` : ''}${s.idle ? ` (${s.idle})` : ''}`,
    );
  test.each([
    ['both', '<link rel=stylesheet href=x.css><style></style>', ['linked a/x.css', 'embedded']],
    [
      'rel is a list of tokens in any case',
      '<link rel="foo STYLESHEET" href=/x.css><link rel=icon href=y>',
      ['linked x.css'],
    ],
    [
      'no reference',
      '<link rel=stylesheet><link rel=stylesheet href="">',
      ['linked empty (no-reference)', 'linked empty (no-reference)'],
    ],
    [
      'types',
      '<style type="TEXT/css"></style><style type=text/less></style><link rel=stylesheet type="text/css; charset=x" href=x.css>',
      ['embedded', 'embedded (type)', 'linked a/x.css'],
    ],
    ['disabled', '<link rel=stylesheet disabled href=x.css>', ['linked a/x.css (disabled)']],
    [
      'an alternate without a title',
      '<link rel="alternate stylesheet" href=x.css>',
      ['linked a/x.css (untitled-alternate)'],
    ],
    ['a base', '<base href="/c/"><link rel=stylesheet href=x.css>', ['linked c/x.css']],
    ['an absolute base', '<base href="http://h/"><link rel=stylesheet href=x.css>', ['linked remote']],
    [
      'the first base with an address counts',
      '<base target=x><base href=/c/><base href=/d/><link rel=stylesheet href=x.css>',
      ['linked c/x.css'],
    ],
    [
      'not in comments, templates, noscript',
      '<!-- <link rel=stylesheet href=x.css> --><template><style></style></template><noscript><style></style></noscript>',
      [],
    ],
    ['in SVG', '<body><svg><style></style></svg>', ['embedded']],
    ['in the body', '<body><p><style></style>', ['embedded']],
  ])('%s', (_shows, html, expected) => {
    expect(words(html)).toEqual(expected);
  });
  test('the first title is the preferred set; a meta may name another', () => {
    const titles = (html: string) => styleSources(parsePage(html), 'a.html').preferredTitle;
    expect(titles('<link rel="alternate stylesheet" title=B href=b><style title=A></style>')).toBe('A');
    expect(titles('<meta http-equiv=default-style content=B><style title=A></style>')).toBe('B');
    expect(titles('<style></style>')).toBeUndefined();
  });
});

test('places are those the parser itself gives', () => {
  interface Place {
    readonly tag: string;
    readonly spans: readonly (number | undefined)[];
  }
  const texts = [
    ...Object.values(hostileSite(3)).map((file) => (typeof file === 'string' ? file : Buffer.from(file).toString('latin1'))),
    '<table><tr><td>a<p>b</td></tr>x<b>y</table><i><p>z</i></p>',
    '<body>a<div></body></html><p>late',
    '<template><p>t</p></template><svg><style>a{}</style></svg><select><option>1<option>2</select>',
  ]; // oxfmt-ignore
  for (const text of texts) {
    const theirs: Place[] = [];
    const walk = (node: DefaultTreeAdapterTypes.Node): void => {
      if ('tagName' in node) {
        const at = node.sourceCodeLocation;
        theirs.push({
          tag: node.tagName,
          spans: [at?.startOffset, at?.startTag?.endOffset, at?.endTag?.startOffset, at?.endOffset],
        });
      }
      if ('childNodes' in node) node.childNodes.forEach(walk);
    };
    walk(parse(text, { sourceCodeLocationInfo: true }));
    const known = (offset: number): number | undefined => (offset < 0 ? undefined : offset);
    const ours = parsePage(text).elements.map(({ tag, start, startTagEnd, endTagStart, end }) => ({
      tag,
      spans: [start, startTagEnd, endTagStart, end].map(known),
    }));
    expect(ours).toEqual(theirs);
  }
});

test('a path leads back to its element, whatever the element is called', () => {
  const tree = parsePage(
    '<!DOCTYPE html><title>t</title><o:p>a</o:p><div><svg><g/></svg><p>b<p>c</div><template><p>d</p></template>',
  );
  for (const element of tree.elements) expect(elementAt(tree, elementPath(element))).toBe(element);
  for (const path of ['', 'body', 'html>body', 'html>body:nth-child(9)', 'html>p:nth-child(2)', 'html:nth-child(1)'])
    expect(elementAt(tree, path)).toBeUndefined();
});
