import { HighlightStyle, syntaxHighlighting } from '@codemirror/language';
import type { Extension } from '@codemirror/state';
import { EditorView } from '@codemirror/view';
import { tags } from '@lezer/highlight';

/** Code is told apart by weight first; two hues, for values and strings. */
const code = HighlightStyle.define([
  {
    tag: [tags.tagName, tags.className, tags.labelName, tags.definitionKeyword, tags.modifier],
    color: 'var(--code-name)',
    fontWeight: '660',
  },
  { tag: [tags.propertyName, tags.attributeName], color: 'var(--code-prop)' },
  { tag: [tags.number, tags.unit, tags.atom, tags.keyword, tags.color, tags.variableName], color: 'var(--code-value)' },
  { tag: tags.string, color: 'var(--code-string)' },
  { tag: tags.comment, color: 'var(--code-note)', fontStyle: 'italic' },
  { tag: [tags.punctuation, tags.bracket, tags.separator, tags.operator], color: 'var(--code-note)' },
]);

/** Surfaces from the tokens; the editor's own sheet would come last otherwise. */
const surface = EditorView.theme({
  '&': { height: '100%', backgroundColor: 'var(--panel)', color: 'var(--ink)', fontSize: 'var(--fs-code)' },
  '&.cm-focused': { outline: 'none' },
  '.cm-scroller': { fontFamily: 'var(--font-code)', lineHeight: '19px' },
  '.cm-content': { padding: '4px 0 40px' },
  '.cm-line': { padding: '0 16px 0 2px', position: 'relative' },
  '.cm-gutters': { backgroundColor: 'var(--panel)', color: 'var(--ink-3)', border: '0', fontSize: 'var(--fs-note)' },
  '.cm-lineNumbers .cm-gutterElement': { padding: '0 8px 0 10px', minWidth: '34px' },
  '.cm-gutters-after': { backgroundColor: 'var(--panel)' },
  '.cm-foldGutter .cm-gutterElement': { padding: '0 2px', cursor: 'pointer', color: 'var(--ink-3)' },
  '.cm-activeLine, .cm-activeLineGutter': { backgroundColor: 'transparent', color: 'var(--ink)' },
  '.cm-cursor': { borderLeftColor: 'var(--ink)', borderLeftWidth: '1.6px' },
  '&.cm-focused > .cm-scroller > .cm-selectionLayer .cm-selectionBackground, .cm-selectionBackground': {
    backgroundColor: 'var(--picked)',
  },
  '.cm-matchingBracket, &.cm-focused .cm-matchingBracket': { backgroundColor: 'var(--picked)' },
  // a finding is a line of words; nothing pops up over the text
  '.cm-lintRange': { backgroundImage: 'none', padding: '0' },
  '.cm-lintRange-error, .cm-lintRange-warning': {
    outline: '1.5px dashed var(--error)',
    outlineOffset: '1px',
    borderRadius: '1px',
  },
  '.cm-lintRange-error *, .cm-lintRange-warning *': { color: 'var(--error)' },
  '.cm-lintRange-info': { outline: '1.5px dashed var(--line-2)', outlineOffset: '1px' },
  '.cm-lintRange-active': { backgroundColor: 'transparent' },
  '.cm-lintPoint:after': { display: 'none' },
  '.cm-panels': { backgroundColor: 'var(--ground)', color: 'var(--ink)', fontFamily: 'var(--font-ui)' },
  '.cm-panels-top': { borderBottom: '1px solid var(--line-2)' },
  '.cm-textfield': { backgroundColor: 'var(--panel)', border: '1px solid var(--line-2)', color: 'var(--ink)' },
  '.cm-button': {
    backgroundImage: 'none',
    backgroundColor: 'var(--panel)',
    border: '1px solid var(--line-2)',
    color: 'var(--ink)',
  },
  '.cm-searchMatch': { backgroundColor: 'var(--lit)' },
  '.cm-foldPlaceholder': { backgroundColor: 'var(--picked)', border: '0', color: 'var(--ink-2)', padding: '0 6px' },
  '.cm-tooltip': { backgroundColor: 'var(--raised)', border: '1px solid var(--line-2)', boxShadow: 'var(--float)' },
  '.cm-tooltip.cm-tooltip-autocomplete > ul': { fontFamily: 'var(--font-code)', fontSize: 'var(--fs-code)' },
  '.cm-tooltip.cm-tooltip-autocomplete > ul > li': { padding: '2px 10px', color: 'var(--ink)' },
  '.cm-tooltip-autocomplete ul li[aria-selected]': { backgroundColor: 'var(--picked)', color: 'var(--ink)' },
  '.cm-completionDetail': { fontFamily: 'var(--font-ui)', fontStyle: 'normal', color: 'var(--ink-3)' },
  '.cm-completionMatchedText': { textDecoration: 'none', fontWeight: '680' },
});

export const codeLook: Extension = [surface, syntaxHighlighting(code)];
