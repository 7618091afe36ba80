import { expect, test } from '@jest/globals';
import { parsePage } from '../page/parsePage.ts';
import { presentationalParts } from '../page/presentational.ts';
import { askChromium } from '../testing/chromium.ts';
import { hintsOf, hintText } from './hints.ts';

// HTML Standard, "Rendering", and "Rules for parsing a legacy color value", "… dimension values", "… a legacy font size"
const values: Readonly<Record<string, readonly string[]>> = {
  align: ['left', 'CENTER', 'right', 'justify', 'top', 'middle', 'bottom', 'absmiddle', 'texttop', 'baseline', 'bogus'],
  valign: ['top', 'MIDDLE', 'bottom', 'baseline', 'bogus'],
  bgcolor: ['red', '#F00', '#ff0000', 'chucknorris', '', ' #abc ', 'rgb(1,2,3)', 'transparent', '#12', 'aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa'],
  background: ['a.png', ''],
  color: ['red', '#0a0', 'bogus'],
  text: ['green'],
  bordercolor: ['blue'],
  face: ['Arial, serif'],
  size: ['1', '5', '9', '+1', '-2', 'x', ' 3'],
  noshade: [''],
  width: ['50', '50%', '0', '12.5', '10px', '-3', 'x', '+7'],
  height: ['50', '20%', '0'],
  hspace: ['5', 'x'],
  vspace: ['5'],
  border: ['3', '0', '', 'x'],
  cellpadding: ['4', '0'],
  cellspacing: ['4', 'x'],
  rules: ['all', 'groups', 'rows', 'cols', 'none', 'x'],
  frame: ['box', 'void', 'above', 'hsides', 'lhs', 'border', 'x'],
  nowrap: [''],
  clear: ['left', 'all', 'none'],
  type: ['1', 'a', 'A', 'i', 'I', 'disc', 'CIRCLE', 'square', 'x'],
  marginwidth: ['5'],
  topmargin: ['6'],
  frameborder: ['0', '1'],
  wrap: ['off', 'hard'],
  hidden: ['', 'until-found'],
}; // oxfmt-ignore
const tags =
  'p div h1 hr br font pre ul ol li table caption colgroup thead tbody tr td th img iframe textarea blockquote legend center span'.split(
    ' ',
  );

/** A place in which the element can stand: cells and rows inside a whole table. */
function markup(tag: string, attribute: string, value: string): string {
  const own = ` class=it ${attribute}="${value}"`;
  const at = (name: string): string => (name === tag ? own : '');
  if (/^(table|caption|colgroup|thead|tbody|tr|td|th)$/.test(tag))
    return `<table${at('table')}><caption${at('caption')}>c</caption><colgroup${at('colgroup')}><col></colgroup><thead${at('thead')}><tr><th${at('th')}>h</th></tr></thead><tbody${at('tbody')}><tr${at('tr')}><td${at('td')}>d</td></tr></tbody></table>`;
  if (tag === 'li') return `<ul><li${own}>l</li></ul>`;
  return /^(hr|br|img)$/.test(tag) ? `<${tag}${own}>` : `<${tag}${own}>x</${tag}>`;
}

test('what core says of each presentational attribute does what the attribute does, in Chromium', async () => {
  const rows = tags.flatMap((tag) =>
    Object.entries(values).flatMap(([name, list]) => list.map((value) => ({ tag, name, value, html: markup(tag, name, value) }))),
  ); // oxfmt-ignore
  // for each element of a row the declarations to lay over it once its attribute, or its table's, is gone
  const plans = rows.map(({ html }) => {
    const elements = parsePage(`<!DOCTYPE html><body>${html}`).elements.filter(
      (e) => !/^(html|head|body)$/.test(e.tag),
    );
    return elements.map((element) => hintText(hintsOf(element)));
  });
  const ask = `(() => {
    const rows = ${JSON.stringify(rows.map((row, i) => ({ html: row.html, name: row.name, plan: plans[i]! })))};
    const holder = document.getElementById('holder');
    const names = [...getComputedStyle(holder)];
    const keep = new Set(['img align']);
    return rows.map(({ html, name, plan }) => {
      holder.innerHTML = html;
      const all = [...holder.querySelectorAll('*')];
      const read = () => all.map((e) => { const s = getComputedStyle(e); return names.map((n) => s.getPropertyValue(n)); });
      const before = read();
      const it = holder.querySelector('.it');
      // the browser's own sheet asks for these as well
      if (!(it.localName === 'img' && name === 'align') && !(it.localName === 'legend' && name === 'align')) it.removeAttribute(name);
      all.forEach((e, i) => { e.style.cssText = plan[i]; });
      const after = read();
      return before.flatMap((row, i) => row.flatMap((v, k) => (v === after[i][k] ? [] : [all[i].localName + ' ' + names[k] + ': ' + v + ' → ' + after[i][k]]))).slice(0, 2).join('; ');
    });
  })()`;
  const html = '<!DOCTYPE html><body><div id=holder style="width: 400px"></div>';
  const [answers] = (await askChromium([{ html, ask }])) as [readonly string[]];
  const parted = rows.flatMap(({ tag, name, value }, i) =>
    answers[i] === '' ? [] : [`${tag} ${name}="${value}": ${answers[i]}`],
  );
  expect(parted).toEqual([]);
  expect(rows.length).toBeGreaterThan(2000);
  expect(plans.flat().filter((text) => text !== '').length).toBeGreaterThan(400);
});

test.each([
  ['<p class=x style="color:red" title=t>', []],
  ['<font size=2>', ['<font>', 'size']],
  ['<center>', ['<center>']],
  ['<img width=3 height=4 hspace=2>', ['hspace']],
  ['<table border=0 cellpadding=2>', ['border', 'cellpadding']],
  ['<svg width=3 color=red>', []],
])('%s has %j', (markup, parts) => {
  const element = parsePage(`<!DOCTYPE html>${markup}`).elements.find((e) => !/^(html|head|body)$/.test(e.tag))!;
  expect(presentationalParts(element)).toEqual(parts);
});

// the browser answers: an attribute that declares changes a computed value
test('attributes of SVG elements declare what they do in Chromium', async () => {
  const tags =
    'svg circle ellipse rect image foreignObject use path line text tspan mask pattern filter marker linearGradient radialGradient g a symbol polygon'.split(
      ' ',
    );
  const values: Readonly<Record<string, string>> = {
    d: 'M0 0L1 1',
    transform: 'rotate(3 4,5) scale(2)',
    gradientTransform: 'skewX(3)',
    patternTransform: 'translate(1)',
    points: '0 0',
    fill: 'red',
    'stroke-width': '7',
    'font-size': '7',
    opacity: '.5',
  };
  const names =
    'x y width height cx cy r rx ry d transform gradientTransform patternTransform points x1 fill stroke-width font-size opacity'.split(
      ' ',
    );
  const pairs = tags.flatMap((tag) => names.map((name) => [tag, name] as const));
  const elements = pairs.map(
    ([tag, name]) => `<${tag} class=it ${name}="${values[name] ?? '7'}"></${tag}><${tag} class=it></${tag}>`,
  );
  const html = `<!DOCTYPE html><svg>${elements.join('')}</svg><svg class=outer width=7 height=8 x=9 y=3></svg>`;
  const properties = [...names, 'transform'].filter((n) => !/^(points|x1|gradientTransform|patternTransform)$/.test(n));
  const ask = `(() => {
    const all = [...document.querySelectorAll('.it')];
    const outer = getComputedStyle(document.querySelector('.outer'));
    const read = (element) => ${JSON.stringify(properties)}.map((p) => getComputedStyle(element).getPropertyValue(p));
    const out = [];
    for (let i = 0; i < all.length; i += 2) {
      const [a, b] = [read(all[i]), read(all[i + 1])];
      out.push(${JSON.stringify(properties)}.filter((_, k) => a[k] !== b[k])[0] ?? '');
    }
    return [...out, outer.width, outer.height, outer.x, outer.y];
  })()`;
  const [answers] = (await askChromium([{ html, ask }])) as [readonly string[]];
  const marked = parsePage(html).elements.filter((e) => e.classes.includes('it') && e.attributes.length > 1);
  const said = marked.map((element) => hintsOf(element)[0]?.property ?? '');
  expect(
    pairs.flatMap(([tag, name], i) =>
      said[i] === answers[i] ? [] : [`${tag} ${name}: core ${said[i]}, Chromium ${answers[i]}`],
    ),
  ).toEqual([]);
  const outer = parsePage(html).elements.find((e) => e.classes.includes('outer'))!;
  expect(hintsOf(outer).map((h) => h.value)).toEqual(answers.slice(-4));
  expect(said.filter((property) => property !== '').length).toBeGreaterThan(100);
});
