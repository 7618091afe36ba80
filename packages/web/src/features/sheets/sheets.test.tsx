import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { act, render, renderHook, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { EditorState } from '@codemirror/state';
import { EditorView } from '@codemirror/view';
import { contrastRatio, noWords, sheetOutline, type OutlinedRule } from '@syndeton/core';
import type { EffectReply, FileTextReply, RuleScoreReply } from '@syndeton/contract';
import { beaterReason, beaterWords, type Beater } from './beaterWords.ts';
import { toggled } from './ClassForPicked.tsx';
import { changedProperties, firstAnswer } from './editInHand.ts';
import { EffectView } from './EffectView.tsx';
import { editorText, toEditor, toFile } from './editor/lineEnds.ts';
import { movedRule } from './editor/moveRule.ts';
import { ruleMarks, showRules } from './editor/ruleMarks.ts';
import { lengthParts } from './formProperties.ts';
import { RuleForm } from './RuleForm.tsx';
import { ruleRefOf } from './ruleRefOf.ts';
import { keepUnfinished, readUnfinished, unfinishedSheets } from './unfinished.ts';
import { valuesIn } from './usedValues.ts';
import { withEdit } from './useSheetEdit.ts';
import { useTyped } from './useTyped.ts';
import { whyNothing } from './whyNothing.ts';
import { answerTo } from './writing/answers.ts';
import { wrongLines } from './wrongLines.ts';

const fileOf = (text: string, hash = text): FileTextReply => ({ path: 's.css', hash, text, encoding: 'utf-8' });

beforeEach(() => localStorage.clear());

describe('what is typed is never lost', () => {
  const typedOver = (file: FileTextReply) =>
    renderHook(({ now }) => useTyped('site', 's.css', now), { initialProps: { now: file } });

  test('it is there again on coming back, and shown as such', () => {
    const first = typedOver(fileOf('a{}'));
    act(() => first.result.current.type('a{top:0}'));
    first.unmount();
    expect(unfinishedSheets('site')).toEqual(['s.css']);
    expect(unfinishedSheets('other')).toEqual([]);
    const { current } = typedOver(fileOf('a{}')).result;
    expect([current.text, current.changed, current.isBack, current.overtaken]).toEqual(['a{top:0}', true, true, false]);
  });

  test('where the sheet changed meanwhile there is a choice', () => {
    keepUnfinished('site', 's.css', { text: 'a{top:0}', hash: 'a{}' });
    const { result } = typedOver(fileOf('b{}'));
    expect(result.current.overtaken).toBe(true);
    act(() => result.current.keep());
    expect([result.current.overtaken, result.current.text]).toEqual([false, 'a{top:0}']);
    expect(readUnfinished('site', 's.css')).toEqual({ text: 'a{top:0}', hash: 'b{}' });
    act(() => result.current.drop());
    expect([result.current.text, readUnfinished('site', 's.css')]).toEqual(['b{}', undefined]);
  });

  test('put into the draft it is no longer kept; what was typed since stays on top of it', async () => {
    const { result, rerender } = typedOver(fileOf('a{}'));
    act(() => result.current.type('a{top:0}'));
    act(() => result.current.inDraft('a{top:0}'));
    act(() => result.current.type('a{top:0;left:0}'));
    rerender({ now: fileOf('a{top:0}') });
    expect([result.current.overtaken, result.current.changed]).toEqual([false, true]);
    await waitFor(() => expect(readUnfinished('site', 's.css')?.hash).toBe('a{top:0}'));
    act(() => result.current.inDraft('a{top:0;left:0}'));
    rerender({ now: fileOf('a{top:0;left:0}') });
    expect(result.current.changed).toBe(false);
    await waitFor(() => expect(readUnfinished('site', 's.css')).toBeUndefined());
  });

  test('a browser without room says so', () => {
    const full = jest.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new Error('full');
    });
    const { result } = typedOver(fileOf('a{}'));
    act(() => result.current.type('x'));
    expect([result.current.unkept, result.current.text]).toEqual([true, 'x']);
    full.mockRestore();
  });
});

test.each([
  ['LF', 'a\nb', 2, 2],
  ['CRLF', 'a\r\nb\r\nc', 4, 6],
  ['CRLF with a lone LF', 'a\nb\r\nc', 4, 5],
])('offsets of the editor and of the file: %s', (_shows, text, inEditor, inFile) => {
  expect([toFile(text, inEditor), toEditor(text, inFile)]).toEqual([inFile, inEditor]);
  expect(editorText(text)[inEditor]).toBe(text[inFile]);
});

test('lines that do not do what they say are counted once each, notes not at all', () => {
  const text = 'h1 { color:\u00a0red; top:\u00a00 }\nb { colour: red }\n\u00a0p {}\n';
  const found = [11, 20, 27, 42].map((start, i) => ({
    severity: i === 2 ? 'note' : 'wrong',
    span: { start, end: start },
  }));
  expect(wrongLines(text, found as unknown as Parameters<typeof wrongLines>[1])).toBe(2);
  expect(wrongLines(text, [])).toBe(0);
});

const ruleIn = (text: string, nth = 0): OutlinedRule => sheetOutline(text)[nth]!;
const beater = (more: Partial<Beater> = {}): Beater => ({
  kind: 'embedded',
  sheet: null,
  start: null,
  selector: '#wrap h2',
  specificity: '(1,0,1)',
  why: 'specificity',
  properties: ['color'],
  value: 'red',
  elements: 4,
  pages: ['timetable.html'],
  ...more,
});
const scoreOf = (wins: number, loses: number, beaters: Beater[] = []): RuleScoreReply => ({
  specificity: '(0,0,1)',
  declarations: [{ start: 5, property: 'color', value: 'red', wins, loses, pages: [{ path: 'a.html', wins, loses }] }],
  beaters,
});

test.each([
  [beater(), '`#wrap h2` in a block of timetable beats `color`', '(1,0,1)'],
  [beater({ kind: 'linked', sheet: 'css/b.css', why: 'order' }), '`#wrap h2` in css/b.css beats `color`', 'it comes later'],
  [beater({ kind: 'attribute', why: 'attribute' }), '4 style attributes on timetable beat `color`', ''],
  [beater({ kind: 'attribute', elements: 1, why: 'attribute' }), 'A style attribute on timetable beats `color`', ''],
  [beater({ why: 'importance', pages: ['a.html', 'b.html', 'c.html'] }), '`#wrap h2` in a block of a, b and 1 more beats `color`', 'it is important'],
])('who beats it, by name and place', (one, words, reason) => {
  expect([beaterWords(one), beaterReason(one)]).toEqual([words, reason]);
}); // oxfmt-ignore

test.each([
  ['the line is wrong by itself', 'h2 { colr: red }', ['colr'], { elements: 4 }, 'No property has this name, so the line does nothing.'],
  ['no element', 'h2 { color: red }', ['color'], { elements: 0 }, 'No page has an element for `h2`.'],
  ['always beaten', 'h2 { color: red }', ['color'], { elements: 4, score: scoreOf(0, 4, [beater()]) }, '`#wrap h2` in a block of timetable beats `color` wherever it applies.'],
  ['another medium', '@media print { h2 { color: red } }', ['color'], { elements: 4 }, 'It counts under `@media print` only, and there nothing looks different.'],
  ['what it looks like already', 'h2 { color: red }', ['color'], { elements: 4, score: scoreOf(4, 0) }, 'What it says is what these elements look like already.'],
])('an edit without effect says why: %s', (_shows, text, changed, known, sentence) => {
  const { findings } = answerTo({ asks: 'look', text, inQuirks: false });
  expect(whyNothing(ruleIn(text), changed, { score: undefined, findings, ...known })).toBe(sentence);
}); // oxfmt-ignore

test('what an edit changes, and the first answer from what its rule has won so far', () => {
  const before = sheetOutline('h2 { color: red; top: 0 }');
  const here = { rule: ruleIn('h2 { color: blue; left: 0 }'), start: 0, before: 0 };
  const changed = changedProperties(here, before);
  expect(changed).toEqual(['color', 'top', 'left']);
  expect(firstAnswer(scoreOf(214, 17), changed)).toEqual({ properties: changed, elements: 214, pages: 1 });
  expect(firstAnswer(scoreOf(1, 1), ['margin'])).toBeUndefined();
});

test('rules are named by what they say and which of them they are', () => {
  const rules = sheetOutline('p { top: 0 } @media print { p { top: 0 } } p { left: 0 }');
  expect(rules.map((rule) => ruleRefOf(rule, rules))).toEqual([
    { selector: 'p', nth: 1 },
    { selector: 'p', under: ['@media print'], nth: 1 },
    { selector: 'p', nth: 2 },
  ]);
});

test('an edit of the sheet edited last becomes one with it', () => {
  const edit = (path: string, text: string) => ({ kind: 'edit-sheet', path, hash: 'h', text }) as const;
  expect(withEdit([edit('a.css', '1')], { ...edit('a.css', '2'), hash: 'later' })).toEqual([edit('a.css', '2')]);
  expect(withEdit([edit('a.css', '1')], edit('b.css', '2'))).toHaveLength(2);
});

test('what may stand here, with the names of the site', () => {
  const words = { ...noWords, classes: [{ name: 'notice', uses: 7 }], colours: [{ name: '#0b5563', uses: 3 }] };
  const labels = (text: string) =>
    answerTo({ asks: 'complete', text, offset: text.length, words })?.options.map(({ label }) => label) ?? [];
  expect(labels('.no')).toEqual(['.notice']);
  expect(labels('p { displ')).toContain('display');
  expect(labels('p { display: ')).toEqual(expect.arrayContaining(['block', 'grid', 'inherit']));
  expect(labels('p { color: #0')[0]).toBe('#0b5563');
  expect(labels('/* p { ')).toEqual([]);
  expect(labels('@media print { .')).toEqual(['.notice']);
});

test('colours and fonts of a sheet', () => {
  expect(valuesIn('a { color: #FFF; background: teal url(red.png) } b { color: #fff; font-family: Georgia, serif } i { font-family: unset }')).toEqual({
    colours: [{ name: '#fff', uses: 2 }, { name: 'teal', uses: 1 }],
    fonts: [{ name: 'Georgia, serif', uses: 1 }],
  });
}); // oxfmt-ignore

test('lengths by number and unit', () => {
  expect(lengthParts('1.5em')).toEqual({ number: '1.5', unit: 'em' });
  expect([lengthParts('0 auto'), lengthParts('calc(1px)'), lengthParts('12')]).toEqual([undefined, undefined, undefined]);
}); // oxfmt-ignore

test('picked once more an element is no longer chosen', () => {
  const one = { page: 'a.html', element: 'html' };
  expect(toggled([], one)).toEqual([one]);
  expect(toggled([one], { ...one })).toEqual([]);
});

const effectOf = (more: Partial<EffectReply>): EffectReply => ({
  differing: [],
  unsure: [],
  elements: 0,
  changes: [],
  notes: [],
  doubts: [],
  ...more,
});
const change = { pseudoElement: '', property: 'color', before: 'red', after: 'blue', reason: '', elements: 14, pages: [{ path: 'b.html', elements: 4 }, { path: 'a.html', elements: 10 }], sample: { page: 'a.html', element: 'html', name: 'h2' } }; // oxfmt-ignore

describe('what the edit in hand does', () => {
  const show = (more: object) =>
    render(
      <EffectView
        effect={undefined}
        problem={undefined}
        first={undefined}
        nothing="No page has it."
        looks={undefined}
        busy={false}
        onAdd={jest.fn()}
        onPutBack={jest.fn()}
        onPage={jest.fn()}
        {...more}
      />,
    );

  test('elements and pages by what changes, with the pages', async () => {
    const onPage = jest.fn();
    show({ effect: effectOf({ differing: ['a.html', 'b.html'], elements: 14, changes: [change] }), onPage });
    expect(screen.getByRole('heading').textContent).toBe('With this edit, 14 elements on 2 pages change color');
    await userEvent.click(screen.getByRole('button', { name: 'a' }));
    expect(onPage).toHaveBeenCalledWith('a.html');
  });
  test('a first answer before the whole site was asked', () => {
    show({ first: { properties: ['color'], elements: 1, pages: 1 } });
    expect(screen.getByRole('heading').textContent).toBe('With this edit, 1 element on 1 page changes color');
  });
  test('nothing, and why', () => {
    show({ effect: effectOf({}) });
    expect(screen.getByText('No page has it.')).toBeTruthy();
  });
  test('what is refused is said', () => {
    show({ problem: 'There is no sheet.' });
    expect(screen.getByRole('alert').textContent).toBe('There is no sheet.');
  });
  test('samples carry their contrast', () => {
    const look = (color: string) => ({ color, ground: 'rgb(255, 255, 255)', text: 'North loop' });
    show({ effect: effectOf({}), looks: { now: look('rgb(0, 0, 0)'), then: look('rgb(150, 150, 150)') } });
    expect(screen.getByText(/^now/).textContent).toContain('21.0 : 1');
    expect(screen.getByText(/^then/).textContent).toContain(
      `${contrastRatio('rgb(150, 150, 150)', '#fff')!.toFixed(1)} : 1, too little for text`,
    );
  });
});

test('the form says what the rule says, and each change is one of the text', async () => {
  const onSet = jest.fn();
  const onDrop = jest.fn();
  render(
    <RuleForm
      rule={ruleIn('h2 { color: #0b5563; margin-top: 12px; zoom: 1 }')}
      words={noWords as never}
      onSet={onSet}
      onDrop={onDrop}
    />,
  );
  await userEvent.selectOptions(screen.getByLabelText('Unit of margin-top'), 'em');
  expect(onSet).toHaveBeenLastCalledWith({ property: 'margin-top', value: '12em' });
  await userEvent.selectOptions(screen.getByLabelText('Say one more'), 'text-align');
  expect(onSet).toHaveBeenLastCalledWith({ property: 'text-align', value: 'left' });
  await userEvent.click(screen.getByRole('button', { name: 'Take zoom out' }));
  expect(onDrop).toHaveBeenCalledWith('zoom');
});

describe('a rule is moved by key', () => {
  const state = (text: string, head: number) => {
    const editor = new EditorView({ state: EditorState.create({ doc: text, selection: { anchor: head }, extensions: ruleMarks }) });
    showRules(editor, { rules: sheetOutline(text), reachOf: () => undefined, wasOf: () => undefined });
    return editor.state;
  };
  const after = (text: string, head: number, by: -1 | 1): string | undefined => {
    const at = state(text, head);
    const spec = movedRule(at, by);
    return spec && at.update(spec).state.doc.toString();
  };
  test.each([
    ['down', 'a { top: 0 }\n\nb { top: 0 }\n', 1, 1, 'b { top: 0 }\n\na { top: 0 }\n'],
    ['up, with the comment above it', 'a { top: 0 }\n/* bee */\nb {\n  top: 0 }\n', 24, -1, '/* bee */\nb {\n  top: 0 }\na { top: 0 }\n'],
    ['the last goes no further', 'a { top: 0 }\nb { top: 0 }\n', 14, 1, undefined],
    ['not into an at-rule', 'a { top: 0 }\n@media print { b { top: 0 } }\n', 1, 1, undefined],
    ['only from its first line: elsewhere the line moves', 'a {\n  top: 0;\n}\nb { top: 0 }\n', 8, 1, undefined],
  ] as const)('%s', (_shows, text, head, by, wanted) => {
    expect(after(text, head, by)).toBe(wanted);
  });
}); // oxfmt-ignore
