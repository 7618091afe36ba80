import type { SelectorList } from '../selectors/selector.ts';
import type { Declaration, Rule, StyleRule } from '../sheet/sheet.ts';
import type { Validity } from '../values/declarationValidity.ts';
import { plainMedia } from './mediaText.ts';
import type { Target } from '../values/urls.ts';

/** A declaration made ready for comparing: the longhands it sets and its value in comparable spelling, addresses resolved. */
export interface CompiledDeclaration {
  readonly declaration: Declaration;
  readonly longhands: readonly string[];
  readonly comparable: string;
  /** What each of the longhands gets, where it is a shorthand, surely valid, that can be parted. */
  readonly values: readonly string[] | undefined;
  readonly validity: Validity;
  /** The value hands over to weaker declarations, so those count as well: `revert`, `revert-layer`. */
  readonly yields: boolean;
}

/** The declarations of one block; equal blocks, wherever they stand, have equal `key`. */
export interface CompiledBlock {
  readonly key: string;
  readonly declarations: readonly CompiledDeclaration[];
  /**
   * The folder of the sheet, when a value uses `var()`: what it brings in may hold a relative reference, which counts from
   * the sheet that uses it (CSS Values and Units 4, "Relative URLs"). Matters only where `definesReference` is somewhere.
   */
  readonly varFolder: string | undefined;
  readonly definesReference: boolean;
  /** A value may read the element's attributes or its place among its siblings: `attr()`, `sibling-index()`. */
  readonly readsMarkup: boolean;
  readonly isEmpty: boolean;
}

export type Condition =
  | { readonly kind: 'media'; readonly text: string }
  | { readonly kind: 'supports'; readonly text: string }
  | { readonly kind: 'container'; readonly text: string }
  | { readonly kind: 'sheet-set'; readonly text: string; readonly preferred: boolean }
  | { readonly kind: 'other'; readonly text: string }
  /** Our browser drops what is in it, another may not: a selector or a group it does not know. */
  | { readonly kind: 'other-browsers'; readonly text: string }
  /** Our browser takes it, but not all do: a selector they drop, or one they drop for what stands beside it in a list. */
  | { readonly kind: 'young-list'; readonly text: string };

export const conditionKey = (conditions: readonly Condition[]): string =>
  conditions
    .map(
      (c) =>
        `${c.kind} ${c.kind === 'media' ? plainMedia(c.text) : c.text}${c.kind === 'sheet-set' && !c.preferred ? ' off' : ''}`,
    )
    .join(' & ');

/**
 * One `@scope` around a rule: elements that may be the scoping root (undefined: the parent of the `style` element, or the
 * page's root), and those below which the scope ends. CSS Cascading and Inheritance Level 6, "Scoping Styles: the @scope rule".
 */
export interface ScopeRange {
  readonly start: SelectorList | undefined;
  readonly limit: SelectorList | undefined;
  readonly text: string;
}

/** A style rule of one sheet, nesting unfolded, with the conditions and layers written around it in that sheet. */
export interface CompiledRule {
  readonly kind: 'rule';
  /** Grows with the order in the sheet; no two rules of a cache share one. */
  readonly number: number;
  readonly selectors: SelectorList;
  readonly block: CompiledBlock;
  readonly conditions: readonly Condition[];
  readonly layers: readonly string[];
  /** The `@scope` rules around it, outermost first. */
  readonly scopes: readonly ScopeRange[];
  readonly rule: StyleRule;
}

export interface CompiledImport {
  readonly kind: 'import';
  readonly target: Target;
  readonly conditions: readonly Condition[];
  /** The layer it is in, outermost first; empty when it is in none. */
  readonly layers: readonly string[];
}

export interface CompiledDefinition {
  readonly kind: 'definition';
  readonly name: string;
  /** What it defines: a family, a keyframes name, a page selector. */
  readonly subject: string;
  readonly key: string;
  readonly conditions: readonly Condition[];
  readonly layers: readonly string[];
  readonly rule: Rule;
}

export interface CompiledLayerStatement {
  readonly kind: 'layer-statement';
  readonly names: readonly (readonly string[])[];
  readonly conditions: readonly Condition[];
}

export type CompiledItem = CompiledRule | CompiledImport | CompiledDefinition | CompiledLayerStatement;

export interface CompiledSheet {
  readonly id: number;
  readonly text: string;
  readonly items: readonly CompiledItem[];
}
