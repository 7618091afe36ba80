import { textOf } from '../../source/span.ts';
import type { ReadBlock, ReadUnit } from '../../survey/pageReading.ts';
import type { LeftRule } from './leftRule.ts';
import { closingText, rebasedText } from './printRule.ts';

/** A rule's text as it may stand in the sheet: closed, its references counted from there. */
export function movableText(
  unit: ReadUnit,
  block: ReadBlock,
  pageText: string,
  sheetPath: string,
): string | { readonly reason: LeftRule['reason'] } {
  const own = textOf(pageText, unit.span);
  const closing = unit.closed ? '' : closingText(own);
  if (closing === undefined) return { reason: 'unclosed-string' };
  return rebasedText(own + closing, block.base, sheetPath) ?? { reason: 'reference-cannot-move' };
}
