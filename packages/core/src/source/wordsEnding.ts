/** The words of a text that end so, each from where its letters begin, as far back as a file's name may be long. `ending` is global. */
export function wordsEnding(text: string, ending: RegExp, letter: RegExp): readonly string[] {
  const out: string[] = [];
  for (const { index, 0: end } of text.matchAll(ending)) {
    let start = index;
    while (start > 0 && index - start < longest && letter.test(text[start - 1]!)) start--;
    out.push(text.slice(start, index + end.length));
  }
  return out;
}

const longest = 400;
