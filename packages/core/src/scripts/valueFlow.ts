import type { Node } from 'acorn';
import { fieldsOf, lookAs, nameOfMember, type Any, type Constants } from './scriptTree.ts';

/** Where a value that a script read comes to. */
export type Sink =
  /** A member of it is asked for; `call`: and called; `isBound`: to tell a loop where to end. */
  | {
      readonly kind: 'member';
      readonly name: string | undefined;
      readonly node: Any;
      readonly call: Any | undefined;
      readonly isBound: boolean;
    }
  /** It is written into a member of something. */
  | { readonly kind: 'set'; readonly name: string | undefined; readonly object: Any }
  /** It is handed to a function. */
  | { readonly kind: 'argument'; readonly call: Any }
  /** It is held against something else. */
  | { readonly kind: 'compared'; readonly with: Any }
  /** It is gone through: every place that says what it is called meanwhile. */
  | { readonly kind: 'looped'; readonly items: readonly Any[] }
  /** It is asked whether it is there, or returned or kept where nobody follows it. */
  | { readonly kind: 'tested' | 'lost' };

/** A value that comes to more places is not followed: a short name of a long script. */
const mostSteps = 500;

/** Follows values through a script: by what stands around them, and through variables by every place that says their name. */
export class ValueFlow {
  private readonly parents = new Map<Any, Any>();
  private readonly named = new Map<string, Any[]>();
  private readonly constants: Constants;

  constructor(tree: Node, constants: Constants) {
    this.constants = constants;
    const stack: Any[] = [lookAs(tree)];
    for (let at = stack.pop(); at; at = stack.pop())
      for (const child of fieldsOf(at)) {
        this.parents.set(child, at);
        if (child.type === 'Identifier') this.note(child, at);
        stack.push(child);
      }
  }

  private note(identifier: Any, parent: Any): void {
    const isName =
      parent.computed !== true &&
      (parent.property === identifier || parent.key === identifier) &&
      parent.value !== (identifier as unknown);
    if (isName) return;
    const known = this.named.get(identifier.name!);
    if (known) known.push(identifier);
    else this.named.set(identifier.name!, [identifier]);
  }

  sinksOf(node: Any): readonly Sink[] {
    const out: Sink[] = [];
    const seen = new Set<Any>([node]);
    const waiting = [node];
    for (let at = waiting.pop(); at; at = waiting.pop()) {
      if (seen.size > mostSteps) return [...out, { kind: 'lost' }];
      for (const next of this.step(at, out))
        if (!seen.has(next)) {
          seen.add(next);
          waiting.push(next);
        }
    }
    return out;
  }

  /** The nodes that have the value next; where it is used, a sink. */
  private step(node: Any, out: Sink[]): readonly Any[] {
    const parent = this.parents.get(node);
    switch (parent?.type) {
      case undefined:
      case 'ExpressionStatement':
        return [];
      case 'VariableDeclarator':
        return parent.init === node && parent.id?.type === 'Identifier' ? this.uses(parent.id) : this.lost(out);
      case 'AssignmentExpression':
        return this.assigned(node, parent, out);
      case 'BinaryExpression':
        if (parent.operator === '+') return [parent];
        out.push({ kind: 'compared', with: parent.left === node ? parent.right! : parent.left! });
        return [];
      case 'TemplateLiteral':
      case 'ChainExpression':
      case 'AwaitExpression':
        return [parent];
      case 'LogicalExpression':
        if (parent.left === node) out.push({ kind: 'tested' });
        return [parent];
      case 'ConditionalExpression':
        if ((parent as { test?: unknown }).test !== node) return [parent];
        out.push({ kind: 'tested' });
        return [];
      case 'SequenceExpression':
        return parent.expressions?.at(-1) === node ? [parent] : [];
      case 'MemberExpression': {
        if (parent.object !== node) return this.lost(out);
        const around = this.parents.get(parent);
        const call = around?.type === 'CallExpression' && around.callee === parent ? around : undefined;
        const isBound =
          around?.type === 'BinaryExpression' &&
          /^[<>]=?$/.test(around.operator!) &&
          /^(For|While)Statement$/.test(this.parents.get(around)?.type ?? '');
        out.push({ kind: 'member', name: nameOfMember(parent, this.constants), node: parent, call, isBound });
        return [];
      }
      case 'CallExpression':
      case 'NewExpression':
        if (parent.callee === node) return this.lost(out);
        out.push({ kind: 'argument', call: parent });
        return [];
      case 'ForOfStatement':
        out.push({ kind: 'looped', items: this.loopItems(parent) });
        return [];
      case 'UnaryExpression':
      case 'IfStatement':
      case 'WhileStatement':
      case 'DoWhileStatement':
        out.push({ kind: 'tested' });
        return [];
      default:
        return this.lost(out);
    }
  }

  private assigned(node: Any, parent: Any, out: Sink[]): readonly Any[] {
    const { left } = parent;
    if (parent.right !== node) return [];
    if (left?.type === 'Identifier') return [parent, ...this.uses(left)];
    if (left?.type !== 'MemberExpression') return this.lost(out);
    out.push({ kind: 'set', name: nameOfMember(left, this.constants), object: left.object! });
    return [parent];
  }

  /** `for (const one of list)`. */
  private loopItems({ left }: Any): readonly Any[] {
    const name =
      left?.type === 'VariableDeclaration' ? (left as { declarations?: readonly Any[] }).declarations?.[0]?.id : left;
    return name?.type === 'Identifier' ? this.uses(name) : [];
  }

  /** The same of a function that is called with each: `list.forEach(one => …)`. */
  itemsOf(callback: Any | undefined): readonly Any[] {
    const [first] = callback?.params ?? [];
    return first?.type === 'Identifier' ? this.uses(first) : [];
  }

  /** Every place that says the name, but those where it is given a value. */
  private uses(identifier: Any): readonly Any[] {
    return (this.named.get(identifier.name!) ?? []).slice(0, mostSteps + 1).filter((one) => {
      const parent = this.parents.get(one)!;
      if (parent.type === 'VariableDeclarator') return parent.id !== one;
      return parent.type !== 'AssignmentExpression' || parent.left !== one;
    });
  }

  private lost(out: Sink[]): readonly Any[] {
    out.push({ kind: 'lost' });
    return [];
  }
}

/** Whether two expressions say the same thing in the same words. */
export function sameWords(one: Any, two: Any, depth = 0): boolean {
  if (one.type !== two.type || depth > 50) return false;
  switch (one.type) {
    case 'ThisExpression':
      return true;
    case 'Identifier':
      return one.name === two.name;
    case 'Literal':
      return one.value === two.value;
    case 'MemberExpression':
      return (
        one.computed === two.computed &&
        sameWords(one.object!, two.object!, depth + 1) &&
        sameWords(one.property!, two.property!, depth + 1)
      );
    case 'CallExpression':
      return (
        sameWords(one.callee!, two.callee!, depth + 1) &&
        one.arguments!.length === two.arguments!.length &&
        one.arguments!.every((each, i) => sameWords(each, two.arguments![i]!, depth + 1))
      );
    default:
      return false;
  }
}
