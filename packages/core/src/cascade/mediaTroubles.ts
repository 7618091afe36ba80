import { trimmed } from '../source/space.ts';
import { tokenTypes as T } from '../sheet/tokens.ts';
import {
  nameAt,
  partOf,
  readCondition,
  splitAtCommas,
  subpart,
  textOfPart,
  typeAt,
  type ConditionTree,
  type Part,
} from './conditionTree.ts';
import { desktop } from './environment.ts';
import { evaluateFeature } from './mediaFeatures.ts';

/** What browsers do not take of a media query; they count the query as `not all`. */
export interface MediaTrouble {
  readonly query: string;
  readonly what: 'malformed' | 'unknown-type' | 'unknown-feature';
  /** The type or feature nobody knows, as written in lower case. */
  readonly name: string;
}

/** Media Queries 4, "Media Types": all that ever were. */
const types = new Set('all screen print speech aural braille embossed handheld projection tty tv'.split(' '));

/** Queries of a list that hold nowhere, whatever the screen. Media Queries 4, "Error Handling". */
export function mediaTroubles(text: string): readonly MediaTrouble[] {
  const part = partOf(text);
  if (part?.to === 0) return [];
  const queries = part ? splitAtCommas(part) : text.split(',').map((query) => partOf(query) ?? query);
  return queries.flatMap((query) => {
    if (typeof query === 'string') return [{ query: trimmed(query), what: 'malformed', name: '' } as const];
    const trouble = troubleOf(query);
    return trouble ? [{ query: textOfPart(query), ...trouble }] : [];
  });
}

function troubleOf(query: Part): Omit<MediaTrouble, 'query'> | undefined {
  const malformed = { what: 'malformed', name: '' } as const;
  const first = nameAt(query, query.from);
  const at = query.from + (first === 'not' || first === 'only' ? 1 : 0);
  if (typeAt(query, at) !== T.Ident) {
    const tree = first === 'only' ? undefined : readCondition(query);
    return tree ? unknownIn(tree) : malformed;
  }
  const type = nameAt(query, at);
  if (/^(and|or|not|only|layer)$/.test(type)) return malformed;
  if (at + 1 < query.to) {
    if (typeAt(query, at + 1) !== T.Ident || nameAt(query, at + 1) !== 'and') return malformed;
    const tree = readCondition(subpart(query, at + 2));
    if (!tree || tree.kind === 'or') return malformed;
    const unknown = unknownIn(tree);
    if (unknown) return unknown;
  }
  return types.has(type) ? undefined : { what: 'unknown-type', name: type };
}

function unknownIn(tree: ConditionTree): Omit<MediaTrouble, 'query'> | undefined {
  switch (tree.kind) {
    case 'not':
      return unknownIn(tree.of);
    case 'and':
    case 'or':
      return tree.of.map(unknownIn).find((one) => one !== undefined);
    case 'lost':
      return undefined;
    case 'leaf':
      if (tree.name !== undefined || evaluateFeature(tree.inside, desktop) !== 'unknown') return undefined;
      return { what: 'unknown-feature', name: nameAt(tree.inside, tree.inside.from) };
  }
}
