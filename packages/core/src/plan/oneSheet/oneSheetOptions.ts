export interface OneSheetOptions {
  readonly sheet: string;
  /** Pages to take from. */
  readonly pages: readonly string[];
  /** Pages that link the sheet for another reason: no rule may reach them. */
  readonly alsoLinking?: readonly string[];
  /** Pages that only the very rules they hold may reach, and where selectors are as specific as before. */
  readonly strict?: ReadonlySet<string>;
  /** Pages that get no class. */
  readonly unmarkable?: ReadonlySet<string>;
  /** No `:where()`: a rule that would need it stays. */
  readonly oldBrowsers?: boolean;
  /** Whether a rule that these pages have and no other stays. */
  readonly stays?: (pages: readonly string[]) => boolean;
  /** As if pages that hold one version of a rule held another. */
  readonly instead?: { readonly family: string; readonly from: string; readonly version: string };
}
