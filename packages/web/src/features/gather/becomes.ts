import type { FamilyReply } from '@syndeton/contract';
import { count } from '../../ui/format.ts';
import type { Decision } from './decisions.ts';

/** What a person can let become of a version. */
export type Becomes = 'own' | 'scope' | 'stay' | 'take';

/** The choice that the draft stands for; undefined while it is shared or in several parts. */
export function becomesOf(decisions: readonly Decision[]): Becomes | undefined {
  const kinds = new Set(decisions.map((one) => one.kind));
  if (kinds.size !== 1) return undefined;
  if (decisions.every((one) => one.kind === 'sheet' && one.scope !== undefined)) return 'scope';
  const [kind] = kinds;
  return kind === 'open' ? 'stay' : kind === 'takes' ? 'take' : kind === 'block' ? 'own' : undefined;
}

/** The first version is the common one: the others can take it, and look different then. */
export function optionsFor(
  index: number,
  pages: number,
  kind: FamilyReply['kind'],
): readonly (readonly [Becomes, string])[] {
  const stay = ['stay', pages === 1 ? 'stay on this page' : `stay on these ${pages} pages`] as const;
  const own = ['own', 'its own sheet'] as const;
  const take = ['take', pages === 1 ? 'take A; it looks different' : 'take A; they look different'] as const;
  const scope = ['scope', pages === 1 ? 'shared sheet, for this page only' : 'shared sheet, for these only'] as const;
  return index === 0 || kind !== 'rule' ? [own, stay] : [own, scope, stay, take];
}

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
          return `${one.sheet}${one.scope === undefined ? '' : `, below .${one.scope}`}${pages}`;
        case 'block':
          return `own sheet, with its block${pages}`;
        case 'takes':
          return `takes ${letter(versions.findIndex((version) => version.id === one.version))}${pages}`;
        case 'open':
          return decisions.length > 1 ? `stays${pages}` : 'stays where it is';
      }
    })
    .join('; ');
}
