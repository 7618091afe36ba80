import { Fragment, type ReactNode } from 'react';
import type { PageBandsReply } from '@syndeton/contract';
import { tokensOfHtml } from './tokensOfHtml.ts';
import type { Piece, SourceLine } from './sourceLines.ts';
import { ruleKey } from './BandList.tsx';

interface Props {
  readonly lines: readonly SourceLine[];
  readonly bands: PageBandsReply['bands'];
  readonly chosen: string | undefined;
  readonly onUnfold: (from: number) => void;
  readonly onChoose: (key: string) => void;
}

/** The page's own text, lit where it carries styling. Read only. */
export function SourceText({ lines, bands, chosen, onUnfold, onChoose }: Props) {
  const tied = new Set<string>();
  return (
    <div
      className="font-code text-code whitespace-pre overflow-hidden min-w-0"
      role="group"
      aria-label="The page’s own text"
    >
      {lines.map((line) => {
        const inside = line.block === undefined ? '' : '-ml-2 flex-1 bg-src-embed-tint pl-2';
        if (line.kind === 'fold')
          return (
            <div key={`f${line.from}`} className={lineLook}>
              <span className={numberLook} />
              <button
                type="button"
                className={`min-w-0 text-left font-ui text-note/5 text-ink-3 hover:text-ink hover:underline ${inside}`}
                onClick={() => onUnfold(line.from)}
              >
                {foldWords(line)}
              </button>
            </div>
          );
        const current = line.pieces.some(
          (p) => p.band !== undefined && p.rule !== undefined && ruleKey(p.band, p.rule) === chosen,
        );
        const ties = tiesOf(line, bands, tied);
        return (
          <div
            key={line.number}
            className={lineLook}
            id={`line-${line.number}`}
            data-current={(current && line.block !== undefined) || undefined}
            {...(ties === '' ? {} : { 'data-tie-to': ties })}
          >
            <span className={numberLook}>{line.number}</span>
            <span
              className={`min-w-0 ${inside} ${current && line.block !== undefined ? 'inset-shadow-[3px_0_var(--src-embed)]' : ''}`}
            >
              {line.pieces.map((piece, i) => (
                <OnePiece
                  key={i}
                  piece={piece}
                  bands={bands}
                  inBlock={line.block !== undefined}
                  chosen={chosen}
                  onChoose={onChoose}
                />
              ))}
            </span>
          </div>
        );
      })}
    </div>
  );
}

function OnePiece({
  piece,
  bands,
  inBlock,
  chosen,
  onChoose,
}: {
  readonly piece: Piece;
  readonly bands: PageBandsReply['bands'];
  readonly inBlock: boolean;
  readonly chosen: string | undefined;
  readonly onChoose: (key: string) => void;
}) {
  const text = coloured(piece.text, inBlock);
  if (piece.band === undefined) return <>{text}</>;
  const key = piece.rule === undefined ? undefined : ruleKey(piece.band, piece.rule);
  if (inBlock)
    return key === undefined ? (
      <>{text}</>
    ) : (
      // oxlint-disable-next-line jsx-a11y/click-events-have-key-events, jsx-a11y/no-static-element-interactions -- the rows beside the text choose the same by keyboard
      <span className="cursor-pointer" onClick={() => onChoose(key)}>
        {text}
      </span>
    );
  return (
    <span
      className={`-mx-0.75 rounded-[2px] px-0.75 py-px ${litLook[bands[piece.band]!.kind]} ${key !== undefined && key === chosen ? 'outline-[1.5px] outline-ink' : ''}`}
    >
      {text}
    </span>
  );
}

const lineLook = 'flex h-5 leading-5';
const numberLook = 'w-9.5 flex-none pr-3 text-right text-note/[inherit] text-ink-3 select-none';

/** What stands in a tag, in the tint of its source. */
const litLook: Readonly<Record<string, string>> = {
  linked: 'bg-src-linked-tint inset-shadow-[2px_0_var(--src-linked)]',
  imported: 'bg-src-linked-tint inset-shadow-[2px_0_var(--src-linked)]',
  presentational: 'bg-src-pres-tint inset-shadow-[0_-1.5px_var(--src-pres)]',
  attribute: 'bg-src-style-tint inset-shadow-[2px_0_var(--src-style)]',
};

const tokenLook: Readonly<Record<string, string>> = {
  tag: 'text-ink-3',
  name: 'text-ink-3',
  note: 'text-ink-3',
  sel: 'font-bold text-ink',
  prop: 'text-ink',
  val: 'text-value',
  str: 'text-string',
};

/** Told apart by weight and tone; two hues only. */
function coloured(text: string, css: boolean): ReactNode {
  return tokensOfHtml(text, css).map((token, i) =>
    token.kind === '' ? (
      <Fragment key={i}>{token.text}</Fragment>
    ) : (
      <span key={i} className={tokenLook[token.kind]}>
        {token.text}
      </span>
    ),
  );
}

/** The names of strands that end at this line: each name once. */
function tiesOf(
  line: Extract<SourceLine, { kind: 'line' }>,
  bands: PageBandsReply['bands'],
  tied: Set<string>,
): string {
  const names: string[] = [];
  const add = (name: string): void => {
    if (tied.has(name)) return;
    tied.add(name);
    names.push(name);
  };
  if (line.block !== undefined && line.number >= bands[line.block]!.line) add(`b${line.block}`);
  for (const { band, rule } of line.pieces) {
    if (band === undefined) continue;
    // several bands may come through one tag: imports
    const tag = bands[band]!.span;
    bands.forEach((one, i) => tag && one.span?.start === tag.start && add(`b${i}`));
    add(`b${band}`);
    if (rule !== undefined) add(`r${ruleKey(band, rule)}`);
  }
  return names.join(' ');
}

function foldWords({ from, to, block, rules }: Extract<SourceLine, { kind: 'fold' }>): string {
  const lines = from === to ? `line ${from}` : `lines ${from}–${to}`;
  if (block === undefined) return `${lines}: no styling`;
  return rules > 0 ? `${lines}: ${rules} more ${rules === 1 ? 'rule' : 'rules'}` : lines;
}
