import { byPath, contrastRatio } from '@syndeton/core';
import type { EffectReply } from '@syndeton/contract';
import { effectLook } from '../../ui/looks.ts';
import { Button } from '../../ui/Button.tsx';
import { Act } from '../../ui/Act.tsx';
import { Coded } from '../../ui/Coded.tsx';
import { count, pageName } from '../../ui/format.ts';
import { Swatch, coloursIn } from '../../ui/Swatch.tsx';
import { Problem } from '../../ui/Said.tsx';
import type { TextLook } from './liveDocument.ts';

interface Props {
  /** What the whole site says; undefined while it is asked. */
  readonly effect: EffectReply | undefined;
  readonly problem: string | undefined;
  /** A first answer, before the whole site was asked. */
  readonly first:
    | { readonly properties: readonly string[]; readonly elements: number; readonly pages: number }
    | undefined;
  readonly nothing: string;
  readonly looks: { readonly now: TextLook; readonly then: TextLook } | undefined;
  readonly busy: boolean;
  readonly onAdd: () => void;
  readonly onPutBack: () => void;
  readonly onPage: (page: string) => void;
}

/** What the edit in hand does, before it is put anywhere. */
export function EffectView(props: Props) {
  const { effect, problem, nothing, looks, busy, onAdd, onPutBack, onPage } = props;
  return (
    <section className={effectLook} aria-label="What the edit does" aria-live="polite">
      <h2>{headingOf(props)}</h2>
      {effect?.changes.length === 0 && effect.differing.length === 0 && (
        <p className="mt-1 text-table">
          <Coded text={nothing} />
        </p>
      )}
      {looks && differs(looks) && <Samples {...looks} />}
      {problem !== undefined && <Problem className="mt-2 text-table">{problem}</Problem>}
      <div className="mt-2.5 mb-3.5 flex items-center gap-4.5">
        <Button next onClick={onAdd} disabled={busy}>
          Put it into the draft
        </Button>
        <Act onClick={onPutBack}>Put it back</Act>
      </div>
      {effect && <Changes effect={effect} onPage={onPage} />}
    </section>
  );
}

function headingOf({ effect, first, problem }: Props): string {
  if (problem !== undefined) return 'This cannot be put into the draft';
  if (!effect)
    return first && first.elements > 0
      ? `With this edit, ${count(first.elements, 'element')} on ${count(first.pages, 'page')} ${verb(first.elements)} ${first.properties.join(', ')}`
      : 'Asking every page …';
  const { differing, unsure, elements, changes } = effect;
  if (differing.length === 0 && unsure.length === 0) return 'With this edit, no page looks different';
  if (differing.length === 0) return `Whether ${count(unsure.length, 'page')} look different cannot be told`;
  if (elements === 0) return `With this edit, ${count(differing.length, 'page')} may look different`;
  const names = [...new Set(changes.map(({ property }) => property))];
  const what = names.length === 1 ? names[0]! : 'their look';
  return `With this edit, ${count(elements, 'element')} on ${count(differing.length, 'page')} ${verb(elements)} ${what}`;
}

const verb = (n: number): string => (n === 1 ? 'changes' : 'change');

function Changes({ effect, onPage }: { readonly effect: EffectReply; readonly onPage: (page: string) => void }) {
  const { changes, notes, doubts } = effect;
  return (
    <>
      <ul className="text-table/5 [&_.sw]:mx-px" aria-label="What changes">
        {changes.slice(0, 12).map((one) => (
          <li key={`${one.pseudoElement} ${one.property} ${one.before ?? ''} ${one.after ?? ''}`}>
            <p>
              <code>
                {one.property}
                {one.pseudoElement}
              </code>{' '}
              <Value value={one.before} /> → <Value value={one.after} />{' '}
              <span className="text-note text-ink-3">
                {count(one.elements, 'element')}, {count(one.pages.length, 'page')}
              </span>
            </p>
            {one.before === one.after && (
              <p className="text-note text-ink-3">
                <Coded text={one.reason} />
              </p>
            )}
          </li>
        ))}
        {changes.length > 12 && <li className="text-note text-ink-3">and {changes.length - 12} more changes</li>}
      </ul>
      {[...notes, ...doubts].slice(0, 6).map((sentence) => (
        <p key={sentence} className="text-note text-ink-3">
          {sentence}
        </p>
      ))}
      {changes.length > 0 && <PagesByFolder pages={pagesIn(changes)} onPage={onPage} />}
    </>
  );
}

function Value({ value }: { readonly value: string | null }) {
  const [colour] = value === null ? [] : coloursIn(value);
  return (
    <span className="m">
      {colour !== undefined && <Swatch colour={colour} />} {value ?? 'not set'}
    </span>
  );
}

/** Elements on each page: those of the widest change there, since one element may change in several ways. */
function pagesIn(changes: EffectReply['changes']): readonly { readonly path: string; readonly elements: number }[] {
  const most = new Map<string, number>();
  for (const { pages } of changes)
    for (const { path, elements } of pages) most.set(path, Math.max(most.get(path) ?? 0, elements));
  return [...most].map(([path, elements]) => ({ path, elements })).sort(byPath);
}

export function PagesByFolder({
  pages,
  onPage,
}: {
  readonly pages: readonly { readonly path: string; readonly elements: number }[];
  readonly onPage: (page: string) => void;
}) {
  const folders = new Map<string, { path: string; elements: number }[]>();
  for (const page of pages) {
    const folder = page.path.includes('/') ? page.path.slice(0, page.path.lastIndexOf('/') + 1) : 'root';
    folders.set(folder, [...(folders.get(folder) ?? []), page]);
  }
  return (
    <div className="mt-2 font-code text-code/4.75">
      {[...folders].map(([folder, list]) => (
        <div key={folder} className="grid grid-cols-[86px_1fr]">
          <span className={`truncate text-ink-3 ${folder === 'root' ? 'font-ui' : ''}`}>{folder}</span>
          <span>
            {list.slice(0, 60).map(({ path, elements }) => (
              <span
                key={path}
                className="whitespace-nowrap mr-1.25 inline-block [&_button:hover]:underline [&_i]:font-ui [&_i]:text-note/4.5 [&_i]:not-italic [&_i]:font-normal [&_i]:text-ink-3"
              >
                <button type="button" onClick={() => onPage(path)}>
                  {pageName(path.slice(path.lastIndexOf('/') + 1))}
                </button>{' '}
                <i>{elements}</i>{' '}
              </span>
            ))}
            {list.length > 60 && <span className="text-note text-ink-3">and {list.length - 60} more</span>}
          </span>
        </div>
      ))}
    </div>
  );
}

const differs = ({ now, then }: { readonly now: TextLook; readonly then: TextLook }): boolean =>
  now.color !== then.color || now.ground !== then.ground;

/** The text of an element as it is and as it would be, with its contrast. */
function Samples({ now, then }: { readonly now: TextLook; readonly then: TextLook }) {
  return (
    <div className="mt-2 mb-2.5 grid grid-cols-[minmax(0,1fr)_24px_minmax(0,1fr)] items-center gap-2 [&_.sw]:mr-0.5 [&_.sw]:ml-0.75">
      <Sample name="now" look={now} />
      <span className="-mt-4.5 justify-self-center text-ink-3" aria-hidden="true">
        →
      </span>
      <Sample name="then" look={then} />
    </div>
  );
}

/** WCAG 2.2, "Contrast (Minimum)": 4.5 for text, 3 for large text. */
function Sample({ name, look }: { readonly name: string; readonly look: TextLook }) {
  const ratio = contrastRatio(look.color, look.ground);
  return (
    <div>
      <span
        className="block truncate px-3 py-1 font-[family-name:serif] text-[17px]/6.5 font-semibold"
        style={{ color: look.color, backgroundColor: look.ground }}
      >
        {look.text || 'Text'}
      </span>
      <span className="mt-1 block text-note text-ink-3">
        {name} <Swatch colour={look.color} />
        {ratio !== undefined && (
          <>
            {' '}
            {ratio.toFixed(1)} : 1
            {ratio < 3 ? ', too little for text' : ratio < 4.5 ? ', enough for large text only' : ''}
          </>
        )}
      </span>
    </div>
  );
}
