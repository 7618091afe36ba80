import type { ElementTableReply, TableEntryReply, TableRowReply } from '@syndeton/contract';
import { fileNameOf } from '@syndeton/core';
import { Act } from '../../ui/Act.tsx';
import { Mark, type MarkKind } from '../../ui/Mark.tsx';
import { coloursIn, Swatch } from '../../ui/Swatch.tsx';
import { Explain } from './Explain.tsx';
import { InCode } from './InCode.tsx';

type Source = ElementTableReply['sources'][number];

export const markOf = (kind: Source['kind']): MarkKind => (kind === 'browser' ? 'default' : kind);

interface Props {
  readonly sources: readonly Source[];
  readonly rows: readonly TableRowReply[];
  readonly peeled: ReadonlySet<string>;
  /** As this browser computes them. */
  readonly computed: Readonly<Record<string, string>>;
  readonly onPeel: (id: string) => void;
  readonly onElement: (path: string) => void;
  readonly onFile: (file: string, line: number) => void;
}

const ordinal = (n: number): string => {
  const last = n % 100 > 10 && n % 100 < 14 ? 0 : n % 10;
  return `${n}${last === 1 ? 'st' : last === 2 ? 'nd' : last === 3 ? 'rd' : 'th'}`;
};

const headLook = 'border-b border-ink-3 pr-2 pb-2 text-left align-bottom font-normal text-ink-2';

/** Of what loses, and of what wins. */
const sourceLook: Readonly<Record<MarkKind, readonly [outline: string, solid: string]>> = {
  default: ['text-src-default', 'bg-src-default'],
  presentational: ['text-src-pres', 'bg-src-pres'],
  linked: ['text-src-linked', 'bg-src-linked'],
  imported: ['text-src-linked', 'bg-src-linked'],
  embedded: ['text-src-embed', 'bg-src-embed'],
  attribute: ['text-src-style', 'bg-src-style'],
};

/** Properties down, sources across from weakest to strongest; the winner solid, the others hollow with the reason. */
export function DecisionTable({ sources, rows, peeled, computed, onPeel, onElement, onFile }: Props) {
  return (
    <table className="w-full min-w-160 table-fixed border-collapse text-table/4.25">
      <thead>
        <tr>
          <th scope="col" className={`${headLook} w-32`}>
            Property
          </th>
          {sources.map((source) => (
            <th key={source.id} scope="col" className={headLook}>
              <div
                className={`grid min-w-0 gap-0.5 rounded-sm px-2 py-1.5 ${source.peeled ? 'rounded-tr-[14px] bg-panel text-ink-3 inset-ring inset-ring-line-2' : 'bg-ground'}`}
              >
                <span className="flex items-center gap-1.25 overflow-hidden font-code text-code font-semibold whitespace-nowrap text-ink">
                  <Mark kind={markOf(source.kind)} hidden /> {nameOf(source)}
                </span>
                <span className="truncate text-note text-ink-3">{placeWords(source)}</span>
                {source.kind === 'browser' ? (
                  <span className="truncate text-note text-ink-3">always there</span>
                ) : (
                  <button
                    type="button"
                    className="font-[640] flex items-center gap-1.5 text-ink text-left [&_svg]:flex-none"
                    aria-pressed={source.peeled}
                    title={source.peeled ? 'Put it back' : 'Switch it off in this view'}
                    onClick={() => onPeel(source.id)}
                  >
                    <Corner off={source.peeled} /> {source.peeled ? 'Put back' : 'Peel'}
                  </button>
                )}
              </div>
            </th>
          ))}
        </tr>
      </thead>
      {rows.map((row) => (
        <tbody className="border-b border-line" key={`${row.property} ${row.inheritedFrom?.path ?? ''}`}>
          <tr>
            <th scope="row" className="m pt-2.25 pr-2 pl-1 text-left align-top font-semibold wrap-anywhere">
              {row.property}
            </th>
            {sources.map((source) => {
              const entries = row.entries.filter(
                (entry) => entry.source === source.id || (entry.source === 'ancestor' && source.kind === 'browser'),
              );
              return (
                <td key={source.id} className="pt-1.75 pr-2 align-top">
                  {entries.length === 0 ? (
                    <span className="text-note text-ink-3">–</span>
                  ) : (
                    entries.map((entry) => (
                      <Cell
                        key={`${entry.id} ${entry.selector ?? ''}`}
                        entry={entry}
                        kind={markOf(source.kind)}
                        winner={row.entries.find((one) => one.state === 'wins')}
                        peeled={peeled.has(entry.id)}
                        onPeel={() => onPeel(entry.id)}
                        onFile={onFile}
                      />
                    ))
                  )}
                </td>
              );
            })}
          </tr>
          <tr className="text-ink-2 [&_td]:pt-px [&_td]:pb-1.75 [&_td]:align-top [&_td]:wrap-anywhere">
            <td />
            <td colSpan={sources.length}>
              <Explain
                className="font-semibold text-ink"
                kind={row.sentence.kind}
                words={row.sentence.lead.replaceAll('`', '')}
                winner={saidBy(row.entries.find((one) => one.state === 'wins'))}
                loser={saidBy(row.entries.find((one) => one.state === 'loses'))}
              />{' '}
              <InCode text={row.sentence.rest} />
              {row.inheritedFrom && (
                <>
                  {' '}
                  <Act onClick={() => onElement(row.inheritedFrom!.path)}>See {row.inheritedFrom.name}</Act>
                </>
              )}
              <Here row={row} computed={computed} />
            </td>
          </tr>
        </tbody>
      ))}
    </table>
  );
}

function Cell({
  entry,
  kind,
  winner,
  peeled,
  onPeel,
  onFile,
}: {
  readonly entry: TableEntryReply;
  readonly kind: MarkKind;
  readonly winner: TableEntryReply | undefined;
  readonly peeled: boolean;
  readonly onPeel: () => void;
  readonly onFile: (file: string, line: number) => void;
}) {
  const text = `${entry.declared === '' ? '' : `${entry.declared}: `}${entry.value}`;
  const colour = coloursIn(entry.value)[0];
  const where = entry.file === '' ? 'the browser’s own sheet' : `${entry.file}, line ${entry.line}`;
  const state = peeled ? 'peeled' : entry.state;
  const [outline, solid] = sourceLook[kind];
  return (
    <div className="group mb-0.75 min-w-0">
      <button
        type="button"
        className={`inline-flex max-w-full items-center gap-1.25 rounded-sm px-1.5 font-code text-code/4.75 [&_span:not(.sw)]:truncate ${state === 'wins' ? `font-semibold text-on-src ${solid}` : state === 'loses' ? `inset-ring-[1.2px] inset-ring-current ${outline}` : 'text-ink-3 inset-ring inset-ring-line-2'} ${state === 'peeled' ? 'hatched' : ''}`}
        title={`${text}${entry.important ? ' !important' : ''}\n${entry.selector ?? ''} ${entry.specificity ?? ''}\n${where}`}
        disabled={entry.file === ''}
        onClick={() => onFile(entry.file, entry.line)}
      >
        {colour !== undefined && <Swatch colour={colour} />}
        <span>{text}</span>
        {entry.important && <b>!</b>}
      </button>
      <span className="relative flex items-center gap-1 text-note/3.75 text-ink-3">
        {entry.reason && (
          <Explain
            className="truncate"
            kind={entry.reason.kind}
            words={entry.reason.words}
            winner={saidBy(winner)}
            loser={saidBy(entry)}
          />
        )}
        {entry.file !== '' && (
          <button
            type="button"
            className="absolute right-0 bg-panel p-px text-ink-3 opacity-0 group-hover:opacity-100 focus-visible:opacity-100 aria-pressed:opacity-100"
            aria-pressed={peeled}
            onClick={onPeel}
            aria-label={`${peeled ? 'Put back' : 'Peel'} ${text}`}
          >
            <Corner off={peeled} />
          </button>
        )}
      </span>
    </div>
  );
}

/** What this browser makes of the value, where it is not said so already. */
function Here({ row, computed }: { readonly row: TableRowReply; readonly computed: Readonly<Record<string, string>> }) {
  const value = computed[row.property] ?? (row.longhands.length === 1 ? computed[row.longhands[0]!] : undefined);
  if (value === undefined || value === '' || /^rgb/.test(value) || plain(row.value).includes(plain(value))) return null;
  return (
    <span className="text-ink-3">
      {' '}
      Computed here: <code>{value.length > 60 ? `${value.slice(0, 60)}…` : value}</code>
    </span>
  );
}

const plain = (text: string): string => text.replace(/\b0px\b/g, '0').replace(/\s/g, '');

const saidBy = (entry: TableEntryReply | undefined): { where: string; text: string } | undefined =>
  entry && {
    text: `${entry.rule === null ? '' : `${entry.selector ?? ''} { `}${entry.declared === '' ? '' : `${entry.declared}: `}${entry.value}${entry.important ? ' !important' : ''}${entry.rule === null ? '' : ' }'}`,
    where:
      entry.file === ''
        ? 'in the browser’s own sheet'
        : `in ${entry.file}, line ${entry.line}${entry.specificity === null ? '' : `, ${entry.specificity}`}`,
  };

export function nameOf({ kind, path }: Source): string {
  switch (kind) {
    case 'browser':
      return 'browser';
    case 'presentational':
      return 'attributes';
    case 'embedded':
      return '<style>';
    case 'attribute':
      return 'style="…"';
    default:
      return fileNameOf(path);
  }
}

function placeWords({ kind, place, line, media }: Source): string {
  switch (kind) {
    case 'browser':
      return 'default';
    case 'presentational':
      return 'presentational';
    case 'attribute':
      return `on it, line ${line}`;
    case 'embedded':
      return `block, line ${line}`;
    default:
      return `${kind}, ${ordinal(place)}${media === '' ? '' : `, ${media}`}`;
  }
}

/** A corner turned over, or lying flat. */
const Corner = ({ off }: { readonly off: boolean }) => (
  <svg
    width="12"
    height="12"
    viewBox="0 0 12 12"
    aria-hidden="true"
    fill="none"
    stroke="currentColor"
    strokeWidth="1.4"
  >
    {off ? <path d="M1 1h6l4 4v6H1zM7 1v4h4" /> : <path d="M1 1h10v6L7 11H1zM11 7H7v4" />}
  </svg>
);
