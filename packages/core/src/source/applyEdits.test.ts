import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyEdits } from './applyEdits.ts';

const at = (start: number, end: number, text: string) => ({ span: { start, end }, text });

test.each([
  // what it shows                     source           edits                              output
  ['no edit keeps all', 'a{ b : c }', [], 'a{ b : c }'],
  ['CRLF around an edit stays', 'a{\r\n}\r\n', [at(2, 2, 'x:y')], 'a{x:y\r\n}\r\n'],
  ['inserts in given order', 'ab', [at(1, 1, '1'), at(1, 1, '2')], 'a12b'],
  ['any order of edits', 'abc', [at(2, 3, 'C'), at(0, 1, 'A')], 'AbC'],
  ['an insert at the edge of a replacement', 'abc', [at(1, 2, 'B'), at(1, 1, '>')], 'a>Bc'],
  ['a byte order mark stays', '\uFEFFa', [at(1, 2, 'b')], '\uFEFFb'],
  ['astral characters count two', '\u{1F6A2}x', [at(2, 3, 'y')], '\u{1F6A2}y'],
  ['neighbours may touch', 'abcd', [at(0, 2, ''), at(2, 4, 'x')], 'x'],
])('%s', (_shows, source, edits, output) => {
  expect(applyEdits(source, edits)).toEqual({ ok: true, value: output });
});

test.each([
  ['before the file', 'abc', [at(-1, 0, '')], 'edit-outside-file'],
  ['past the file', 'abc', [at(2, 4, '')], 'edit-outside-file'],
  ['end before start', 'abc', [at(2, 1, '')], 'edit-outside-file'],
  ['overlapping', 'abc', [at(0, 2, ''), at(1, 3, '')], 'edits-overlap'],
  ['the same twice', 'abc', [at(0, 2, 'x'), at(0, 2, 'x')], 'edits-overlap'],
])('refuses %s', (_shows, source, edits, kind) => {
  expect(applyEdits(source, edits)).toMatchObject({ ok: false, problem: { kind } });
});

test('outside its spans every code unit is unchanged', () => {
  fc.assert(
    fc.property(
      fc.string({ unit: 'binary', maxLength: 60 }),
      fc.array(fc.tuple(fc.nat(60), fc.nat(8), fc.string({ maxLength: 5 })), { maxLength: 5 }),
      (source, raw) => {
        let from = 0;
        const edits = raw.flatMap(([gap, length, text]) => {
          const start = Math.min(from + gap, source.length);
          const end = Math.min(start + length, source.length);
          if (start < from) return [];
          from = end + 1;
          return from > source.length + 1 ? [] : [at(start, end, text)];
        });
        const result = applyEdits(source, edits);
        if (!result.ok) throw new Error(result.problem.kind);
        let back = result.value;
        for (const edit of [...edits].reverse().sort((a, b) => b.span.start - a.span.start)) {
          const shift = edits
            .filter((e) => e.span.start < edit.span.start)
            .reduce((sum, e) => sum + e.text.length - (e.span.end - e.span.start), 0);
          const start = edit.span.start + shift;
          back =
            back.slice(0, start) + source.slice(edit.span.start, edit.span.end) + back.slice(start + edit.text.length);
        }
        expect(back).toBe(source);
      },
    ),
    { seed: 4870, numRuns: 300 },
  );
});
