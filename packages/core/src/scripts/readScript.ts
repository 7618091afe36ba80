import { sheetNamesIn } from './sheetNames.ts';
import type { Node } from 'acorn';
import { nothing, type Meant, type ScriptFacts, type Touch } from './scriptFacts.ts';
import { climbsToHead, leadsToHead, partOf, walkers, wholeContents } from './documentParts.ts';
import { asksByPath, dealsWithSources, textTouches } from './lookups.ts';
import { meantBy } from './meantElement.ts';
import { isPlainLookup, makers, places, sheetMembers, wholeElement } from './memberNames.ts';
import { parseScript, type ScriptKind } from './parseScript.ts';
import { reflectedBy } from './reflectedMembers.ts';
import { classReading, markupReading } from './textReading.ts';
import { ValueFlow } from './valueFlow.ts';
import { cssName, isClimb, isDocumentAll, isOwnAddress, isProperty, isText, keepsOld } from './scriptShapes.ts';
import { Constants, fieldsOf, lookAs, nameOfMember, type Any } from './scriptTree.ts';

/**
 * What a script may set or read of what gathering changes, told from its text. `handler`: the value of an event attribute.
 *
 * ECMAScript; DOM Standard, "Interface Element"; CSSOM, "The ElementCSSInlineStyle Mixin"; HTML Standard, "Dynamic markup insertion".
 */
export function readScript(text: string, kind: ScriptKind): ScriptFacts {
  if (text.trim() === '') return nothing;
  const tree = parseScript(text, kind);
  if (!tree) {
    const words = new Set(text.match(/[\w-]+/g) ?? []);
    return { ...nothing, unreadable: true, words, sheets: sheetNamesIn(text), makes: true };
  }
  return new Reader(tree, kind === 'handler').facts();
}

class Reader {
  private readonly touches: Touch[] = [];
  private readonly words = new Set<string>();
  private readonly modules: string[] = [];
  private readonly files: string[] = [];
  private readonly sheets: string[] = [];
  private makes = false;
  /** Where a function of the script is given the document, its root or its head. */
  private handsOn: Any | undefined;
  private readonly tree: Node;
  private readonly handler: boolean;
  private readonly constants: Constants;
  private flow: ValueFlow | undefined;

  constructor(tree: Node, handler: boolean) {
    this.tree = tree;
    this.handler = handler;
    this.constants = new Constants(tree);
  }

  facts(): ScriptFacts {
    // without recursion: minified scripts nest deeply
    const stack: { node: Any; parents: readonly Any[]; inFunction: boolean }[] = [
      { node: lookAs(this.tree), parents: [], inFunction: false },
    ];
    for (let at = stack.pop(); at; at = stack.pop()) {
      const { node, parents, inFunction } = at;
      this.visit(node, parents, inFunction);
      const inside = inFunction || /^Function(Expression|Declaration)$/.test(node.type);
      const above = [node, ...parents.slice(0, 3)];
      for (const child of fieldsOf(node)) stack.push({ node: child, parents: above, inFunction: inside });
    }
    const { touches, makes, words, modules, files, sheets, handsOn } = this;
    if (handsOn && touches.some(({ what }) => what.kind === 'places'))
      this.add(handsOn, { kind: 'any' }, { kind: 'sheets' });
    return { ...nothing, touches, makes, words, modules, files, sheets };
  }

  private visit(node: Any, parents: readonly Any[], inFunction: boolean): void {
    switch (node.type) {
      case 'Literal':
        if (typeof node.value === 'string') this.text(node, node.value, parents[0]);
        return;
      case 'TemplateElement':
        this.text(node, (node.value as unknown as { cooked?: string }).cooked ?? '', parents[1]);
        return;
      case 'BinaryExpression': {
        const whole = this.constants.textOf(node);
        if (whole !== undefined) this.text(node, whole, parents[0]);
        return;
      }
      case 'Identifier':
        this.words.add(node.name!);
        return;
      case 'MemberExpression':
        this.member(node, parents, inFunction);
        return;
      case 'Property':
        if (parents[0]?.type === 'ObjectPattern') this.taken(nameOfMember(node, this.constants), node);
        return;
      case 'ImportDeclaration':
      case 'ExportNamedDeclaration':
      case 'ExportAllDeclaration':
      case 'ImportExpression':
        this.module(node);
        return;
      case 'CallExpression':
      case 'NewExpression':
        this.call(node, inFunction);
        return;
      case 'WhileStatement':
      case 'ForStatement':
        if (isClimb(node)) this.handsOn ??= node;
        return;
      case 'WithStatement':
        this.anything(node);
    }
  }

  private module(node: Any): void {
    const reference = node.source ? this.constants.textOf(node.source) : undefined;
    if (reference !== undefined) this.modules.push(reference);
    else if (node.type === 'ImportExpression') this.anything(node);
  }

  /** Something the script gets at under a name that cannot be told. */
  private anything(node: Any): void {
    this.add(node, { kind: 'any' }, { kind: 'style', property: undefined });
    this.add(node, { kind: 'any' }, { kind: 'class' });
    this.add(node, { kind: 'any' }, { kind: 'attribute', name: undefined });
    this.add(node, { kind: 'any' }, { kind: 'sheets' });
    this.makes = true;
  }

  private text(node: Any, text: string, parent: Any | undefined): void {
    for (const word of text.match(/[\p{L}\p{N}_-]+/gu) ?? []) this.words.add(word);
    if (/\.m?js(?:[?#]|$)/i.test(text)) this.files.push(text);
    this.sheets.push(...sheetNamesIn(text));
    if (/<[a-z]/i.test(text)) this.makes = true;
    const isKey = parent?.type === 'MemberExpression' && parent.computed === true;
    for (const what of textTouches(text, isKey)) this.add(node, { kind: 'any' }, what);
    if (/^(className|cssText)$/.test(text)) this.named(text, node, { kind: 'any' });
  }

  private member(node: Any, parents: readonly Any[], inFunction: boolean): void {
    const name = nameOfMember(node, this.constants);
    const object = node.object!;
    if (name === undefined) {
      if (!isPlainLookup(node, this.constants)) this.anything(node);
      return;
    }
    const meant = this.meant(object, inFunction);
    if (name === 'className') this.className(node, meant, parents);
    else if (name === 'style') this.style(node, meant, parents);
    else if (name === 'classList') this.classList(node, meant, parents);
    else if (
      name !== 'cssText' ||
      object.type !== 'MemberExpression' ||
      nameOfMember(object, this.constants) !== 'style'
    )
      this.named(name, node, meant);
    if (/^(inner|outer)HTML$/.test(name)) this.markup(node, parents);
    this.reflected(name, node, meant, parents[0]);
    if (name === 'documentElement' && this.isKept(node)) this.handsOn ??= node;
    if ((name === 'length' || /^\d+$/.test(name)) && isDocumentAll(object))
      this.add(node, { kind: 'any' }, { kind: 'sheets' });
    if (places.test(name)) this.place(node, name, object, parents);
    this.whole(node, name, object);
    if (makers.test(name)) this.makes = true;
  }

  private reflected(name: string, node: Any, meant: Meant, parent: Any | undefined): void {
    const known = node.object!.type === 'Identifier' ? this.constants.onlyValue(node.object!.name!) : undefined;
    const found = reflectedBy(name, known ?? node.object!, parent, node);
    if (found) this.add(node, found.meant ?? meant, { kind: 'attribute', name: found.attribute });
  }

  /** A step by place; from the head or what is around it it leads to links and blocks, unless something is only put before what is there. */
  private place(node: Any, name: string, object: Any, [parent]: readonly Any[]): void {
    this.add(node, { kind: 'any' }, { kind: 'places' });
    const callee = parent?.type === 'CallExpression' ? parent.callee : undefined;
    if (callee?.property?.name === 'insertBefore') return;
    if (leadsToHead(partOf(object, this.constants), name) || climbsToHead(name, object, this.constants))
      this.add(node, { kind: 'any' }, { kind: 'sheets' });
  }

  /** Where nobody follows it: in a list, or in a variable that holds other elements later. */
  private isKept(node: Any): boolean {
    return this.valueFlow()
      .sinksOf(node)
      .some(
        (sink) => sink.kind === 'lost' || (sink.kind === 'member' && sink.name !== undefined && places.test(sink.name)),
      );
  }

  /** All that is in the head, or in the document, is read, replaced or gone through. */
  private whole(node: Any, name: string, object: Any): void {
    if (!wholeContents.test(name)) return;
    const part = partOf(object, this.constants);
    if (part !== undefined && !/^(body|inHead)$/.test(part)) this.add(node, { kind: 'any' }, { kind: 'sheets' });
  }

  /** `const { width } = …`: of an object that is not looked for. */
  private taken(name: string | undefined, node: Any): void {
    this.named(name, node, { kind: 'any' });
    if (name === 'classList') this.add(node, { kind: 'any' }, { kind: 'class' });
    if (name === 'head' || name === 'documentElement') this.add(node, { kind: 'any' }, { kind: 'sheets' });
    const found = name === undefined ? undefined : reflectedBy(name, node, undefined, node);
    if (found) this.add(node, { kind: 'any' }, { kind: 'attribute', name: found.attribute });
  }

  private named(name: string | undefined, node: Any, meant: Meant): void {
    if (name === undefined) return;
    if (name === 'style' || name === 'cssText' || name === 'attributeStyleMap')
      this.add(node, meant, { kind: 'style', property: undefined });
    if (name === 'className' || wholeElement.test(name)) this.add(node, meant, { kind: 'class' });
    if (wholeElement.test(name)) {
      this.add(node, meant, { kind: 'style', property: undefined });
      this.add(node, meant, { kind: 'attribute', name: undefined });
    }
    if (sheetMembers.test(name)) this.add(node, { kind: 'any' }, { kind: 'sheets' });
  }

  /** Setting it wipes a class that came in, unless the old value is part of the new one; reading it may tell of it. */
  private className(node: Any, meant: Meant, [parent]: readonly Any[]): void {
    if (parent?.type === 'AssignmentExpression' && parent.left === node) {
      if (parent.operator === '=' && !keepsOld(parent.right!, node)) this.add(node, meant, { kind: 'class' });
      return;
    }
    for (const what of classReading(node, this.valueFlow(), this.constants)) this.add(node, meant, what);
  }

  /** Of elements of any kind: what holds them is not looked for. */
  private markup(node: Any, [parent]: readonly Any[]): void {
    if (parent?.type === 'AssignmentExpression' && parent.left === node) return;
    for (const what of markupReading(node, this.valueFlow(), this.constants)) this.add(node, { kind: 'any' }, what);
  }

  private valueFlow(): ValueFlow {
    return (this.flow ??= new ValueFlow(this.tree, this.constants));
  }

  private classList(node: Any, meant: Meant, [parent]: readonly Any[]): void {
    const name =
      parent?.type === 'MemberExpression' && parent.object === node ? nameOfMember(parent, this.constants) : undefined;
    if (name === undefined || !/^(add|remove|toggle|contains|replace)$/.test(name))
      this.add(node, meant, { kind: 'class' });
  }

  private style(node: Any, meant: Meant, [parent, beyond]: readonly Any[]): void {
    const name =
      parent?.type === 'MemberExpression' && parent.object === node ? nameOfMember(parent, this.constants) : undefined;
    let property: string | undefined;
    if (name !== undefined && /^(setProperty|removeProperty|getPropertyValue|getPropertyPriority)$/.test(name)) {
      const first = beyond?.type === 'CallExpression' ? beyond.arguments?.[0] : undefined;
      property = first && this.constants.textOf(first)?.toLowerCase();
    } else if (name !== undefined && isProperty(cssName(name))) property = cssName(name);
    this.add(node, meant, { kind: 'style', property });
  }

  private call(node: Any, inFunction: boolean): void {
    const callee = node.callee!;
    const name =
      callee.type === 'MemberExpression'
        ? nameOfMember(callee, this.constants)
        : callee.type === 'Identifier'
          ? callee.name
          : undefined;
    const [first] = node.arguments ?? [];
    if (name === undefined) return;
    this.walked(node, name);
    const texts = (node.arguments ?? []).map((one) => this.constants.textOf(one));
    const [text] = texts;
    if (dealsWithSources(name, texts)) this.add(node, { kind: 'any' }, { kind: 'sheets' });
    if (name === 'execCommand' || (/^(fetch|open|load|get)$/.test(name) && node.arguments!.some(isOwnAddress)))
      this.anything(node);
    if (asksByPath(name, text)) this.anything(node);
    if (
      /^(setAttribute|getAttribute|removeAttribute|hasAttribute|toggleAttribute|getAttributeNode|removeAttributeNS|setAttributeNS|attr|removeAttr|prop)$/.test(
        name,
      )
    )
      this.attribute(node, callee, text, inFunction);
    else if (name === 'css' && callee.type === 'MemberExpression') this.cssCall(node, first, text);
    else if (
      /^(eval|Function|execScript)$/.test(name) ||
      (/^(setTimeout|setInterval)$/.test(name) && first?.type !== undefined && isText(first))
    )
      this.codeInText(node, text);
  }

  /** What is around the links and blocks is handed to something that may go through it. */
  private walked(node: Any, name: string): void {
    const isOwn = node.callee!.type === 'Identifier' && this.constants.isDeclared(name);
    if (!isOwn && !walkers.test(name)) return;
    const parts = (node.arguments ?? []).map((one) => partOf(one, this.constants));
    if (!parts.some((part) => part !== undefined && part !== 'body')) return;
    if (isOwn) this.handsOn ??= node;
    else this.add(node, { kind: 'any' }, { kind: 'sheets' });
  }

  private attribute(node: Any, callee: Any, name: string | undefined, inFunction: boolean): void {
    const meant = callee.object ? this.meant(callee.object, inFunction) : { kind: 'any' as const };
    if (name === undefined) this.anything(node);
    else if (/^class$/i.test(name)) this.add(node, meant, { kind: 'class' });
    else if (/^style$/i.test(name)) this.add(node, meant, { kind: 'style', property: undefined });
    else this.add(node, meant, { kind: 'attribute', name: name.toLowerCase() });
  }

  private cssCall(node: Any, first: Any | undefined, text: string | undefined): void {
    const keys =
      first?.type === 'ObjectExpression' ? first.properties!.map((p) => nameOfMember(p, this.constants)) : [text];
    for (const key of keys)
      this.add(node, { kind: 'any' }, { kind: 'style', property: key === undefined ? undefined : cssName(key) });
  }

  /** A script in a text: read as well where it can be told, else it may do anything. */
  private codeInText(node: Any, text: string | undefined): void {
    const facts = text === undefined ? undefined : readScript(text, 'handler');
    if (!facts || facts.unreadable) return this.anything(node);
    this.files.push(...facts.files);
    this.touches.push(...facts.touches.map((touch) => ({ ...touch, line: node.loc!.start.line })));
    for (const word of facts.words) this.words.add(word);
    this.makes ||= facts.makes;
  }

  private meant(node: Any, inFunction: boolean): Meant {
    return meantBy(node, this.constants, this.handler && !inFunction);
  }

  private add(node: Any, meant: Meant, what: Touch['what']): void {
    this.touches.push({ line: node.loc!.start.line, meant, what });
  }
}
