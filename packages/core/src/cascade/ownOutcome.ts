import { lowered } from '../source/asciiCase.ts';
import type { MatchedSelector } from './indexedSelector.ts';
import type { ElementNode } from '../page/nodes.ts';
import { parseSheet } from '../sheet/parseSheet.ts';
import { siteBase } from '../values/urls.ts';
import { tableOf } from '../source/tableOf.ts';
import { initialValues } from '../values/initialValues.ts';
import { isInherited, isOutsideAll, longhandsForAll } from '../values/longhands.ts';
import { slotOf, type Flow } from '../values/logicalSlot.ts';
import { browserDefaults, quirksDefaults } from './browserDefaults.ts';
import { compileSheet } from './compileSheet.ts';
import type { CompiledDeclaration } from './compiledRule.ts';
import type { Contender } from './contenders.ts';
import { LayerOrder } from './layers.ts';
import { matchAtRest } from './matchElement.ts';
import type { ForcedStates } from '../selectors/match.ts';
import type { PageRules } from './pageRules.ts';
import { buildRuleIndex, type RuleIndex } from './ruleIndex.ts';

const initials = tableOf(initialValues);

/** Where a value comes from that an element does not inherit. */
export type OwnOutcome =
  | { readonly kind: 'declared'; readonly contender: Contender }
  /** A rule of the browser's own. */
  | { readonly kind: 'default'; readonly declaration: CompiledDeclaration; readonly selector: string }
  | { readonly kind: 'initial'; readonly value: string };

/** All that says something of an element or pseudo-element. */
export interface Ground {
  readonly tag: string;
  /** The declarations in play, strongest first. */
  readonly contenders: readonly Contender[];
  /** The browser's own rules that reach it, weakest first. */
  readonly defaults: readonly BrowserRule[];
  /** How text runs; undefined where that does not matter to the longhand asked for. */
  readonly flow: Flow | undefined;
}

export interface BrowserRule {
  readonly selector: string;
  readonly declarations: readonly CompiledDeclaration[];
}

/**
 * Undefined when the value is inherited.
 *
 * CSS Cascading and Inheritance Level 5, "Defaulting": the keywords `initial`, `inherit`, `unset`, `revert`, `revert-layer`.
 */
export function ownOutcome({ tag, contenders, defaults, flow }: Ground, longhand: string): OwnOutcome | undefined {
  const slot = flow ? slotOf(longhand, flow) : longhand;
  const reaches = ({ longhands, declaration }: CompiledDeclaration): boolean => {
    const names = declaration.property === 'all' ? (isOutsideAll(slot) ? [] : longhandsForAll) : longhands;
    return names.some((name) => name === slot || (flow !== undefined && slotOf(name, flow) === slot));
  };
  let rest = contenders.filter((c) => reaches(c.compiled));
  while (rest.length > 0) {
    const first = rest[0]!;
    switch (lowered(first.compiled.comparable)) {
      case 'initial':
        return initial(longhand);
      case 'inherit':
        return undefined;
      case 'unset':
        return isInherited(longhand) ? undefined : initial(longhand);
      case 'revert-layer':
        // layers below, important or not; the style attribute is the top one here and the hints the lowest
        rest = rest.filter((c) => c.layerRank < first.layerRank);
        break;
      case 'revert':
        // Chromium gives cells their padding of 1px as a hint, which goes with the author's declarations
        if (/^t[dh]$/.test(tag) && slot.startsWith('padding-')) return initial(longhand);
        rest = [];
        break;
      default:
        return { kind: 'declared', contender: first };
    }
  }
  return defaultOutcome(defaults, longhand, reaches);
}

function defaultOutcome(
  defaults: readonly BrowserRule[],
  longhand: string,
  reaches: (compiled: CompiledDeclaration) => boolean,
): OwnOutcome | undefined {
  let best: { readonly compiled: CompiledDeclaration; readonly selector: string } | undefined;
  for (const { declarations, selector } of defaults)
    for (const compiled of declarations)
      if (reaches(compiled) && (!best?.compiled.declaration.important || compiled.declaration.important))
        best = { compiled, selector };
  const value = best?.compiled.comparable;
  if (value === 'inherit' || (!best && isInherited(longhand))) return undefined;
  if (!best || value === 'initial') return initial(longhand);
  return { kind: 'default', declaration: best.compiled, selector: best.selector };
}

export const initial = (longhand: string): OwnOutcome & { kind: 'initial' } => ({
  kind: 'initial',
  value: initials[longhand] ?? '',
});

/** The browser's own rules that reach an element, weakest first, by the pseudo-element they are for. */
export function browserRules(
  element: ElementNode,
  page: { readonly quirks: boolean; readonly rules: PageRules },
  forced?: ForcedStates,
): ReadonlyMap<string, readonly BrowserRule[]> {
  const out = new Map<string, BrowserRule[]>();
  if (element.namespace !== 'html' && element.namespace !== 'svg') return out;
  for (const { indexed } of matchAtRest(element, defaultsIndex(page), forced)) {
    const list = out.get(indexed.pseudoElement) ?? [];
    out.set(indexed.pseudoElement, list);
    list.push(ruleOf(indexed));
  }
  return out;
}

const browserRuleOf = new WeakMap<MatchedSelector['indexed'], BrowserRule>();

/** One object a selector, so that equal lists can be told by what they hold. */
function ruleOf(indexed: MatchedSelector['indexed']): BrowserRule {
  let known = browserRuleOf.get(indexed);
  if (!known) {
    known = { selector: indexed.selector.text, declarations: indexed.rule.compiled.block.declarations };
    browserRuleOf.set(indexed, known);
  }
  return known;
}

const indexes = new Map<boolean, RuleIndex>();

function defaultsIndex({ quirks, rules }: { readonly quirks: boolean; readonly rules: PageRules }): RuleIndex {
  let known = indexes.get(quirks);
  if (!known) {
    const sheet = parseSheet(quirks ? browserDefaults + quirksDefaults : browserDefaults);
    const compiled = compileSheet(sheet, 0, { base: siteBase(''), fingerprint: undefined });
    const source = { kind: 'embedded', path: '', sourceIndex: 0, offset: 0 } as const;
    const applied = compiled.items.flatMap((item) =>
      item.kind === 'rule'
        ? [{ compiled: item, source, conditions: [], conditionKey: '', layerPath: [], unreadBefore: 0 }]
        : [],
    );
    const layers = new LayerOrder();
    const page = { ...rules, rules: applied, definitions: [], layers, unread: [], definesReference: false, key: '' };
    indexes.set(quirks, (known = buildRuleIndex(page, quirks)));
  }
  return known;
}
