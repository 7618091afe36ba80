import type { RuleScoreReply } from '@syndeton/contract';
import { someNames } from '../../ui/format.ts';

export type Beater = RuleScoreReply['beaters'][number];

/** Who beats what, in words: `#wrap h2` on timetable beats `color`. Code between backticks. */
export function beaterWords({ kind, selector, sheet, pages, elements, properties }: Beater): string {
  const what = properties.map((name) => `\`${name}\``).join(', ');
  if (kind === 'attribute')
    return elements === 1
      ? `A style attribute on ${someNames(pages, 2)} beats ${what}`
      : `${elements} style attributes on ${someNames(pages, 2)} beat ${what}`;
  const where = sheet === null ? `in a block of ${someNames(pages, 2)}` : `in ${sheet}`;
  return `\`${selector}\` ${where} beats ${what}`;
}

/** Why, in a word or two. */
export function beaterReason({ why, specificity }: Beater): string {
  switch (why) {
    case 'specificity':
      return specificity ?? '';
    case 'order':
      return 'it comes later';
    case 'importance':
      return 'it is important';
    case 'layer':
      return 'by its layer';
    case 'proximity':
      return 'its scope is nearer';
    default:
      return '';
  }
}
