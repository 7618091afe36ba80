import { expect, test } from '@jest/globals';
import { readScript } from './readScript.ts';
import type { Touch } from './scriptFacts.ts';

const told = ({ meant, what }: Touch): string => {
  const who = meant.kind === 'id' ? `#${meant.id}` : meant.kind === 'tag' ? meant.tag : meant.kind;
  return `${who} ${what.kind}${what.kind === 'style' ? ` ${what.property ?? '*'}` : what.kind === 'attribute' ? ` ${what.name ?? '*'}` : ''}`;
};
const anything = ['any style *', 'any class', 'any attribute *', 'any sheets'];

test.each<readonly [script: string, touches: readonly string[]]>([
  ['document.getElementById("m").className = "on"', ['#m class']],
  ['var m = document.getElementById("m"); m.className = "on"', ['#m class']],
  ['m.className = "on"', ['#m class']],
  ['document.body.className = "js"', ['body class']],
  ['m.className += " on"', []],
  ['m.className = m.className + " on"', []],
  ['m.className = m.className.replace("off", "on")', ['#m class-asked']],
  ['if (m.className == "on") go()', ['#m class']],
  ['if (m.className.indexOf("on") >= 0) go()', ['#m class-asked']],
  ['m.classList.add("on"); m.classList.toggle("x")', []],
  ['if (m.classList.length) go()', ['#m class']],
  ['m.setAttribute("class", "on")', ['#m class', 'any class']],
  ['m.setAttribute("cl" + "ass", "on")', ['#m class', 'any class']],
  ['m.style.display = "none"', ['#m style display']],
  ['m.style.backgroundColor = x', ['#m style background-color']],
  ['m.style.cssFloat = "left"', ['#m style float']],
  ['m.style["dis" + "play"] = ""', ['#m style display']],
  ['m["sty" + "le"].top = 0', ['#m style top']],
  ['m.style.setProperty("top", "0")', ['#m style top']],
  ['m.style.cssText = ""', ['#m style *']],
  ['const { style } = m', ['any style *']],
  ['document.querySelectorAll("p[style]")', ['any style *', 'any attribute style']],
  ['document.querySelectorAll("p:not([class])")', ['any class', 'any attribute class']],
  ['document.querySelectorAll("td[bgcolor]")', ['any attribute bgcolor']],
  ['m.attributes.length', ['#m class', '#m style *', '#m attribute *']],
  ['m.hasAttribute("sty\\x6ce")', ['#m style *', 'any style *', 'any sheets']],
  ['document.styleSheets[0].disabled = true', ['any sheets']],
  ['document.createElement("style")', ['any style *', 'any sheets', 'any sheets']],
  ['document.write("<style>p{}</style>")', ['any sheets']],
  ['document.createElement("p").innerHTML = "<b>x</b>"', []],
  ['for (var i = 0; i < a.length; i++) a[i].src = b[i]', []],
  ['document.images[name].src = x', []],
  ['var list = []; list[name] = 1', []],
  ['thing[name] = 1', anything],
  ['eval(code)', anything],
  ['setTimeout("m.className = \'x\'", 9)', ['#m class']],
  ['setTimeout(go, 9)', []],
  ['jQuery("p").css({ color: "red" })', ['any style color']],
  ['jQuery("p").removeAttr("style")', ['any style *', 'any style *', 'any sheets']],
  ['m.getAttribute("width"); m.bgColor = "red"', ['#m attribute width', '#m attribute bgcolor']],
  ['m.width = 20; m.vAlign = x; m["col" + "or"]', ['#m attribute width', '#m attribute valign', '#m attribute color']],
  ['document.fgColor = "red"; document.bgColor', ['body attribute text', 'body attribute bgcolor']],
  ['document.body.text = "red"', ['body attribute text']],
  ['const { width } = m', ['any attribute width']],
  ['if (screen.width > 800) go(window.event.height, m.style.width)', ['#m style width']],
  ['var i = new Image(); if (i.width) go(); var p = { color: 1 }; p.color = 2; $("p").width()', []],
  ['m.nextSibling.nodeValue', ['any places']],
  ['document.head.children[2].remove()', ['any places', 'any sheets']],
  ['var h = document.getElementsByTagName("head")[0]; h.firstChild.id = "x"', ['any places', 'any sheets']],
  ['var h = document.head; h.insertBefore(s, h.firstChild)', ['any places']],
  ['document.querySelectorAll("*").length', ['any sheets']],
  ['document.all.length', ['any sheets']],
  ['if (document.all) go()', []],
  ['with (m) style.top = 0', [...anything, '#style class'].slice(0, 4)],
])('%s', (script, touches) => {
  const found = readScript(script, 'script').touches.map(told);
  expect([...new Set(found)].sort()).toEqual([...new Set(touches)].sort());
});

test('of an event attribute, what is said of this is said of its own element', () => {
  expect(readScript('this.className = "over"', 'handler').touches.map(told)).toEqual(['own class']);
  expect(readScript('setTimeout(function () { this.className = "over" })', 'handler').touches.map(told)).toEqual([
    'any class',
  ]);
});

test('what is no JavaScript may do anything, and says so', () => {
  expect(readScript('Sub x()\nEnd Sub', 'script').unreadable).toBe(true);
  expect(readScript('a = { b: [ }', 'script').unreadable).toBe(true);
  expect(readScript('', 'script').unreadable).toBe(false);
});

test('words of strings and names, modules, and whether elements are made', () => {
  const facts = readScript('import "./n.js"; document.body.innerHTML = `<p class="note ${x}">`', 'module');
  expect([...facts.words]).toEqual(expect.arrayContaining(['note', 'p', 'x']));
  expect(facts.modules).toEqual(['./n.js']);
  expect(facts.makes).toBe(true);
  expect(readScript('var x = 1 + y', 'script').makes).toBe(false);
});

test.each([
  ['a text that is put in its own place', 'var c = a.className; c = c.trim(); c = c.replace("x", c); a.className = c'],
  ['markup that is', 'var h = a.innerHTML; h = h.replace("x", "y"); h = h.trim(); a.innerHTML = h'],
  ['two texts in a circle', 'var c = a.className, d; for (;;) { d = c.toLowerCase(); c = d.trim() }'],
  ['a chain of calls', `var c = a.className${'.trim()'.repeat(20_000)}`],
  ['a chain of members on both sides', `x${'.a'.repeat(20_000)}.className = x${'.a'.repeat(20_000)}.className + "y"`],
  ['a chain in an address', `fetch(x${'.a'.repeat(20_000)})`],
  ['lists of lists', `x${'.item(0)'.repeat(20_000)}.firstChild`],
])('%s is read to its end', (_shows, script) => {
  expect(readScript(script, 'script').unreadable).toBe(false);
});
