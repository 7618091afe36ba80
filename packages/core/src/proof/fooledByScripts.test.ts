import { expect, test } from '@jest/globals';
import { askChromium, type Question } from '../testing/chromium.ts';
import { siteOf } from '../testing/siteOf.ts';
import { proveSites } from './proveSites.ts';

const page = (head: string, attribute: string, script: string): string =>
  `<!DOCTYPE html><html><head><meta charset="utf-8"><title>t</title>${head}</head><body><p id=a ${attribute}>x</p><b id=b>b</b><script>${script}</script></body></html>`;

/** A style attribute became a class and its block; each script can tell, and hides, shows or colours something by it. */
const telling = [
  // the class as a text
  'if (a.className.length) a.hidden = true',
  'if (a.className.match(/./)) a.hidden = true',
  'if ((a.className + "") !== "") a.hidden = true',
  'var c = a.className; if (c) a.hidden = true',
  'var c = a.className; b.className = c',
  'var c = a.className.trim(); if (c.length) a.hidden = true',
  'if (a.className.split(" ")[0]) a.hidden = true',
  'for (const c of a.className.split(" ")) if (c) a.hidden = true',
  'a.className.split(" ").forEach((c) => { if (c) a.hidden = true })',
  'if (a.className.indexOf("r") >= 0) a.hidden = true',
  'if (/r/.test(a.className)) a.hidden = true',
  'a.className = a.className.replace("r", "x")',
  'a.className = a.className.replace(/\\S/g, "")',
  'a.className = a.className.toUpperCase()',
  'b.className = a.className',
  'const {classList: l} = a; if (l.length) a.hidden = true',
  // the style attribute
  'if (!a.style.length) a.hidden = true',
  'const d = Object.getOwnPropertyDescriptors(HTMLElement.prototype); d.style.get.call(a).color = ""',
  'if (!a.style[0]) a.hidden = true',
  // markup and other languages
  'if (document.evaluate("//p[@class]", document, null, 9, null).singleNodeValue) a.hidden = true',
  'if (/"r"/.test(a.outerHTML)) a.hidden = true',
  'if (document.querySelector("head > :nth-child(3)")) a.hidden = true',
  'document.querySelectorAll("head :not(title, meta)")[0].remove()',
  'document.querySelectorAll(":not(title, meta, head, body, p, b, script, html)").forEach((e) => e.remove())',
  '["head>:last-child"].map((s) => document.querySelector(s).remove())',
  // ways to the head
  'document.head.innerHTML = ""',
  'const {head} = document; head.innerHTML = ""',
  'if (document.head.textContent.includes("red")) a.hidden = true',
  'document.body.previousElementSibling.lastElementChild.remove()',
  'a.closest("html").firstElementChild.innerHTML = ""',
  'a.parentNode.parentNode.firstChild.remove()',
  'a.parentNode.previousSibling.remove()',
  'document.querySelector("title").nextSibling.remove()',
  'document.querySelector("meta").parentNode.lastChild.remove()',
  'let n = 0, e = document.documentElement; const q = [e]; while ((e = q.pop())) { n++; q.push(...e.children) } if (n > 8) a.hidden = true',
  'let e = a; while (e.parentElement) e = e.parentElement; e.firstChild.remove()',
  'const walk = (n) => [...n.children].reduce((k, c) => k + walk(c), 1); if (walk(document.documentElement) > 8) a.hidden = true',
  'const r = document.createRange(); r.setStart(document, 0); r.setEndBefore(a); r.deleteContents()',
  '(function (w, d) { d.firstElementChild.firstChild.remove() })(window, document)',
  'document.all[4].remove()',
];
/** And these cannot. */
const blind = [
  'if (a.className.indexOf("on") >= 0) a.hidden = true',
  'if ((" " + a.className + " ").indexOf(" on ") >= 0) a.hidden = true',
  'if (/\\bon\\b/.test(a.className)) a.hidden = true',
  'var names = a.className.split(" "); for (var i = 0; i < names.length; i++) if (names[i] == "on") a.hidden = true',
  'var was = b.className; b.className = was + " on"',
  'a.className = a.className.replace(/\\s*\\bon\\b/, "")',
  'if (b.innerHTML == "b") b.innerHTML = "c"',
  'b.innerHTML += "c"',
  'var d = document.documentElement; b.title = d.clientWidth + d.scrollTop',
  'var s = document.getElementsByTagName("script")[0]; s.parentNode.insertBefore(document.createElement("i"), s)',
  'var h = document.getElementsByTagName("head")[0]; h.appendChild(document.createElement("meta"))',
  'b.parentNode.removeChild(b)',
  'document.querySelectorAll("b:first-of-type").forEach((e) => e.remove())',
  'b.style.MozOpacity = "1"; b.style.zIndex = 2',
];

const states = (script: string): readonly string[] => [
  page('', 'style="color:red"', script),
  page('<style>.r{color:red}</style>', 'class=r', script),
];
const all = [...telling, ...blind];
const verdicts = all.map((script) => {
  const [before, after] = states(script).map((text) => siteOf({ 'p.html': text }));
  return [script, proveSites(before!, after!).pages[0]!.verdict];
});

test('a script that can tell is named; one that cannot holds nothing up', () => {
  expect(verdicts).toEqual([
    ...telling.map((script) => [script, 'unsure']),
    ...blind.map((script) => [script, 'same']),
  ]);
});

test('so it is in Chromium', async () => {
  const ask = `document.body ? ['color', 'display'].map((name) => [...document.querySelectorAll('p, b')].map((e) => getComputedStyle(e)[name])).join() : ''`;
  const question = (html: string): Question => ({ html, path: 'p.html', ask });
  const answers = await askChromium(all.flatMap((script) => states(script).map(question)));
  const found = all.map((script, i) => [script, answers[2 * i] === answers[2 * i + 1] ? 'same' : 'other']);
  expect(found).toEqual([...telling.map((script) => [script, 'other']), ...blind.map((script) => [script, 'same'])]);
}, 120_000);
