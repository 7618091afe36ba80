import { placeOf, textFindings, type Site } from '@syndeton/core';
import type { DraftReply } from '@syndeton/contract';

type Mistake = DraftReply['mistakes'][number];

/**
 * What is wrong with sheets as a draft leaves them, and came with it. What was wrong before, under another name of the sheet or in
 * the blocks and style attributes it was gathered from, is told of in Survey.
 */
export function mistakesIn(before: Site, after: Site, changes: DraftReply['changes']): Mistake[] {
  const paths = (kind: string): string[] => changes.filter((one) => one.kind === kind).map(({ path }) => path);
  const was = new Set(
    paths('sheet').flatMap((path) => wrongIn(before.files.get(path)?.text ?? '').map(({ key }) => key)),
  );
  const fresh = paths('sheet').flatMap((path) => {
    const text = after.files.get(path)?.text ?? '';
    return wrongIn(text).flatMap(({ key, start, sentence }) =>
      was.has(key) ? [] : [{ key, path, sentence, line: placeOf(text, start).line }],
    );
  });
  if (fresh.length === 0) return [];
  const inPages = new Set(paths('page').flatMap((path) => wrongInPage(before.files.get(path)?.text ?? '')));
  return fresh.filter(({ key }) => !inPages.has(key)).map(({ path, line, sentence }) => ({ path, line, sentence }));
}

interface Wrong {
  /** The sentence with the word it is about: equal for the same mistake elsewhere. */
  readonly key: string;
  readonly start: number;
  readonly sentence: string;
}

const wrongIn = (text: string): readonly Wrong[] =>
  textFindings(text)
    .filter(({ severity }) => severity !== 'note')
    .map(({ sentence, span }) => ({
      key: `${sentence} ${text.slice(span.start, span.end)}`,
      start: span.start,
      sentence,
    }));

/** Blocks and style attributes, as far as the text alone tells: a mistake found too often here is only not told of twice. */
function wrongInPage(text: string): readonly string[] {
  const texts = [
    ...[...text.matchAll(/<style\b[^>]*>([^]*?)<\/style/gi)].map((found) => found[1]!),
    ...[...text.matchAll(/\sstyle\s*=\s*(?:"([^"]*)"|'([^']*)')/gi)].map(
      (found) => `x { ${found[1] ?? found[2] ?? ''} }`,
    ),
  ];
  return texts.flatMap((one) => wrongIn(one).map(({ key }) => key));
}
