import { classesIn, type Attribute, type ChildNode, type ElementNode, type Namespace, type TextNode } from './nodes.ts';
import type { PageTree } from './parsePage.ts';

/** Gives equal texts of a site's pages equal numbers. */
export interface Atoms {
  number(text: string): number;
  text(number: number): string;
}

const fieldCount = 5;
const [tagField, parentField, siblingField, endField, attributeField] = [0, 1, 2, 3, 4] as const;

/**
 * A page's elements in a few dozen bytes each, for sites kept in memory whole. Elements are made again on demand, for the
 * matcher: equal ones are the same object until `release`. What stands where in the text is not kept.
 */
export class KeptTree {
  readonly count: number;
  /** Per element: atom of `namespace tag`, parent, place among siblings, end of the subtree, first attribute. */
  private readonly fields: Int32Array;
  /** Pairs of atoms: `prefix name`, value. */
  private readonly attributes: Int32Array;
  /** 1 where a text that is not empty is a child. */
  private readonly text: Uint8Array;
  /** Where the direction hangs on text the tree itself is kept. */
  private readonly whole: PageTree | undefined;
  private readonly atoms: Atoms;
  private made: (ElementNode | undefined)[] = [];

  constructor(tree: PageTree, atoms: Atoms) {
    const { elements } = tree;
    this.atoms = atoms;
    this.count = elements.length;
    this.fields = new Int32Array(this.count * fieldCount);
    this.text = new Uint8Array(this.count);
    const pairs: number[] = [];
    let hangsOnText = false;
    for (const element of elements) {
      const at = element.index * fieldCount;
      this.fields[at + tagField] = atoms.number(`${element.namespace} ${element.tag}`);
      this.fields[at + parentField] = element.parent?.type === 'element' ? element.parent.index : -1;
      this.fields[at + siblingField] = element.siblingIndex;
      this.fields[at + attributeField] = pairs.length;
      for (const { name, value, prefix } of element.attributes) {
        pairs.push(atoms.number(`${prefix ?? ''} ${name}`), atoms.number(value));
        if (name === 'dir' && value.toLowerCase() === 'auto') hangsOnText = true;
      }
      if (element.tag === 'bdi') hangsOnText = true;
      if (element.children.some((c) => c.type === 'text' && c.value !== '')) this.text[element.index] = 1;
    }
    for (let i = this.count - 1; i >= 0; i--) {
      const at = i * fieldCount;
      this.fields[at + endField] = Math.max(this.fields[at + endField]!, i + 1);
      const parent = this.fields[at + parentField]!;
      if (parent >= 0)
        this.fields[parent * fieldCount + endField] = Math.max(this.fields[parent * fieldCount + endField]!, this.fields[at + endField]!); // prettier-ignore
    }
    this.attributes = Int32Array.from(pairs);
    this.whole = hangsOnText ? tree : undefined;
  }

  get bytes(): number {
    return this.fields.byteLength + this.attributes.byteLength + this.text.byteLength;
  }

  element(i: number): ElementNode {
    if (this.whole) return this.whole.elements[i]!;
    return (this.made[i] ??= new KeptElement(this, i));
  }

  /** Forgets the elements made so far. */
  release(): void {
    this.made = [];
  }

  tagOf(i: number): number {
    return this.fields[i * fieldCount + tagField]!;
  }

  /** Elements with a `class` or `id` whose value is marked. Each once. */
  withAttribute(name: number, marked: Uint8Array, found: (element: number) => void): void {
    const { fields, attributes } = this;
    for (let i = 0; i < this.count; i++) {
      const to = this.attributesEnd(i);
      for (let a = fields[i * fieldCount + attributeField]!; a < to; a += 2)
        if (attributes[a] === name && marked[attributes[a + 1]!] === 1) {
          found(i);
          break;
        }
    }
  }

  parentOf(i: number): ElementNode | null {
    const parent = this.fields[i * fieldCount + parentField]!;
    return parent < 0 ? null : this.element(parent);
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

  nameOf(i: number): readonly [namespace: Namespace, tag: string] {
    const [namespace, tag] = this.atoms.text(this.tagOf(i)).split(' ') as [Namespace, string];
    return [namespace, tag];
  }

  attributesOf(i: number): Attribute[] {
    const out: Attribute[] = [];
    const to = this.attributesEnd(i);
    for (let a = this.fields[i * fieldCount + attributeField]!; a < to; a += 2) {
      const [prefix, name] = this.atoms.text(this.attributes[a]!).split(' ') as [string, string];
      out.push({ name, value: this.atoms.text(this.attributes[a + 1]!), prefix: prefix === '' ? undefined : prefix });
    }
    return out;
  }

  private attributesEnd(i: number): number {
    return i + 1 < this.count ? this.fields[(i + 1) * fieldCount + attributeField]! : this.attributes.length;
  }
}

const someText: TextNode = { type: 'text', value: 'x', parent: null };

/** An element of a kept tree; without places in the text. */
class KeptElement implements ElementNode {
  readonly type = 'element';
  readonly tag: string;
  readonly namespace: Namespace;
  readonly start = -1;
  readonly startTagEnd = -1;
  readonly endTagStart = -1;
  readonly end = -1;
  readonly attributeSpans = undefined;
  readonly index: number;
  private ownAttributes: Attribute[] | undefined;
  private ownClasses: readonly string[] | undefined;
  private ownChildren: ElementNode[] | undefined;
  private readonly tree: KeptTree;

  constructor(tree: KeptTree, index: number) {
    this.tree = tree;
    this.index = index;
    [this.namespace, this.tag] = tree.nameOf(index);
  }

  get attributes(): Attribute[] {
    return (this.ownAttributes ??= this.tree.attributesOf(this.index));
  }

  get id(): string | undefined {
    const id = this.attributes.find((a) => a.name === 'id')?.value;
    return id === '' ? undefined : id;
  }

  get classes(): readonly string[] {
    return (this.ownClasses ??= classesIn(this.attributes.find((a) => a.name === 'class')?.value ?? ''));
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
