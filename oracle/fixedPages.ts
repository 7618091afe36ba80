interface FixedPage {
  readonly html: string;
  readonly forced: { readonly index: number; readonly states: readonly string[] };
}

const hovers =
  '<style>:hover { color: red } *:active { top: 0 } p:hover { left: 0 } :hover::before { content: "x" } :is(:hover) { right: 0 }</style><p>x<a href=x>y</a>';

/** What a generator seldom makes: a bare `:hover` held on, on a paragraph and on a link, in quirks mode and out of it. */
export const fixedPages: Readonly<Record<string, FixedPage>> = Object.fromEntries(
  ['', '<!DOCTYPE html>'].flatMap((doctype) =>
    // html, head, style, body, p, a
    [4, 5].map((index): [string, FixedPage] => [
      `hover-${doctype === '' ? 'quirks' : 'standards'}-${index}.html`,
      { html: doctype + hovers, forced: { index, states: ['hover', 'active'] } },
    ]),
  ),
);
