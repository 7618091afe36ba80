import { lowered } from '../source/asciiCase.ts';
import { trimmed } from '../source/space.ts';
import { parseSelectorList, readByBoth } from '../selectors/parseSelector.ts';
import { isYoung } from '../selectors/pseudoTable.ts';
import type { SelectorList } from '../selectors/selector.ts';
import type { GroupRule, NestedDeclarations, Rule, Sheet, StyleRule } from '../sheet/sheet.ts';
import { foldedText } from '../sheet/tokens.ts';
import { unescapeCss } from '../values/unescape.ts';
import { resolveReference } from '../values/urls.ts';
import { comparableValue } from '../values/comparableValue.ts';
import { compileBlock, resolvedText, type BlockContext } from './compileBlock.ts';
import type { CompiledItem, CompiledSheet, Condition, ScopeRange } from './compiledRule.ts';
import { layerNames } from '../sheet/layerNames.ts';
import { isAllMedia, mediaText } from './mediaText.ts';

/** `@scope (start) to (end)`, both parts optional. */
/** CSS Namespaces 3, "Syntax": a prefix or none, then a string or an address. */
const namespacePrelude =
  /^(?:([^\t\n\f\r "'(]+)[\t\n\f\r ]+)?(?:url\([\t\n\f\r ]*(?:"([^"]*)"|'([^']*)'|([^"')]*))[\t\n\f\r ]*\)|"([^"]*)"|'([^']*)')$/i;
const scopePrelude = /^(?:\(([^]*?)\))?[\t\n\f\r ]*(?:to[\t\n\f\r ]*\(([^]*)\))?$/i;

/** More than any sheet has. */
const maxItems = 2 ** 24;

interface Around {
  readonly conditions: readonly Condition[];
  readonly layers: readonly string[];
  readonly scopes: readonly ScopeRange[];
  readonly parent: { readonly selectors: SelectorList; readonly rule: StyleRule } | undefined;
  /** As another browser reads it, or as ours where the other reading is made apart; both in one where nothing is said. */
  readonly reading?: 'ours' | 'any';
}

/** The sheet's rules as the cascade needs them: nesting unfolded, conditions and layers attached, references resolved. */
export function compileSheet(sheet: Sheet, id: number, context: BlockContext): CompiledSheet {
  const compiler = new Compiler(sheet, id, context);
  compiler.rules(sheet.rules, { conditions: [], layers: [], scopes: [], parent: undefined }, true);
  return { id, text: sheet.text, items: compiler.items };
}

class Compiler {
  readonly items: CompiledItem[] = [];
  private readonly namespaces = new Map<string, string>();
  private anonymous = 0;
  private importsOver = false;
  private imported = false;
  private namespacesOver = false;
  private readonly sheet: Sheet;
  private readonly id: number;
  private readonly context: BlockContext;

  constructor(sheet: Sheet, id: number, context: BlockContext) {
    this.sheet = sheet;
    this.id = id;
    this.context = context;
  }

  rules(rules: readonly Rule[], around: Around, top: boolean): void {
    for (const rule of rules) this.rule(rule, around, top);
  }

  /** Only a rule that browsers keep ends the run of imports. */
  private rule(rule: Rule, around: Around, top: boolean): void {
    switch (rule.kind) {
      case 'style':
        if (this.styleRule(rule, around)) this.endPreamble(around);
        return;
      case 'group':
        if (this.group(rule, around)) this.endPreamble(around);
        return;
      case 'declarations':
        this.straight(rule, around);
        return;
      case 'import':
        if (top && !this.importsOver) this.import(rule);
        return;
      case 'definition':
        this.definition(rule, around);
        if (isKeptDefinition(rule)) this.endPreamble(around);
        return;
      case 'statement':
        this.statement(rule, around, top);
        return;
      case 'dropped':
        return;
    }
  }

  private endPreamble({ reading }: Around): void {
    if (reading === 'any') return;
    this.importsOver = true;
    this.namespacesOver = true;
  }

  private styleRule(rule: StyleRule, around: Around): boolean {
    const { ours, any } = this.selectors(rule.selector, around);
    if (around.reading === 'any') {
      if (any) this.ruleOf(rule, any, around);
      return false;
    }
    const differs = any !== ours;
    if (ours) {
      const here = besideYoung(rule.selector, around);
      // the other reading takes what is nested along, once
      this.ruleOf(rule, ours, differs ? { ...here, reading: 'ours' } : here);
    }
    if (any && differs && around.reading === undefined) this.ruleOf(rule, any, elsewhere(around));
    return ours !== undefined;
  }

  private ruleOf(rule: StyleRule, selectors: SelectorList, around: Around): void {
    this.push(rule, selectors, rule.declarations, around);
    this.rules(rule.nested, { ...around, parent: { selectors, rule } }, false);
  }

  private push(
    rule: StyleRule,
    selectors: SelectorList,
    declarations: StyleRule['declarations'],
    around: Around,
  ): void {
    if (declarations.length === 0) return;
    const block = compileBlock(declarations, this.context);
    const number = this.id * maxItems + this.items.length;
    this.items.push({ kind: 'rule', number, selectors, block, ...placed(around), rule });
  }

  private group(rule: GroupRule, around: Around): boolean {
    const inside = this.inside(rule, around);
    if (!inside) return false;
    // a layer is there although nothing in it may be
    if (rule.name === 'layer')
      this.items.push({ kind: 'layer-statement', names: [inside.layers], conditions: inside.conditions });
    this.straight(rule, inside);
    this.rules(rule.rules, inside, false);
    return inside.reading !== 'any';
  }

  /** Declarations straight in a group or after a nested rule: they reach what the rule around reaches, or the scoping root. */
  private straight(rule: GroupRule | NestedDeclarations, around: Around): void {
    if (around.parent) this.push(around.parent.rule, around.parent.selectors, rule.declarations, around);
    else if (around.scopes.length > 0) {
      const { span } = rule;
      const holder: StyleRule = {
        kind: 'style',
        selector: ':where(:scope)',
        selectorSpan: span,
        declarations: [],
        nested: [],
        span,
        closed: true,
      };
      this.push(holder, parseSelectorList('&')!, rule.declarations, around);
    }
  }

  private inside(rule: GroupRule, around: Around): Around | undefined {
    const add = (condition: Condition): Around => ({ ...around, conditions: [...around.conditions, condition] });
    switch (rule.name) {
      case 'media':
        return isAllMedia(rule.prelude) ? around : add({ kind: 'media', text: mediaText(rule.prelude) });
      case 'supports':
        return add({ kind: 'supports', text: rule.prelude });
      case 'container':
        return rule.prelude === '' ? undefined : add({ kind: 'container', text: rule.prelude });
      case 'layer': {
        const names = rule.prelude === '' ? [[this.anonymousLayer()]] : layerNames(rule.prelude);
        return names?.length === 1 ? { ...around, layers: [...around.layers, ...names[0]!] } : undefined;
      }
      case 'scope':
        return this.scope(rule, around) ?? this.scope(rule, elsewhere(around));
      case 'starting-style':
        return add({ kind: 'other', text: `@${rule.name}` });
      default:
        return elsewhere(around, `@${rule.name} ${foldedText(rule.prelude)}`);
    }
  }

  private selectors(text: string, { parent, scopes }: Around): ReturnType<typeof readByBoth> {
    const outer = parent ? { parent: parent.selectors } : scopes.length > 0 ? { scoped: true } : {};
    return readByBoth(text, { ...outer, namespaces: this.namespaces });
  }

  private scope(rule: GroupRule, around: Around): Around | undefined {
    const which = around.reading === 'any' ? 'any' : 'ours';
    const found = scopePrelude.exec(trimmed(rule.prelude));
    if (!found) return undefined;
    const start = found[1] === undefined ? undefined : this.selectors(found[1], around)[which];
    const inside = { ...around, scopes: [...around.scopes, scopeHolder] };
    const limit =
      found[2] === undefined ? undefined : this.selectors(found[2], { ...inside, parent: undefined })[which];
    if ((found[1] !== undefined && !start) || (found[2] !== undefined && !limit)) return undefined;
    const scopes = [...around.scopes, { start, limit, text: `@scope ${rule.prelude}` }];
    return { ...around, scopes, parent: undefined };
  }

  private anonymousLayer(): string {
    return `(anonymous ${this.id}.${this.anonymous++})`;
  }

  private import(rule: Extract<Rule, { kind: 'import' }>): void {
    this.imported = true;
    const conditions: Condition[] = [];
    if (rule.supports !== undefined) conditions.push({ kind: 'supports', text: supportsText(rule.supports) });
    if (!isAllMedia(rule.media)) conditions.push({ kind: 'media', text: mediaText(rule.media) });
    this.items.push({
      kind: 'import',
      target: resolveReference(rule.reference, this.context.base),
      conditions,
      layers:
        rule.layer === undefined ? [] : rule.layer === null ? [this.anonymousLayer()] : layerNames(rule.layer)![0]!,
    });
  }

  private definition(rule: Extract<Rule, { kind: 'definition' }>, around: Around): void {
    const raw = this.sheet.text.slice(rule.blockSpan.start, rule.blockSpan.end);
    const subject =
      rule.name === 'font-face' ? lowered(familyOf(raw)) : unescapeCss(rule.prelude.replace(/^["']|["']$/g, ''));
    this.items.push({
      kind: 'definition',
      name: rule.name.replace(/^-webkit-/, ''),
      subject,
      key: `@${rule.name} ${rule.prelude}{${resolvedText(foldedText(raw), this.context)}}`,
      conditions: around.conditions,
      layers: around.layers,
      rule,
    });
  }

  private statement(rule: Extract<Rule, { kind: 'statement' }>, around: Around, top: boolean): void {
    if (rule.name === 'layer') {
      const names = layerNames(rule.prelude);
      if (!names) return;
      this.items.push({
        kind: 'layer-statement',
        names: names.map((name) => [...around.layers, ...name]),
        conditions: around.conditions,
      });
      // before the first import it may stand, between two it may not
      if (this.imported) this.importsOver = true;
    } else if (rule.name === 'namespace' && top && !this.namespacesOver) {
      this.importsOver = true;
      const found = namespacePrelude.exec(rule.prelude);
      if (found) this.namespaces.set(found[1] ?? '', trimmed(found.slice(2).find((one) => one !== undefined)!));
    }
  }
}

/** Whether browsers keep a definition, told by its name and prelude as far as these tell. */
function isKeptDefinition({ name, prelude }: Extract<Rule, { kind: 'definition' }>): boolean {
  switch (name) {
    case 'font-face':
    case 'view-transition':
      return prelude === '';
    case 'keyframes':
    case '-webkit-keyframes':
      return /^("[^]*"|'[^]*'|[^\t\n\f\r "'(){}[\],]+)$/.test(prelude);
    case 'counter-style':
      return (
        /^[^\t\n\f\r "'(){}]+$/.test(prelude) &&
        !/^(none|decimal|disc|circle|square|disclosure-(open|closed))$/i.test(prelude)
      );
    case 'property':
    case 'position-try':
    case 'font-palette-values':
      return /^--[^\t\n\f\r "'(){}]+$/.test(prelude);
    case 'function':
      return prelude.startsWith('--');
    case 'page':
      return /^([-\w:,\t\n\f\r ]|[^\0-\x7f])*$/.test(prelude);
    case 'font-feature-values':
      return prelude !== '';
    default:
      return false;
  }
}

/** Selectors that some browsers drop. */
const besideYoung = (selector: string, around: Around): Around =>
  isYoung(selector)
    ? { ...around, conditions: [...around.conditions, { kind: 'young-list', text: foldedText(selector) }] }
    : around;

/** In a browser that knows what ours does not. */
const elsewhere = (around: Around, text = ''): Around => ({
  ...around,
  reading: 'any',
  conditions: [...around.conditions, { kind: 'other-browsers', text }],
});

/** `supports(display: grid)` of an import says what `@supports (display: grid)` says. */
const supportsText = (text: string): string => (/^[-\w\t\n\f\r ]+:/.test(trimmed(text)) ? `(${trimmed(text)})` : text);

const scopeHolder: ScopeRange = { start: undefined, limit: undefined, text: '' };

const placed = ({ conditions, layers, scopes }: Around): Pick<Around, 'conditions' | 'layers' | 'scopes'> => ({
  conditions,
  layers,
  scopes,
});

function familyOf(block: string): string {
  const found = /font-family[\t\n\f\r ]*:[\t\n\f\r ]*([^;]+)/i.exec(foldedText(block));
  return found ? comparableValue('font-family', found[1]!).replace(/^"|"$/g, '') : '';
}
