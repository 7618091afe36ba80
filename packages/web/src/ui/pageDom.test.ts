import { expect, test } from '@jest/globals';
import { elementAtPath, pathOfElement } from './elementPath.ts';
import { queryAll, rootOf } from './pageDom.ts';

const page = `<!DOCTYPE html><html><body>
<img name=querySelector><img name=querySelectorAll><img name=documentElement><img name=body><img name=defaultView>
<form id=f><input name=parentElement><input name=children><input name=localName><p>x</p></form></body></html>`;

test('names that hide what documents and forms have hide nothing here', () => {
  const shown = new DOMParser().parseFromString(page, 'text/html');
  // parsed documents hide what is theirs only in browsers; here it is put over them by hand
  for (const name of ['querySelector', 'querySelectorAll', 'documentElement', 'body', 'defaultView'])
    Object.defineProperty(shown, name, { value: 'hidden' });
  const [paragraph] = queryAll(shown, 'p');
  const path = 'html>body:nth-child(2)>form:nth-child(6)>p:nth-child(4)';
  expect(elementAtPath(shown, path)).toBe(paragraph);
  const form = queryAll(shown, 'form')[0]!;
  for (const name of ['parentElement', 'children', 'localName']) Object.defineProperty(form, name, { value: 'hidden' });
  expect(pathOfElement(paragraph!)).toBe(path);
  expect(rootOf(shown)!.outerHTML).toContain('<form');
});
