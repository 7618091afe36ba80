import type { Meant } from './scriptFacts.ts';
import { nameOfMember, type Any, type Constants } from './scriptTree.ts';

/** Which elements an expression of a script stands for. `isOwn`: `this` is the element whose attribute holds the script. */
export function meantBy(node: Any, constants: Constants, isOwn: boolean, depth = 0): Meant {
  if (node.type === 'ThisExpression' && isOwn) return { kind: 'own' };
  if (node.type === 'CallExpression' && depth < 5) {
    const callee = node.callee!;
    const name = callee.type === 'MemberExpression' ? nameOfMember(callee, constants) : undefined;
    const id = name === 'getElementById' ? constants.textOf(node.arguments![0]!) : undefined;
    return id === undefined ? { kind: 'any' } : { kind: 'id', id };
  }
  if (node.type === 'MemberExpression') {
    const name = nameOfMember(node, constants);
    const isDocument = node.object!.type === 'Identifier' && node.object!.name === 'document';
    if (isDocument && name === 'body') return { kind: 'tag', tag: 'body' };
    if (isDocument && name === 'documentElement') return { kind: 'tag', tag: 'html' };
    return { kind: 'any' };
  }
  if (node.type !== 'Identifier') return { kind: 'any' };
  const value = constants.onlyValue(node.name!);
  if (value) return depth < 5 ? meantBy(value, constants, isOwn, depth + 1) : { kind: 'any' };
  return constants.isDeclared(node.name!) ? { kind: 'any' } : { kind: 'id', id: node.name! };
}
