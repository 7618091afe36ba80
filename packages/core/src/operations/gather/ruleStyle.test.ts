import { expect, test } from '@jest/globals';
import { pageOf, siteOf } from '../../testing/siteOf.ts';
import { ruleStyleOf } from './ruleStyle.ts';

test.each([
  ['no rule at all', {}, { oneLine: false, indent: '  ' }],
  ['rules on one line', { 's.css': 'p { top: 0 }\nh1 { top: 0; left: 0 }' }, { oneLine: true, indent: '  ' }],
  ['four spaces', { 's.css': 'p {\n    top: 0;\n}\n' }, { oneLine: false, indent: '    ' }],
  ['tabs, in blocks of pages', { 'a.html': pageOf('<style>\np {\n\ttop: 0;\n}\n</style>', '') }, { oneLine: false, indent: '\t' }],
  ['more of one than of the other', { 's.css': 'p { top: 0 }\nh1 {\n  top: 0;\n}\nh2 {\n  top: 0;\n}' }, { oneLine: false, indent: '  ' }],
])('%s', (_shows, files, style) => {
  expect(ruleStyleOf(siteOf(files))).toEqual(style);
}); // oxfmt-ignore
