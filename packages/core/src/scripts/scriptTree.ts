import type { Node } from 'acorn';

/** A node of a script's tree, with the fields of all kinds that are asked for here. */
export interface Any {
  readonly type: string;
  readonly loc?: { readonly start: { readonly line: number } };
  readonly name?: string;
  readonly value?: string | number | boolean | null;
  readonly operator?: string;
  readonly computed?: boolean;
  readonly shorthand?: boolean;
  readonly object?: Any;
  readonly property?: Any;
  readonly key?: Any;
  readonly callee?: Any;
  readonly arguments?: readonly Any[];
  readonly left?: Any;
  readonly right?: Any;
  readonly argument?: Any;
  readonly id?: Any | null;
  readonly init?: Any | null;
  readonly source?: Any | null;
  readonly params?: readonly Any[];
  readonly properties?: readonly Any[];
  readonly elements?: readonly (Any | null)[];
  readonly quasis?: readonly Any[];
  readonly expressions?: readonly Any[];
}

export const lookAs = (node: Node): Any => node as Any;

/** The nodes straight inside a node. */
export function fieldsOf(node: Any): readonly Any[] {
  const out: Any[] = [];
  for (const value of Object.values(node) as unknown[]) {
    if (Array.isArray(value)) out.push(...value.filter(isNode));
    else if (isNode(value)) out.push(value);
  }
  return out;
}

const isNode = (value: unknown): value is Any =>
  typeof value === 'object' && value !== null && typeof (value as { type?: unknown }).type === 'string';

/** The name a member or a key has: written, or computed of what is known. */
export function nameOfMember(node: Any, constants: Constants): string | undefined {
  const key = node.property ?? node.key;
  if (!key) return undefined;
  if (node.computed !== true) return key.name ?? (key.value === undefined ? undefined : String(key.value));
  return key.type === 'Literal' ? String(key.value) : constants.textOf(key);
}

/** What the variables of a script are known to hold: those that get one value only, wherever it is. */
export class Constants {
  private readonly values = new Map<string, Any | null>();
  private readonly declared = new Set<string>();
  private readonly counted = new Set<string>();
  /** Parameters whose value is known. */
  private readonly handed = new Set<Any>();

  constructor(tree: Node) {
    const stack: Any[] = [lookAs(tree)];
    for (let at = stack.pop(); at; at = stack.pop()) {
      this.note(at);
      stack.push(...fieldsOf(at));
    }
  }

  private note(node: Any): void {
    if (node.type === 'VariableDeclarator' && node.id?.type === 'Identifier') {
      this.declared.add(node.id.name!);
      if (node.init) this.give(node.id.name!, node.init);
    } else if (node.type === 'VariableDeclarator' && node.id) this.unknown(node.id);
    else if (node.type === 'AssignmentExpression' && node.left?.type === 'Identifier')
      this.give(node.left.name!, node.operator === '=' ? node.right! : undefined);
    else if (node.type === 'AssignmentExpression' && node.left?.type !== 'MemberExpression') this.unknown(node.left!);
    else if (node.type === 'UpdateExpression' && node.argument?.type === 'Identifier') {
      this.counted.add(node.argument.name!);
      this.values.set(node.argument.name!, null);
    } else if (/^For(In|Of)Statement$/.test(node.type) && node.left) this.unknown(node.left);
    if (node.type === 'CallExpression') this.handOver(node);
    for (const param of node.params ?? []) if (!this.handed.has(param)) this.unknown(param);
    if (/^(Function|Class)Declaration$/.test(node.type) && node.id) this.unknown(node.id);
  }

  /** `(function (d) { … })(document)`: a function called where it stands. */
  private handOver({ callee, arguments: given }: Any): void {
    if (!/^(Arrow)?FunctionExpression$/.test(callee?.type ?? '')) return;
    callee!.params?.forEach((param, i) => {
      if (param.type !== 'Identifier' || !given?.[i]) return;
      this.handed.add(param);
      this.declared.add(param.name!);
      this.give(param.name!, given[i]);
    });
  }

  private give(name: string, value: Any | undefined): void {
    this.values.set(name, value === undefined || this.values.has(name) ? null : value);
  }

  /** Every name in a pattern may hold anything. */
  private unknown(pattern: Any): void {
    const stack = [pattern];
    for (let at = stack.pop(); at; at = stack.pop()) {
      if (at.type === 'Identifier') {
        this.declared.add(at.name!);
        this.values.set(at.name!, null);
      }
      stack.push(...fieldsOf(at));
    }
  }

  isDeclared(name: string): boolean {
    return this.declared.has(name) || this.values.has(name);
  }

  /** What a variable holds that is given a value once. */
  onlyValue(name: string): Any | undefined {
    return this.values.get(name) ?? undefined;
  }

  isOwnList(name: string): boolean {
    const value = this.onlyValue(name);
    if (!value) return false;
    return (
      /^(ArrayExpression|ObjectExpression)$/.test(value.type) ||
      (value.type === 'NewExpression' && /^(Array|Object|Map|Set)$/.test(value.callee?.name ?? ''))
    );
  }

  /** The text an expression comes to; undefined when that cannot be told. */
  textOf(node: Any, depth = 0): string | undefined {
    if (depth > 40) return undefined;
    switch (node.type) {
      case 'Literal':
        return typeof node.value === 'string' || typeof node.value === 'number' ? String(node.value) : undefined;
      case 'TemplateLiteral': {
        const inside = node.expressions!.map((one) => this.textOf(one, depth + 1));
        if (inside.includes(undefined)) return undefined;
        return node
          .quasis!.map((part, i) => ((part.value as unknown as { cooked?: string }).cooked ?? '') + (inside[i] ?? ''))
          .join('');
      }
      case 'BinaryExpression': {
        if (node.operator !== '+') return undefined;
        const left = this.textOf(node.left!, depth + 1);
        const right = left === undefined ? undefined : this.textOf(node.right!, depth + 1);
        return right === undefined ? undefined : left! + right;
      }
      case 'Identifier': {
        const value = this.onlyValue(node.name!);
        return value ? this.textOf(value, depth + 1) : undefined;
      }
      default:
        return undefined;
    }
  }

  isNumber(node: Any, depth = 0): boolean {
    if (depth > 10) return false;
    switch (node.type) {
      case 'Literal':
        return typeof node.value === 'number';
      case 'UpdateExpression':
        return true;
      case 'UnaryExpression':
        return /^[-+~]$/.test(node.operator!);
      case 'BinaryExpression':
        if (/^([-*/%]|\*\*|<<|>>>?|[&|^])$/.test(node.operator!)) return true;
        return node.operator === '+' && this.isNumber(node.left!, depth + 1) && this.isNumber(node.right!, depth + 1);
      case 'MemberExpression':
        return node.property?.name === 'length' || node.property?.name === 'selectedIndex';
      case 'CallExpression':
        return /^(parseInt|Number|parseFloat)$/.test(node.callee?.name ?? '') || node.callee?.object?.name === 'Math';
      case 'Identifier': {
        if (this.counted.has(node.name!)) return true;
        const value = this.onlyValue(node.name!);
        return value !== undefined && this.isNumber(value, depth + 1);
      }
      default:
        return false;
    }
  }
}
