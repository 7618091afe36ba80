import { expect, test } from '@jest/globals';
import { askChromium, type Question } from '../testing/chromium.ts';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { proveSites } from './proveSites.ts';

// what scripts take for white space and CSS does not (CSS Syntax 3, "whitespace"): pasted text and joined files are full of it; and what
// they take for a letter of ASCII (Infra, "ASCII case-insensitive")
const noBreak = '\u00a0';
const mark = '\ufeff';

type Files = Readonly<Record<string, string>>;
const body = '<p id=a class=n data-n="3">one <b>two</b></p><p class=m>three</p>';
const css = (text: string, inside = body): Files => ({
  'index.html': pageOf(`<style>${text}</style>`, inside),
  's.css': 'p{color:red}',
});
/** `_` is where the character stands in the first state and nothing does in the second. */
const texts: readonly string[] = [
  '_p{color:red}',
  ' _p{color:red}',
  'p_{color:red}',
  'p _{color:red}',
  'b,_p{color:red}',
  'p{color:_red}',
  'p{color:red_}',
  'p{color:red _}',
  'p{_color:red}',
  'p{color_:red}',
  'p{color:red_!important}',
  'p{top:0;_color:red}',
  '@media _all{p{color:red}}',
  '@media all_{p{color:red}}',
  '@supports _(color:red){p{color:red}}',
  '@import "s.css"_;',
  '@import "s.css" _all;',
  '@import url(_s.css);',
  '@namespace _url(x);p{color:red}',
  'p{--c:_red;color:var(--c)}',
  ':is(_p){color:red}',
  'p:nth-child(_n){color:red}',
  '@keyframes k{_from,to{color:red}} p{animation:k 9s}',
  '@keyframes _k{from,to{color:red}} p{animation:k 9s}',
  'p{font-family:_Arial}',
  'p{background:url(_x.png)}',
  'p{color:rgb(_255,0,0)}',
  'p{opacity:_.5}',
  '@container _(width>0){b{color:red}} body{container-type:inline-size}',
  'b{top:0}_p{color:red}',
  'body{_p{color:red}}',
  '@scope (_p){:scope{color:red}}',
];
const marked = '<p lang=k>x <mark>m</mark></p><a href="#">l</a><input type=checkbox checked><ul><li>l</ul>';
const kelvins: readonly string[] = [
  'p{bac_ground:red}',
  'p{border:thic_ solid}',
  'p{text-decoration:blin_}',
  'a:lin_{color:red}',
  'input:chec_ed{color:red}',
  'mar_{color:red}',
  ':lang(_){color:red}',
  '@_eyframes x{from,to{color:red}} p{animation:x 9s}',
  '@media not (prefers-color-scheme:dar_){p{color:red}}',
];
const both = (write: (character: string) => Files) =>
  [noBreak, mark].map((one) => ({ before: write(one), after: write('') }));
const linked = (attributes: string, sheet = 'p{color:red}'): Files => ({
  'index.html': pageOf(`<link ${attributes} href=s.css>`, body),
  's.css': sheet,
});
const rows: readonly { shows: string; before: Files; after: Files; same?: true }[] = [
  ...texts.flatMap((text) =>
    both((one) => css(text.replaceAll('_', one))).map((states) => ({ shows: text, ...states })),
  ),
  ...[
    (one: string) => ({ 'index.html': pageOf('', `<p style="${one}color:red">x`) }),
    (one: string) => ({ 'index.html': pageOf('', `<p style="color:${one}red">x`) }),
    (one: string) => ({ 'index.html': pageOf(`<style media="${one}all">p{color:red}</style>`, body) }),
    (one: string) => linked(`rel="${one}stylesheet"`),
    (one: string) => linked(`rel=stylesheet type="text/css${one}"`),
    (one: string) => ({ 'index.html': pageOf('<style>.n{color:red}</style>', `<p class="${one}n">x`) }),
  ].flatMap((write) => both(write).map((states) => ({ shows: 'an attribute', ...states }))),
  // the Kelvin sign is no k, though scripts make it one
  ...kelvins.map((text) => ({
    shows: text,
    before: css(text.replaceAll('_', '\u212a'), marked),
    after: css(text.replaceAll('_', 'k'), marked),
  })),
  { shows: 'an element of that name', before: css('', '<mar\u212a>x</mar\u212a>'), after: css('', '<mark>x</mark>') },
  { shows: 'a colour of an attribute', before: css('', '<p>x<table bgcolor=blac\u212a><tr><td><b>x</b></table>'), after: css('', '<p>x<table bgcolor=black><tr><td><b>x</b></table>') }, // oxfmt-ignore
  { shows: 'letters beyond ASCII keep their case', before: css('X-\u00c9{color:red}', '<x-\u00e9><b>x</b></x-\u00e9>'), after: css('x-\u00e9{color:red}', '<x-\u00e9><b>x</b></x-\u00e9>') }, // oxfmt-ignore
  { shows: 'a mark before a file', before: linked('rel=stylesheet', `${mark}p{color:red}`), after: linked('rel=stylesheet'), same: true }, // oxfmt-ignore
  { shows: 'two marks before a file', before: linked('rel=stylesheet', `${mark}${mark}p{color:red}`), after: linked('rel=stylesheet') }, // oxfmt-ignore
  { shows: 'files that were joined', before: linked('rel=stylesheet', `b{top:0}${mark}p{color:red}`), after: linked('rel=stylesheet', 'b{top:0}p{color:red}') }, // oxfmt-ignore
  { shows: 'a block that begins with a mark becomes a file', before: css(`${mark}p{color:red}`), after: linked('rel=stylesheet', `${mark}p{color:red}`) }, // oxfmt-ignore
];
const codes = (text: string): string =>
  text.replace(/[\u00a0\ufeff\u212a]/g, (c) => `U+${c.charCodeAt(0).toString(16)}`);

test.each(rows.map((row) => [codes(`${row.shows}: ${JSON.stringify(row.before)}`), row] as const))(
  '%s',
  (_shows, { before, after, same }) => {
    expect(proveSites(siteOf(before), siteOf(after)).verdict).toBe(same ? 'same' : 'differs');
  },
);

test('Chromium says so too', async () => {
  const ask = `(() => { for (const a of document.getAnimations()) { a.pause(); a.currentTime = 100 } return [...document.querySelectorAll('body *')].map((e) => { const s = getComputedStyle(e); return ['color', 'top', 'opacity', 'fontFamily', 'backgroundImage', 'backgroundColor', 'borderTopWidth', 'textDecorationLine'].map((n) => s[n]).join('|').replaceAll(location.origin, '') }).join() })()`;
  const question = (files: Files): Question => ({ html: files['index.html']!, files, ask });
  const answers = await askChromium(rows.flatMap(({ before, after }) => [question(before), question(after)]));
  const isSame = rows.map((_row, i) => answers[2 * i] === answers[2 * i + 1]);
  expect(rows.flatMap((row, i) => (isSame[i] === (row.same ?? false) ? [] : [codes(JSON.stringify(row))]))).toEqual([]);
});
