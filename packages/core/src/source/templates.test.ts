import { expect, test } from '@jest/globals';
import { parsePage } from '../page/parsePage.ts';
import { isTemplated, withoutCode } from './templates.ts';

test.each([
  ['<?php a() > 1 ?><p>', '<?php a()   1 ?><p>'],
  ['<%= x > y %><p>', '<?= x   y %><p>'],
  ['{% if a > b %}x{% endif %}', '<? if a   b %>x<? endif %>'],
  ['<p class="<?= $a->c ?>">', '<p class="<?= $a- c ?>">'],
  ['<?xml version="1.0"?><p>', '<?xml version="1.0"?><p>'],
  ['<p>x</p><?php never > closed', '<p>x</p><?php never   closed'],
  ['a {{ b }} c', 'a {{ b }} c'],
])('code of %j is passed over in its place', (text, sent) => {
  expect(withoutCode(text)).toBe(sent);
  expect(withoutCode(text)).toHaveLength(text.length);
});

test('a page that a server runs keeps its mode and its head', () => {
  const text = '<?php if ($a->b > 1) f(); ?><!DOCTYPE html><head><%= a > b %><style>p{}</style></head><body><p>x';
  const tree = parsePage(text, true, true);
  expect(tree.mode).toBe('no-quirks');
  expect(tree.text).toBe(text);
  const style = tree.elements.find(({ tag }) => tag === 'style')!;
  expect(style.parent).toMatchObject({ tag: 'head' });
  expect(text.slice(style.start, style.startTagEnd)).toBe('<style>');
  expect(parsePage(text).mode).toBe('quirks');
});

test('what is written for a reader is no template', () => {
  expect(['a < b', '<!-- note -->', '{ color: red }'].some(isTemplated)).toBe(false);
});
