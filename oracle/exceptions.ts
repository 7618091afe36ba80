import type { Difference } from './checkPage.ts';

/** Where core and the protocol may part though both are right, and why. The oracle prints the ones it met. */
export interface Exception {
  readonly reason: string;
  readonly covers: (difference: Difference) => boolean;
}

/** Declarations of a style attribute whose values quirks mode reads otherwise. Quirks Mode Standard, "CSS". */
const quirky =
  /^attribute (color|background-color|border\S*|margin\S*|padding\S*|(min-|max-)?(width|height)|top|right|bottom|left|clip|font-size|letter-spacing|word-spacing|text-indent|vertical-align|background-position)$/;

export const exceptions: readonly Exception[] = [
  {
    reason:
      "the protocol does not show what a table's border, frame, rules and cellpadding do to its own border style and to its cells, nor what beats it under another name of the side; the flat look compares them",
    covers: ({ element, slot, core, browser }) =>
      core !== 'none' &&
      browser === 'none' &&
      />(table|td|th|thead|tbody|tfoot|colgroup):/.test(element) &&
      /^ (border|padding)-/.test(slot),
  },
  {
    reason:
      "the protocol reads an SVG element's style attribute in standards mode, the browser in quirks mode; the flat look compares it",
    covers: ({ element, core, quirks }) => quirks === false && />svg:/.test(element) && quirky.test(core),
  },
  {
    reason:
      'in quirks mode tables take the color of body, and Chromium may keep the one body had before its sheets came',
    covers: ({ slot, core, quirks }) => quirks === true && slot === 'look' && /color: /.test(core),
  },
  {
    reason: 'insets are used values, and what a closed details holds is laid out only when asked for',
    covers: ({ slot, core }) =>
      slot === 'look' && / (top|right|bottom|left|inset-[a-z-]+): (auto → |.* → auto$)/.test(core),
  },
  {
    reason: 'the protocol lists no rules for ::placeholder',
    covers: ({ slot, core, browser }) => slot.startsWith('::placeholder ') && core !== 'none' && browser === 'none',
  },
  {
    reason: "a marker's size is laid out from its text, and its computed style gives the used size",
    covers: ({ slot, core }) =>
      slot === 'look' &&
      /::marker (width|height|inline-size|block-size|perspective-origin|transform-origin)\b/.test(core),
  },
];
