import type { Ask } from './asks.ts';

/** Which elements a script means, as far as the script alone tells. */
export type Meant =
  | { readonly kind: 'any' }
  /** The element whose attribute holds the script. */
  | { readonly kind: 'own' }
  /** A name: the ID asked for, or a variable no script declares, which may be an element's ID. */
  | { readonly kind: 'id'; readonly id: string }
  | { readonly kind: 'tag'; readonly tag: string };

/** One place of a script that sets or reads what gathering changes, by its line in the script, from 1. */
export interface Touch {
  readonly line: number;
  readonly meant: Meant;
  readonly what:
    /** Replaces or compares the whole of `class`, or asks whether there is one. */
    | { readonly kind: 'class' }
    /** Asks something of the whole of `class`. */
    | { readonly kind: 'class-asked'; readonly ask: Ask }
    /** Asks something of markup, as it is written. */
    | { readonly kind: 'markup-asked'; readonly ask: Ask }
    /** A property by its CSS name, or anything, of an element's own style. */
    | { readonly kind: 'style'; readonly property: string | undefined }
    /** An attribute by its name, in lower case, or any but `class` and `style`. */
    | { readonly kind: 'attribute'; readonly name: string | undefined }
    /** Sheets, blocks and links of the page: their number, order and contents. */
    | { readonly kind: 'sheets' }
    /** Goes from an element to its children or siblings by their place. */
    | { readonly kind: 'places' };
}

/** What one script says, without running it. */
export interface ScriptFacts {
  readonly touches: readonly Touch[];
  /** It makes elements, or gives them classes, IDs or attributes. */
  readonly makes: boolean;
  /** Every word in its strings and every name it uses. */
  readonly words: ReadonlySet<string>;
  /** References of modules it loads. */
  readonly modules: readonly string[];
  /** References to scripts in its strings, which it may load. */
  readonly files: readonly string[];
  /** Names of sheets in its strings, or how such a name ends: `css/dark.css`, `-dark.css`. */
  readonly sheets: readonly string[];
  /** It is data or a template in a string, which scripts may use. */
  readonly isData: boolean;
  /** It cannot be read as JavaScript: it may do anything. */
  readonly unreadable: boolean;
}

export const nothing: ScriptFacts = {
  touches: [],
  makes: false,
  words: new Set(),
  modules: [],
  files: [],
  sheets: [],
  isData: false,
  unreadable: false,
};
