import { useState } from 'react';
import type { EffectReply, OperationBody, OverrideReply } from '@syndeton/contract';
import { problemText } from '../../app/api.ts';
import { Act } from '../../ui/Act.tsx';
import { Field } from '../../ui/Field.tsx';
import { CopiesStrip } from '../../ui/CopiesStrip.tsx';
import { count } from '../../ui/format.ts';
import { StyleSample } from '../../ui/StyleSample.tsx';
import { useEffectQuery } from '../drafts/index.ts';
import { dropOf, shareOf } from './overrideOperations.ts';

interface Props {
  /** The draft that drops and shares are tried on. */
  readonly on: { readonly id: string; readonly base: number; readonly version: number };
  readonly one: OverrideReply;
  readonly limit: readonly string[] | undefined;
  readonly pages: readonly string[];
  readonly busy: boolean;
  readonly onAdd: (operations: readonly OperationBody[]) => void;
  readonly onPages: (pages: readonly string[]) => void;
  readonly onNote: (override: string, note: string) => void;
}

/** One override as it is now, dropped, and shared: how it looks, which pages change, who decides then. */
export function OverrideChoices({ on, one, limit, pages, busy, onAdd, onPages, onNote }: Props) {
  const [noting, setNoting] = useState<string | undefined>(undefined);
  const { beats, property, value, then } = one;
  const text = one.first.text || 'No sailing today.';
  const look = (said: string) => <StyleSample text={text} declarations={[{ property, value: said }]} />;
  const next = then[0]!;
  const dropped = useEffectQuery({ ...on, operations: [dropOf(one, limit)] });
  const shared = useEffectQuery({ ...on, operations: [shareOf(one, limit)] });
  const own =
    one.kind === 'attribute' ? 'the style attribute' : `${one.selector} in the block, ${one.specificity ?? ''}`;
  return (
    <table className="vt oc">
      <thead>
        <tr className="hd">
          <td className="w-40" />
          <th>
            <b>Now</b>
          </th>
          <th>
            <b>Drop it</b> from {count(one.pages.length, 'page')}
          </th>
          <th>
            <b>Make it shared</b> in {beats.path}
          </th>
        </tr>
      </thead>
      <tbody>
        <tr className="smp">
          <th>looks like</th>
          <td>{look(value)}</td>
          <td>{look(next.value)}</td>
          <td>{look(value)}</td>
        </tr>
        <tr>
          <th>pages that change</th>
          <td>none</td>
          <Changed effect={dropped} pages={pages} />
          <Changed effect={shared} pages={pages} />
        </tr>
        <tr>
          <th>elements</th>
          <td>none</td>
          <td>{elementsOf(dropped, next.value)}</td>
          <td>{elementsOf(shared, value)}</td>
        </tr>
        <tr>
          <th>who decides then</th>
          <td title={own}>{own}</td>
          <td>
            {next.source === beats.path
              ? `${beats.selector} in ${beats.path}, ${beats.specificity}`
              : next.source === 'the page'
                ? 'another rule of the page'
                : next.source}
          </td>
          <td>
            {one.kind === 'attribute' ? beats.part : one.selector} in {beats.path}
          </td>
        </tr>
        <tr>
          <td />
          <td>
            {noting === undefined ? (
              <Act onClick={() => setNoting('')}>Keep it, with a note</Act>
            ) : (
              <form
                className="flex gap-2"
                onSubmit={(event) => {
                  event.preventDefault();
                  if (noting.trim() !== '') onNote(one.id, noting);
                }}
              >
                <Field
                  aria-label="Why it is kept"
                  placeholder="why it is kept"
                  value={noting}
                  maxLength={2000}
                  onChange={(event) => setNoting(event.target.value)}
                />
                <Act type="submit">Keep it</Act>
              </form>
            )}
          </td>
          <td>
            <Act disabled={busy} onClick={() => onAdd([dropOf(one, limit)])}>
              {limit
                ? 'Drop it on the chosen pages'
                : one.pages.length === 1
                  ? 'Drop it'
                  : `Drop it on all ${one.pages.length}`}
            </Act>{' '}
            {one.pages.length > 1 && !limit && <Act onClick={() => onPages(one.pages)}>Choose pages</Act>}
          </td>
          <td>
            <Act disabled={busy} onClick={() => onAdd([shareOf(one, limit)])}>
              Make it shared
            </Act>{' '}
            {refusedBy(shared)}
          </td>
        </tr>
      </tbody>
    </table>
  );
}

interface Tried {
  readonly currentData?: EffectReply | undefined;
  readonly isError: boolean;
  readonly error?: unknown;
}

/** What the proof says of it. */
function Changed({ effect, pages }: { readonly effect: Tried; readonly pages: readonly string[] }) {
  const { currentData: found } = effect;
  if (!found) return <td>{effect.isError ? '' : 'proving …'}</td>;
  const on = [...found.differing, ...found.unsure];
  return <td className={on.length > 0 ? 'lit' : ''}>{on.length > 0 ? <Strip pages={pages} on={on} /> : 'none'}</td>;
}

function elementsOf({ currentData: found }: Tried, value: string): string {
  if (!found) return '';
  if (found.unsure.length > 0) return 'it cannot be told';
  return found.elements > 0 ? `${found.elements} change, to ${value}` : 'none';
}

const refusedBy = ({ error }: Tried): string => (error ? problemText(error) : '');

const Strip = ({ pages, on }: { readonly pages: readonly string[]; readonly on: readonly string[] }) => (
  <>
    <CopiesStrip pages={pages} versions={[{ pages: [] }, { pages: on }]} /> <b>{on.length}</b>
  </>
);
