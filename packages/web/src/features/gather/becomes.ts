import type { FamilyReply } from '@syndeton/contract';
import { count } from '../../ui/format.ts';
import type { Decision } from './decisions.ts';

/** What a person can let become of a version. */
export type Becomes = 'own' | 'scope' | 'stay' | 'sheet' | `take ${string}`;

/** The choice that the draft stands for; undefined while it is shared or in several parts. */
export function becomesOf(decisions: readonly Decision[]): Becomes | undefined {
  const kinds = new Set(decisions.map((one) => one.kind));
  if (kinds.size !== 1) return undefined;
  if (decisions.every((one) => one.kind === 'sheet' && one.scope !== undefined)) return 'scope';
  const [one] = decisions;
  switch (one?.kind) {
    case 'open':
      return 'stay';
    case 'takes':
      return `take ${one.version}`;
    case 'block':
      return 'own';
    case 'sheet':
      return 'sheet';
    default:
      return undefined;
  }
}

/** What can become of a version: every other one can take its place, and it looks different then. `planned`: by a plan of one sheet. */
export function optionsFor(
  index: number,
  { versions, kind }: Pick<FamilyReply, 'versions' | 'kind'>,
  planned: boolean,
): readonly (readonly [Becomes, string])[] {
  const pages = versions[index]!.pages.length;
  const one = pages === 1;
  const sheet = ['sheet', one ? 'in the sheet, for this page' : 'in the sheet, for these pages'] as const;
  const stay = ['stay', one ? 'stay on this page' : `stay on these ${pages} pages`] as const;
  const own = ['own', 'its own sheet'] as const;
  const scope = ['scope', one ? 'in the sheet, for this page' : 'in the sheet, for these pages'] as const;
  const takes = versions
    .slice(0, mostTaken)
    .flatMap((version, i): (readonly [Becomes, string])[] =>
      i === index ? [] : [[`take ${version.id}`, `take ${letterOf(i)}; ${one ? 'it looks' : 'they look'} different`]],
    );
  if (kind !== 'rule') return [...(planned ? [sheet] : []), own, stay];
  if (planned) return [sheet, own, stay, ...takes];
  return index === 0 ? [own, stay, ...takes] : [own, scope, stay, ...takes];
}

const mostTaken = 6;

export const letterOf = (index: number): string => String.fromCharCode(65 + index);

/** `css/site.css, linked by 22 pages`. */
export function sayDecisions(
  decisions: readonly Decision[],
  letter: (index: number) => string,
  versions: FamilyReply['versions'],
): string {
  return decisions
    .map((one) => {
      const pages = decisions.length > 1 ? ` on ${count(one.pages.length, 'page')}` : '';
      switch (one.kind) {
        case 'sheet':
          return `${one.sheet}${one.scope === undefined ? '' : `, below .${one.scope}`}${one.selectors === undefined ? '' : `, as ${one.selectors.join(' and ')}`}${pages}`;
        case 'dead':
          return `says nothing, goes for good${pages}`;
        case 'block':
          return `a sheet of its own, with the rest of its block${pages}`;
        case 'takes':
          return `takes ${letter(versions.findIndex((version) => version.id === one.version))}${pages}`;
        case 'open':
          return decisions.length > 1 ? `stays${pages}` : 'stays where it is';
      }
    })
    .join('; ');
}
