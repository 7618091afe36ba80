/** Selectors 4, "Calculating a selector's specificity": (A, B, C), unbounded. */
export type Specificity = readonly [ids: number, classes: number, types: number];

export type Combinator = ' ' | '>' | '+' | '~';

export type AttributeTest = '' | '=' | '~=' | '|=' | '^=' | '$=' | '*=';

/** `undefined` namespace: the default one if declared, else any; '' none; '*' any. */
export type SimpleSelector =
  | { readonly kind: 'type'; readonly name: string; readonly lower: string; readonly namespace: string | undefined }
  | { readonly kind: 'universal'; readonly namespace: string | undefined }
  | { readonly kind: 'id'; readonly name: string }
  | { readonly kind: 'class'; readonly name: string }
  | {
      readonly kind: 'attribute';
      readonly name: string;
      readonly test: AttributeTest;
      readonly value: string;
      readonly ignoreCase: boolean;
      readonly namespace: string | undefined;
    }
  | { readonly kind: 'matches'; readonly name: 'is' | 'where' | 'not' | 'nesting'; readonly list: SelectorList }
  | { readonly kind: 'has'; readonly list: readonly RelativeSelector[] }
  | {
      readonly kind: 'nth';
      readonly last: boolean;
      readonly ofType: boolean;
      readonly step: number;
      readonly offset: number;
      readonly of: SelectorList | undefined;
    }
  | { readonly kind: 'pseudo-class'; readonly name: string; readonly argument: string | undefined };

/** The simple selectors between two combinators; `pseudoElement` as written after it, in lower case with `::`. */
export interface CompoundSelector {
  readonly simples: readonly SimpleSelector[];
  readonly pseudoElement: string | undefined;
  /** `:hover` or `:active` and nothing else: on pages in quirks mode it means links only. */
  readonly isBareHover?: boolean;
}

/** Compounds from left to right; `combinators[i]` stands between compound i and i + 1. */
export interface ComplexSelector {
  readonly compounds: readonly CompoundSelector[];
  readonly combinators: readonly Combinator[];
  readonly specificity: Specificity;
  readonly text: string;
}

export type SelectorList = readonly ComplexSelector[];

/** An argument of `:has()`: the leading combinator and what it leads to. */
export interface RelativeSelector {
  readonly combinator: Combinator;
  readonly selector: ComplexSelector;
}

export const compareSpecificity = (a: Specificity, b: Specificity): number => a[0] - b[0] || a[1] - b[1] || a[2] - b[2];

export const printSpecificity = (s: Specificity): string => `(${s[0]},${s[1]},${s[2]})`;
