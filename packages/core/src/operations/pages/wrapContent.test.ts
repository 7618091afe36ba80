import { expect, test } from '@jest/globals';
import { applyOperations, describeOperationProblem } from '../operation.ts';
import { siteOf, textIn } from '../../testing/siteOf.ts';

const wrap = (text: string, name: string) =>
  applyOperations(siteOf({ 'a.html': text }), [{ kind: 'wrap-content', pages: ['a.html'], name }]);

test.each([
  ['an ID', '<body>\n<p>a</p>\n</body>\n', '#wrap', '<body>\n<div id="wrap">\n<p>a</p>\n</div>\n</body>\n'],
  ['a class, CRLF', '<body>\r\n<p>a\r\n</body>', '.main', '<body>\r\n<div class="main">\r\n<p>a\r\n</div>\r\n</body>'],
  ['capitals, indented', '<HTML>\n  <BODY>\n  <P>a\n  </BODY>\n</HTML>', '.main', '<HTML>\n  <BODY>\n  <DIV CLASS="main">\n  <P>a\n  </DIV>\n  </BODY>\n</HTML>'],
])('%s goes round the content', (_shows, before, name, after) => {
  const done = wrap(before, name);
  expect(done.ok && textIn(done.value.site, 'a.html')).toBe(after);
}); // oxfmt-ignore

test.each([
  ['a name that is none', '<body></body>', 'wrap', 'wrap-name'],
  ['a name with a space', '<body></body>', '.a b', 'wrap-name'],
  ['an ID that is there', '<body><p id=wrap></body>', '#wrap', 'wrapped-already'],
  ['a page without its tags', '<p>a', '#wrap', 'no-body-tags'],
])('%s is refused', (_shows, text, name, kind) => {
  const done = wrap(text, name);
  if (done.ok) throw new Error('not refused');
  expect(done.problem.problem.kind).toBe(kind);
  expect(describeOperationProblem(done.problem.problem)).toMatch(/^\S.*\.$/);
});
