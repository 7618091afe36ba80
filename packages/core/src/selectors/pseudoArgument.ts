import { trimmed } from '../source/space.ts';

// What may stand in the brackets of a pseudo-element or pseudo-class whose argument is kept as text, in Chromium.

const ident = String.raw`(?:--|-?(?:[a-z_]|[^\0-\x7f]|\\[^\n\f\r]))(?:[-\w]|[^\0-\x7f]|\\[^\n\f\r])*`;
const all = (pattern: string): RegExp => new RegExp(`^(?:${pattern})$`, 'iu');
const space = '[\\t\\n\\f\\r ]+';
const transition = all(
  String.raw`(?!(?:initial|inherit|unset|revert|revert-layer|default)(?!-))(?:\*|${ident}[\t\n\f\r ]*)?(?:\.${ident})*`,
);

const patterns: readonly (readonly [name: RegExp, argument: RegExp])[] = [
  [/^part$/, all(`${ident}(${space}${ident})*`)],
  [/^(highlight|state|dir|lang)$/, all(ident)],
  [/^picker$/, /^select$/i],
  [/^scroll-button$/, /^(\*|left|right|up|down|(block|inline)-(start|end))$/i],
  [/^view-transition-/, transition],
  [/^active-view-transition-type$/, all(`${ident}([\\t\\n\\f\\r ]*,[\\t\\n\\f\\r ]*${ident})*`)],
];

/** Names whose argument is one selector without combinators. */
export const takesCompound = /^(slotted|host|host-context|cue)$/;

export function isArgument(name: string, argument: string): boolean {
  const text = trimmed(argument.replace(/\/\*[^]*?\*\//g, ' '));
  return patterns.find(([pattern]) => pattern.test(name))?.[1].test(text) ?? true;
}
