import { trimmed } from '../source/space.ts';
// What Chromium takes, found by CSS.supports('selector(…)'): scripts/makeSelectorTable.mjs. pseudoTable.test.ts asks it again.
const words = (text: string): ReadonlySet<string> => new Set(trimmed(text).split(/[\t\n\f\r ]+/));

/** Pseudo-classes that depend on what people, scripts or the browser do with the page: they hold in some state, or not. */
export const stateClasses = words(`
  active autofill checked current default disabled enabled focus focus-visible focus-within fullscreen future hover in-range
  indeterminate interest-source interest-target invalid link modal navigation-source open optional out-of-range past
  picture-in-picture placeholder-shown popover-open read-only read-write required target target-after target-before
  target-current user-invalid user-valid valid visited active-view-transition xr-overlay -webkit-autofill -webkit-drag
  -webkit-full-screen window-inactive corner-present horizontal vertical decrement increment start end double-button
  single-button no-button`);

/** Pseudo-classes that the markup alone decides. */
export const treeClasses =
  words(`any-link -webkit-any-link defined empty first-child first-of-type last-child last-of-type
  only-child only-of-type root scope host`);

/** Functional pseudo-classes whose argument is kept as text. */
export const textArgumentClasses = words('lang dir host host-context state active-view-transition-type');

export const pseudoElements = words(`after backdrop before checkmark column cue details-content file-selector-button
  first-letter first-line grammar-error marker picker-icon placeholder scroll-marker scroll-marker-group search-text selection
  spelling-error target-text view-transition`);

export const functionalPseudoElements = words(`cue highlight part picker scroll-button slotted view-transition-group
  view-transition-group-children view-transition-image-pair view-transition-new view-transition-old`);

/** The four that may be written with one colon. Selectors 4, "Pseudo-Elements". */
export const oneColonElements = words('before after first-line first-letter');

/** Names with a vendor's prefix that are pseudo-classes stand for no pseudo-element. */
export const isPlainElement = (name: string): boolean =>
  pseudoElements.has(name) ||
  (name.startsWith('-webkit-') &&
    !stateClasses.has(name) &&
    !treeClasses.has(name) &&
    name !== '-webkit-full-page-media');

/** Of these, the ones not all browsers take: a list with one of them they drop as a whole. Asked of Gecko and WebKit: oracle/engines.ts. */
const young = new RegExp(
  [
    String.raw`::(checkmark|column|(grammar|spelling)-error|picker(-icon)?|scroll-(button|marker(-group)?)|search-text|view-transition-group-children)(?![-\w])`,
    String.raw`::(cue[(:]|details-content:|slotted\([^()]*\)::|view-transition-group\([^()]*\s)`,
    String.raw`::?(before|after)::marker`,
    String.raw`::-webkit-(scrollbar|resizer)[-\w]*:`,
    String.raw`::[-\w]+(\([^()]*\))?:(focus-(visible|within)|not\()`,
    String.raw`:(current|future|past|interest-(source|target)|navigation-source|open|target-(after|before|current)|xr-overlay|picture-in-picture|host-context|window-inactive|-webkit-(any|any-link|drag|full-screen))(?![-\w])`,
    String.raw`:(corner-present|horizontal|vertical|decrement|increment|start|end|(double|single|no)-button)(?![-\w])`,
    String.raw`:nth-(last-)?child\([^()]*::`,
  ]
    .map((one) => String.raw`(?<!\\)${one}`)
    .join('|'),
  'i',
);

export const isYoung = (selector: string): boolean => young.test(selector);
