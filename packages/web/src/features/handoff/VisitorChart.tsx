import type { ReportReply } from '@syndeton/contract';

import { Mark } from '../../ui/Mark.tsx';

type Weight = NonNullable<ReportReply['weight']['after']>;

const parts = [
  ['markup', 'text and markup', 'bg-tick'],
  ['embedded', 'embedded', 'lozenge-x bg-area-embed'],
  ['attributes', 'attributes', 'triangle min-w-2.25 bg-area-style'],
  ['sheets', 'linked sheets', 'bg-area-linked'],
] as const;

const kilobytes = (bytes: number): string => (bytes / 1000).toFixed(1);

/** What an average page costs a visitor, before and after: the first one with its sheets, and each after it without. */
export function VisitorChart({ before, after }: { readonly before: Weight; readonly after: Weight }) {
  const next = (weight: Weight): Weight => ({ ...weight, sheets: 0 });
  const rows = [
    { name: 'First visit', state: 'before', weight: before },
    { name: '', state: 'after', weight: after },
    { name: 'Next page', state: 'before', weight: next(before) },
    { name: '', state: 'after', weight: next(after) },
  ];
  const most = Math.max(...rows.map(({ weight }) => totalOf(weight)), 1);
  return (
    <figure>
      <figcaption>
        <h2>
          What a visitor fetches{' '}
          <span className="text-note text-ink-3 font-normal">kB, average page; sheets are fetched once</span>
        </h2>
        <p className="text-note text-ink-3 flex justify-end gap-4">
          <span>
            <span className="sw bg-tick shadow-none" aria-hidden="true" /> text and markup
          </span>
          <span>
            <Mark kind="embedded" hidden /> embedded
          </span>
          <span>
            <Mark kind="attribute" hidden /> attributes
          </span>
          <span>
            <Mark kind="linked" hidden /> linked sheets
          </span>
        </p>
      </figcaption>
      <table className="mt-1.5 w-full border-collapse text-table/5 [&_td]:pr-5 [&_td]:whitespace-nowrap [&_th]:pr-5 [&_th]:text-left [&_th]:font-bold [&_th]:whitespace-nowrap">
        <tbody>
          {rows.map(({ name, state, weight }, i) => (
            <tr key={i} className={name === '' ? '' : '*:pt-2'}>
              <th scope="row">{name}</th>
              <td>{state}</td>
              <td className="w-full">
                <span className="flex items-center gap-px">
                  {parts.map(([part, , look]) =>
                    weight[part] > 0 ? (
                      <span
                        key={part}
                        className={`h-3.5 flex-none ${look}`}
                        style={{ width: `${(weight[part] / most) * 84}%` }}
                      />
                    ) : null,
                  )}
                  <span className={state === 'after' ? 'pl-2 font-bold' : 'pl-2 text-ink-2'}>
                    {kilobytes(totalOf(weight))}
                  </span>
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-3">{paysFrom(before, after)}</p>
    </figure>
  );
}

const totalOf = ({ markup, embedded, attributes, sheets }: Weight): number => markup + embedded + attributes + sheets;

/** From which page on a visitor fetches less than before. */
export function paysFrom(before: Weight, after: Weight): string {
  const first = totalOf(after) - totalOf(before);
  const next = totalOf(after) - after.sheets - (totalOf(before) - before.sheets);
  const said = (difference: number): string =>
    Math.abs(difference) < 50
      ? 'the same'
      : `${kilobytes(Math.abs(difference))} kB ${difference > 0 ? 'more' : 'less'}`;
  const costs = `A first visit costs ${said(first)}, each page after it ${said(next)}`;
  if (next >= -50 || first <= 50) return `${costs}.`;
  return `${costs}: it pays from page ${1 + Math.ceil(first / -next)} of a visit on.`;
}
