import type { Meant } from './scriptFacts.ts';
import type { Any } from './scriptTree.ts';

/** A presentational attribute that a script gets at as a member, and of which element where the member says so. */
export interface Reflected {
  readonly attribute: string;
  readonly meant?: Meant;
}

/** HTML Standard, "Non-conforming features": what each interface reflects (`vAlign` reflects `valign`). */
const ofElements =
  /^(aLink|align|background|bgColor|border|borderColor|bottomMargin|cellPadding|cellSpacing|clear|color|face|frame|height|hspace|leftMargin|link|marginHeight|marginWidth|noShade|noWrap|rightMargin|rules|size|text|topMargin|vAlign|vLink|vspace|width)$/;

/** The same section, "partial interface Document". */
const ofDocument: ReadonlyMap<string, string> = new Map([
  ['alinkColor', 'alink'],
  ['bgColor', 'bgcolor'],
  ['fgColor', 'text'],
  ['linkColor', 'link'],
  ['vlinkColor', 'vlink'],
]);

/** Objects of a browser that have such members and are no elements: CSSOM; HTML Standard, "The Window object"; UI Events. */
const noElement =
  /^(style|currentStyle|runtimeStyle|screen|window|visualViewport|event|location|history|navigator|Math)$/;

/** The attribute a member stands for: of what `object` is taken from, and not called (`jQuery(x).width()`). */
export function reflectedBy(name: string, object: Any, parent: Any | undefined, node: Any): Reflected | undefined {
  const attribute = isNamed(object, 'document') ? ofDocument.get(name) : undefined;
  if (attribute !== undefined) return { attribute, meant: { kind: 'tag', tag: 'body' } };
  if (!ofElements.test(name) || isNoElement(object)) return undefined;
  if (parent?.type === 'CallExpression' && parent.callee === node) return undefined;
  return { attribute: name.toLowerCase() };
}

const isNamed = ({ type, name }: Any, wanted: string): boolean => type === 'Identifier' && name === wanted;

/** An object a browser names, or one a script just made: `{…}`, `[…]`, `new Image()`. */
function isNoElement(object: Any): boolean {
  if (/^(ObjectExpression|ArrayExpression|Literal|TemplateLiteral|NewExpression)$/.test(object.type)) return true;
  const name = object.type === 'Identifier' ? object.name : object.property?.name;
  return object.computed !== true && name !== undefined && noElement.test(name);
}
