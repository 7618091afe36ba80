import { propertyKind } from '../values/longhands.ts';
import { fieldsOf, type Any } from './scriptTree.ts';
import { sameWords } from './valueFlow.ts';

/** `document.all`. */
export const isDocumentAll = ({ object, property, computed }: Any): boolean =>
  object?.name === 'document' && property?.name === 'all' && computed !== true;

/** Written as a text, or put together of some. */
export const isText = (node: Any): boolean => /^(Literal|TemplateLiteral|BinaryExpression)$/.test(node.type);

/** `backgroundColor` → `background-color`, `cssFloat` → `float`. */
export const cssName = (name: string): string =>
  /^(css|style)Float$/.test(name)
    ? 'float'
    : name.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`).replace(/^webkit-/, '-webkit-');

/** `while (x.parentNode) x = x.parentNode`: up to the document. */
export const isClimb = (loop: Any): boolean => {
  const { test } = loop as { test?: Any | null };
  return test?.type === 'MemberExpression' && /^parent(Node|Element)$/.test(test.property?.name ?? '');
};

/** The address of the page itself: a script that fetches it reads its markup. */
export function isOwnAddress(node: Any): boolean {
  for (let at: Any | undefined = node; at; at = at.object) {
    if (at.type === 'Identifier') return at.name === 'location';
    if (at.type !== 'MemberExpression') return false;
    if (/^(URL|documentURI|baseURI|location)$/.test(at.property?.name ?? '')) return true;
  }
  return false;
}

/** What a style has beside its properties (`length`, `item`) tells of all of them; names of other vendors do nothing. */
export const isProperty = (name: string): boolean =>
  propertyKind(name) !== 'unknown' || /^-?(moz|ms|o|khtml)-/.test(name);

/** Whether the new value holds the old one of the same element: `x.className + ' on'`, `x.className.replace(…)`. */
export function keepsOld(value: Any, written: Any): boolean {
  const stack = [value];
  for (let at = stack.pop(); at; at = stack.pop()) {
    if (sameWords(at, written)) return true;
    stack.push(...fieldsOf(at));
  }
  return false;
}
