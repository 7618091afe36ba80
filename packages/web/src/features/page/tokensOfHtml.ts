export interface CodeToken {
  readonly kind: '' | 'tag' | 'name' | 'str' | 'note' | 'sel' | 'prop' | 'val';
  readonly text: string;
}

const markup = /(<!--[^]*?(?:-->|$))|(<\/?[a-z][\w:-]*)|(\s[a-z][\w:-]*)(?==)|("[^"]*"|'[^']*')|(\/?>)/gi;
const rules = /(\/\*[^]*?(?:\*\/|$))|("[^"]*"|'[^']*')|([^{};]+)(?=\{)|([\w-]+\s*)(?=:)|(:\s*)([^;{}]+)/g;

/** One line, or part of one, told apart for the eye only: what is a tag, a name, a string, a selector, a value. */
export function tokensOfHtml(text: string, css: boolean): readonly CodeToken[] {
  const out: CodeToken[] = [];
  let at = 0;
  const plain = (to: number): void => {
    if (to > at) out.push({ kind: '', text: text.slice(at, to) });
  };
  const isMarkup = !css || /^\s*<\/?style/i.test(text);
  for (const found of text.matchAll(isMarkup ? markup : rules)) {
    plain(found.index);
    at = found.index + found[0].length;
    if (isMarkup) {
      const [, comment, tag, name, string] = found;
      out.push({ kind: comment ? 'note' : tag ? 'tag' : name ? 'name' : string ? 'str' : 'tag', text: found[0] });
      continue;
    }
    const [, comment, string, selector, property, colon, value] = found;
    if (value !== undefined) out.push({ kind: '', text: colon! }, { kind: 'val', text: value });
    else
      out.push({ kind: comment ? 'note' : string ? 'str' : selector ? 'sel' : property ? 'prop' : '', text: found[0] });
  }
  plain(text.length);
  return out;
}
