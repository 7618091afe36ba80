// What the tests use of two data packages that bring no types.
declare module '@webref/css' {
  interface Property {
    readonly name: string;
    readonly longhands?: readonly string[];
    readonly resetLonghands?: readonly string[];
  }
  const css: { listAll(): Promise<{ properties: readonly Property[] }> };
  export default css;
}

declare module '@rmenke/css-tokenizer-tests' {
  interface Token {
    readonly type: string;
    readonly raw: string;
    readonly startIndex: number;
    readonly endIndex: number;
    readonly structured: unknown;
  }
  export const testCorpus: Readonly<Record<string, { readonly css: string; readonly tokens: readonly Token[] }>>;
}
