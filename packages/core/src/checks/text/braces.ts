import { tokensOf, tokenTypes as T, type Tokens } from '../../sheet/tokens.ts';
import { indentationAt, wholeLines } from '../../source/removal.ts';
import { lineEndOf } from '../../source/lineEnds.ts';
import { propertyKind } from '../../values/longhands.ts';
import { code } from '../words.ts';
import { severityOf } from '../finding.ts';
import type { TextFinding } from './textFinding.ts';

/** A block that was opened, by the index of its tokens. */
interface Block {
  readonly brace: number;
  /** The first token of what stands before the brace. */
  readonly head: number;
  readonly isAtRule: boolean;
  close: number | undefined;
  readonly inside: Block[];
}

/**
 * A brace that is missing or too many, at the place where it begins: a parser notices only at the end of the text, or at the next
 * rule. What people mean is told by where lines begin.
 */
export function braceFindings(text: string): readonly TextFinding[] {
  const tokens = tokensOf(text);
  const { top, stray } = blocksOf(tokens);
  return [...missing(text, tokens, top), ...tooMany(text, tokens, top, stray)];
}

function blocksOf(t: Tokens): { readonly top: readonly Block[]; readonly stray: readonly number[] } {
  const top: Block[] = [];
  const open: Block[] = [];
  const stray: number[] = [];
  let head: number | undefined;
  for (let i = 0; i < t.count; i++) {
    const type = t.type[i];
    if (type === T.WhiteSpace || type === T.Comment || type === T.CDO || type === T.CDC) continue;
    if (type === T.LeftCurlyBracket) {
      const from = headAfterDeclaration(t, head ?? i, i);
      const block: Block = {
        brace: i,
        head: from,
        isAtRule: t.type[from] === T.AtKeyword,
        close: undefined,
        inside: [],
      };
      (open.at(-1)?.inside ?? top).push(block);
      open.push(block);
      head = undefined;
    } else if (type === T.RightCurlyBracket) {
      const block = open.pop();
      if (block) block.close = i;
      else stray.push(i);
      head = undefined;
    } else if (type === T.Semicolon) head = undefined;
    else head ??= i;
  }
  return { top, stray };
}

/** `color: red` without its semicolon before a rule in the next line is no part of that rule's selector. */
function headAfterDeclaration(t: Tokens, head: number, brace: number): number {
  const name = t.text.slice(t.start[head], t.end[head]);
  if (t.type[head] !== T.Ident || propertyKind(name.toLowerCase()) === 'unknown') return head;
  if (t.type[nextSolid(t, head + 1)] !== T.Colon) return head;
  for (let i = head + 1; i < brace; i++)
    if (
      t.type[i] === T.WhiteSpace &&
      /[\r\n]/.test(t.text.slice(t.start[i], t.end[i])) &&
      t.type[lastSolid(t, i)] !== T.Comma
    )
      return nextSolid(t, i);
  return head;
}

function nextSolid(t: Tokens, from: number): number {
  let i = from;
  while (t.type[i] === T.WhiteSpace || t.type[i] === T.Comment) i++;
  return i;
}

function missing(text: string, t: Tokens, top: readonly Block[]): readonly TextFinding[] {
  const unclosed: Block[] = [];
  for (let at = top.at(-1); at?.close === undefined && at; at = at.inside.at(-1)) unclosed.push(at);
  const first = unclosed[0];
  if (!first) return [];
  const lacking = swallowing([first], text, t) ?? { block: unclosed.at(-1)!, before: undefined };
  const { block, before } = lacking;
  const name = headText(text, t, block);
  const last = lastSolid(t, before === undefined ? t.count : before.head);
  const place = t.end[last]!;
  const indent = indentationAt(text, t.start[block.head]!);
  const oneLine = !/[\r\n]/.test(text.slice(t.start[block.head], place));
  const brace = oneLine ? ' }' : `${lineEndOf(text)}${indent}}`;
  const rest = before === undefined ? '' : `, so ${code(headText(text, t, before))} counts as a part of it`;
  const semicolon = /[{};]/.test(text[place - 1]!) ? '' : ';';
  return [
    {
      kind: 'brace',
      severity: severityOf.brace,
      span: { start: t.start[block.head]!, end: t.end[block.brace]! },
      sentence: `The closing brace of ${code(name)} is missing${rest}.`,
      mend: { label: 'Close it', edits: [{ span: { start: place, end: place }, text: semicolon + brace }] },
    },
  ];
}

/** The first block with a rule inside that begins as far left as the block itself does: that one was meant to stand after it. */
function swallowing(blocks: readonly Block[], text: string, t: Tokens): { block: Block; before: Block } | undefined {
  for (const block of blocks) {
    const indent = ownIndent(text, t, block);
    const before = block.inside.find((inner) => {
      const own = ownIndent(text, t, inner);
      return (
        own !== undefined &&
        indent !== undefined &&
        own <= indent &&
        (!block.isAtRule || inner.isAtRule || own < indent || block.close === undefined)
      );
    });
    const inner = swallowing(block.inside, text, t);
    if (before && (!inner || block.inside.indexOf(before) <= block.inside.findIndex((one) => one === inner.block)))
      return { block, before };
    if (inner) return inner;
    if (before) return { block, before };
  }
  return undefined;
}

function tooMany(text: string, t: Tokens, top: readonly Block[], stray: readonly number[]): readonly TextFinding[] {
  return stray.map((at) => {
    const early = closedTooEarly(text, t, top, at);
    const span = { start: t.start[early ?? at]!, end: t.end[early ?? at]! };
    const sentence =
      early === undefined
        ? 'This brace closes nothing; the rule after it is lost.'
        : 'This brace closes the rule too early; what follows it is lost.';
    return {
      kind: 'brace',
      severity: severityOf.brace,
      span,
      sentence,
      mend: { label: 'Remove it', edits: [{ span: wholeLines(text, span), text: '' }] },
    };
  });
}

/** The brace before a stray one, where declarations stand between them; or one that is indented unlike the block it closes. */
function closedTooEarly(text: string, t: Tokens, top: readonly Block[], stray: number): number | undefined {
  const before = top.filter(({ close }) => close !== undefined && close < stray).at(-1);
  if (!before) return undefined;
  const between = [];
  for (let i = before.close! + 1; i < stray; i++)
    if (t.type[i] !== T.WhiteSpace && t.type[i] !== T.Comment) between.push(t.type[i]);
  if (between[0] === T.Ident && between[1] === T.Colon && !between.includes(T.LeftCurlyBracket)) return before.close;
  if (!before.isAtRule) return undefined;
  const own = ownIndent(text, t, before);
  const close = indentationAt(text, t.start[before.close!]!);
  return own !== undefined && close.length > own ? before.close : undefined;
}

/** How far in the line begins that the block begins; undefined where something stands before it. */
function ownIndent(text: string, t: Tokens, { head }: Block): number | undefined {
  const start = t.start[head]!;
  const indent = indentationAt(text, start);
  const before = text[start - indent.length - 1];
  return before === undefined || before === '\n' || before === '\r' ? indent.length : undefined;
}

function headText(text: string, t: Tokens, { head, brace }: Block): string {
  const written = text.slice(t.start[head], t.start[brace]).replace(/\s+/g, ' ').trim();
  return written === '' ? '{' : written.length > 60 ? `${written.slice(0, 57)}…` : written;
}

function lastSolid(t: Tokens, before: number): number {
  let i = before - 1;
  while (i > 0 && (t.type[i] === T.WhiteSpace || t.type[i] === T.Comment)) i--;
  return i;
}
