import { lowered } from '../source/asciiCase.ts';
import type { Attribute, ChildNode, ElementNode, Namespace, TextNode } from './nodes.ts';
import type { PageTree } from './parsePage.ts';

/** What an element is by itself: its name and attributes. Elements of equal look share one. */
export interface Look {
  readonly tag: string;
  readonly namespace: Namespace;
  readonly attributes: Attribute[];
  readonly id: string | undefined;
  readonly classes: readonly string[];
}

/** Numbers for the looks of a site's elements, and for looks with those of all ancestors: paths. */
export class KeptLooks {
  private readonly lookNumbers = new Map<string, number>();
  private readonly looks: Look[] = [];
  private readonly pathNumbers = new Map<number, number>();
  private readonly pathLooks: number[] = [];
  private readonly pathParents: number[] = [];
  private readonly elements: PathElement[] = [];

  get pathCount(): number {
    return this.pathLooks.length;
  }

  look(number: number): Look {
    return this.looks[number]!;
  }

  numberOf({ tag, namespace, attributes, id, classes }: ElementNode): number {
    let key = `${namespace} ${tag}`;
    for (const { name, value, prefix } of attributes) key += `\0${prefix ?? ''} ${name}=${value}`;
    let number = this.lookNumbers.get(key);
    if (number === undefined) {
      this.lookNumbers.set(key, (number = this.looks.length));
      this.looks.push({ tag, namespace, attributes, id, classes });
    }
    return number;
  }

  /** `parent` is the parent's path, -1 for the root. */
  pathOf(look: number, parent: number): number {
    const key = (parent + 1) * 2 ** 24 + look;
    let number = this.pathNumbers.get(key);
    if (number === undefined) {
      this.pathNumbers.set(key, (number = this.pathLooks.length));
      this.pathLooks.push(look);
      this.pathParents.push(parent);
    }
    return number;
  }

  /** An element of each path, by its number: it has ancestors, but neither siblings nor children. */
  pathElements(): readonly ElementNode[] {
    // a parent's path is numbered before its children's
    for (let i = this.elements.length; i < this.pathLooks.length; i++)
      this.elements.push(
        new PathElement(this.look(this.pathLooks[i]!), i, this.elements[this.pathParents[i]!] ?? null),
      );
    return this.elements;
  }

  lookOfPath(path: number): number {
    return this.pathLooks[path]!;
  }

  get lookCount(): number {
    return this.looks.length;
  }
}

const fieldCount = 5;
const [lookField, parentField, siblingField, endField, pathField] = [0, 1, 2, 3, 4] as const;

/**
 * A page's elements in two dozen bytes each, for sites kept in memory whole. Elements are made again on demand, for the
 * matcher: equal ones are the same object until `release`. What stands where in the text is not kept.
 */
export class KeptTree {
  readonly count: number;
  /** Per element: look, parent, place among siblings, end of the subtree, path. */
  private readonly fields: Int32Array;
  /** 1 where a text that is not empty is a child. */
  private readonly text: Uint8Array;
  /** Where the direction hangs on text the tree itself is kept. */
  private readonly whole: PageTree | undefined;
  private readonly looks: KeptLooks;
  private made: (ElementNode | undefined)[] = [];

  constructor(tree: PageTree, looks: KeptLooks) {
    const { elements } = tree;
    this.looks = looks;
    this.count = elements.length;
    const fields = new Int32Array(this.count * fieldCount);
    this.text = new Uint8Array(this.count);
    let hangsOnText = false;
    for (const element of elements) {
      const at = element.index * fieldCount;
      const parent = element.parent?.type === 'element' ? element.parent.index : -1;
      const look = looks.numberOf(element);
      fields[at + lookField] = look;
      fields[at + parentField] = parent;
      fields[at + siblingField] = element.siblingIndex;
      fields[at + pathField] = looks.pathOf(look, parent < 0 ? -1 : fields[parent * fieldCount + pathField]!);
      if (element.tag === 'bdi' || element.attributes.some((a) => a.name === 'dir' && lowered(a.value) === 'auto'))
        hangsOnText = true;
      if (element.children.some((c) => c.type === 'text' && c.value !== '')) this.text[element.index] = 1;
    }
    for (let i = this.count - 1; i >= 0; i--) {
      // the last child comes first here, and its end is its parent's
      const end = (fields[i * fieldCount + endField] ||= i + 1);
      const parent = fields[i * fieldCount + parentField]!;
      if (parent >= 0) fields[parent * fieldCount + endField] ||= end;
    }
    this.fields = fields;
    this.whole = hangsOnText ? tree : undefined;
  }

  element(i: number): ElementNode {
    if (this.whole) return this.whole.elements[i]!;
    return (this.made[i] ??= new KeptElement(this, i, this.lookOf(i)));
  }

  /** Forgets the elements made so far. */
  release(): void {
    this.made = [];
  }

  pathOf(i: number): number {
    return this.fields[i * fieldCount + pathField]!;
  }

  lookOf(i: number): Look {
    return this.looks.look(this.fields[i * fieldCount + lookField]!);
  }

  parentOf(i: number): ElementNode | null {
    const parent = this.fields[i * fieldCount + parentField]!;
    return parent < 0 ? null : this.element(parent);
  }

  /** -1 for the root. */
  parentIndexOf(i: number): number {
    return this.fields[i * fieldCount + parentField]!;
  }

  siblingIndexOf(i: number): number {
    return this.fields[i * fieldCount + siblingField]!;
  }

  childrenOf(i: number): ElementNode[] {
    const out: ElementNode[] = [];
    const end = this.fields[i * fieldCount + endField]!;
    for (let child = i + 1; child < end; child = this.fields[child * fieldCount + endField]!)
      out.push(this.element(child));
    return out;
  }

  hasText(i: number): boolean {
    return this.text[i] === 1;
  }
}

/** An element without places in the text. */
abstract class PlacelessElement implements ElementNode {
  readonly type = 'element';
  readonly start = -1;
  readonly startTagEnd = -1;
  readonly endTagStart = -1;
  readonly end = -1;
  readonly attributeSpans = undefined;
  readonly index: number;
  private readonly look: Look;

  constructor(look: Look, index: number) {
    this.look = look;
    this.index = index;
  }

  get tag(): string {
    return this.look.tag;
  }
  get namespace(): Namespace {
    return this.look.namespace;
  }
  get attributes(): Attribute[] {
    return this.look.attributes;
  }
  get id(): string | undefined {
    return this.look.id;
  }
  get classes(): readonly string[] {
    return this.look.classes;
  }

  abstract get parent(): ElementNode | null;
  abstract get children(): ChildNode[];
  abstract get siblingIndex(): number;
  abstract get siblings(): readonly ElementNode[];
}

class PathElement extends PlacelessElement {
  readonly parent: ElementNode | null;
  readonly children: ChildNode[] = [];
  readonly siblingIndex = 0;
  readonly siblings: readonly ElementNode[] = [];

  constructor(look: Look, index: number, parent: ElementNode | null) {
    super(look, index);
    this.parent = parent;
  }
}

const someText: TextNode = { type: 'text', value: 'x', parent: null };

class KeptElement extends PlacelessElement {
  private ownChildren: ElementNode[] | undefined;
  private readonly tree: KeptTree;

  constructor(tree: KeptTree, index: number, look: Look) {
    super(look, index);
    this.tree = tree;
  }

  get elements(): readonly ElementNode[] {
    return (this.ownChildren ??= this.tree.childrenOf(this.index));
  }

  get children(): ChildNode[] {
    return this.tree.hasText(this.index) ? [someText, ...this.elements] : [...this.elements];
  }

  get parent(): ElementNode | null {
    return this.tree.parentOf(this.index);
  }

  get siblingIndex(): number {
    return this.tree.siblingIndexOf(this.index);
  }

  get siblings(): readonly ElementNode[] {
    const { parent } = this;
    return parent instanceof KeptElement ? parent.elements : [this];
  }
}
