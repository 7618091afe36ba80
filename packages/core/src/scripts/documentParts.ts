import { nameOfMember, type Any, type Constants } from './scriptTree.ts';

/** A part of the document that holds links and blocks, or leads to what does. */
export type DocumentPart = 'document' | 'root' | 'head' | 'inHead' | 'body';

/** The part an expression stands for, as far as it says so; undefined for anything else. */
export function partOf(node: Any, constants: Constants, depth = 0): DocumentPart | undefined {
  if (depth > 8) return undefined;
  const partInside = (inner: Any): DocumentPart | undefined => partOf(inner, constants, depth + 1);
  if (node.type === 'Identifier') {
    const known = constants.onlyValue(node.name!);
    if (known) return partInside(known);
    // "const { head } = document"
    if (node.name === 'head') return constants.isDeclared('head') ? 'head' : undefined;
    return node.name === 'document' && !constants.isDeclared('document') ? 'document' : undefined;
  }
  if (node.type === 'ChainExpression') return partInside((node as { expression?: Any }).expression!);
  if (node.type === 'CallExpression') return found(node, constants);
  if (node.type !== 'MemberExpression') return undefined;
  const name = nameOfMember(node, constants);
  const list = node.object!;
  switch (name) {
    case 'documentElement':
    case 'scrollingElement':
      return 'root';
    case 'head':
    case 'body':
      return name;
    case 'document':
    case 'ownerDocument':
    case 'contentDocument':
      return 'document';
    case 'parentNode':
    case 'parentElement': {
      const inner = partInside(list);
      return inner === 'root' ? 'document' : inner === 'inHead' ? 'head' : inner && 'root';
    }
    case 'previousSibling':
    case 'previousElementSibling':
      return partInside(list) === 'body' ? 'head' : undefined;
    case 'firstChild':
    case 'firstElementChild': {
      const inner = partInside(list);
      return inner === 'root' ? 'head' : inner === 'document' ? 'root' : undefined;
    }
    default:
      // `getElementsByTagName("head")[0]`
      return list.type === 'CallExpression' ? found(list, constants) : undefined;
  }
}

/** `querySelector("head")`, `getElementsByTagName("head")`, `item(0)` of these. */
function found(call: Any, constants: Constants, depth = 0): DocumentPart | undefined {
  const callee = call.callee!;
  const name = callee.type === 'MemberExpression' ? nameOfMember(callee, constants) : undefined;
  if (name === 'item' && depth === 0 && callee.object!.type === 'CallExpression')
    return found(callee.object!, constants, 1);
  if (name === 'getRootNode') return 'document';
  if (name === undefined || !/^(querySelector(All)?|getElementsByTagName|closest)$/.test(name)) return undefined;
  const text = call.arguments?.[0] && constants.textOf(call.arguments[0])?.trim().toLowerCase();
  if (text !== undefined && /^(title|meta|base|script|head\b.+)$/.test(text)) return 'inHead';
  return text === 'head' || text === 'body' ? text : text === 'html' || text === ':root' ? 'root' : undefined;
}

/** Members that hold or replace all that is in an element, or copy it. */
export const wholeContents =
  /^(innerHTML|outerHTML|textContent|innerText|outerText|replaceChildren|replaceWith|getHTML|setHTML|setHTMLUnsafe|cloneNode|isEqualNode|remove)$/;

/** Whether a step by place from a part leads to links and blocks of the head. */
export const leadsToHead = (part: DocumentPart | undefined, step: string): boolean =>
  part === 'body' ? /^previous/.test(step) : part === 'inHead' ? /Sibling$/.test(step) : part !== undefined;

/** Functions of browsers that go through all that is in what they are given. */
export const walkers =
  /^(createTreeWalker|createNodeIterator|selectNode|selectNodeContents|selectAllChildren|set(Start|End)(Before|After)?|setBaseAndExtent|serializeToString|importNode|adoptNode)$/;

/** A chain of steps up and then to siblings or children, which may come to the head: `x.parentNode.previousSibling`. */
export function climbsToHead(step: string, object: Any, constants: Constants): boolean {
  let up = 0;
  for (let at: Any | undefined = object; at?.type === 'MemberExpression'; at = at.object) {
    if (!/^(parentNode|parentElement|offsetParent)$/.test(nameOfMember(at, constants) ?? '')) break;
    up++;
  }
  return /^previous/.test(step) ? up > 0 : up > 1;
}
