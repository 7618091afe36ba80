/** `shared`: pages that only link sheets. `embedded`: 60 rules and 20 style attributes in every page, drifting, some of a page's own. */
export type SiteKind = 'shared' | 'embedded';

/** A generated site of templates. Same seed, same site. */
export function makeFiles(pages: number, kind: SiteKind, seed = 4870): Map<string, Uint8Array> {
  const random = makeRandom(seed);
  const encoder = new TextEncoder();
  const files = new Map<string, Uint8Array>();
  const put = (path: string, text: string): void => void files.set(path, encoder.encode(text));
  put('css/base.css', rules('b', 40, random));
  put('css/site.css', rules('s', 50, random));
  for (let i = 0; i < pages; i++) put(`part${i % 20}/page${i}.html`, page(i, kind, random));
  return files;
}

function page(i: number, kind: SiteKind, random: () => number): string {
  const drift = i % 10 === 0 ? '#b0432b' : '#c9962b';
  const block = Array.from(
    { length: 56 },
    (_, n) =>
      `  .k${n} { padding: ${n % 9}px ${n % 5}px; color: #${(n * 1111).toString(16).padStart(6, '0').slice(0, 6)} }`,
  );
  block.push(
    `  .notice { border-left: 4px solid ${drift} }`,
    `  #own${i} { margin: ${i % 7}px }`,
    '  nav a:hover { color: #083f4a }',
    '  @media print { nav { display: none } }',
  );
  const items = Array.from({ length: 140 }, (_, n) => {
    const one = Math.floor(random() * 60);
    const attribute =
      kind === 'embedded' && n % 7 === 0 ? ` style="margin-top: ${n % 5}px; color: #${String(n % 3).repeat(3)}"` : '';
    return `<div class="k${one} b${n % 40}"><p class="s${n % 50}"${attribute}>Line ${n} <a href="#">link</a> <em>word</em></p></div>`;
  });
  return `<!DOCTYPE html>
<html lang="en"><head><meta charset="utf-8"><title>Page ${i}</title>
<link rel="stylesheet" href="../css/base.css">
<link rel="stylesheet" href="../css/site.css">
${kind === 'embedded' ? `<style>\n${block.join('\n')}\n</style>\n` : ''}</head><body><nav><ul><li><a href="#">one</a><li><a href="#">two</a></ul></nav><div id="own${i}" class="notice">Notice</div>
${items.join('\n')}
</body></html>
`;
}

const rules = (prefix: string, count: number, random: () => number): string =>
  Array.from(
    { length: count },
    (_, n) => `.${prefix}${n} { margin: ${Math.floor(random() * 20)}px; font-size: ${10 + (n % 8)}px }`,
  ).join('\n');

function makeRandom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}
