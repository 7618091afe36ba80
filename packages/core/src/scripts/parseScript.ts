import { parse, type Node } from 'acorn';

/** `handler`: the value of an event attribute. */
export type ScriptKind = 'script' | 'module' | 'handler';

/** More than any page holds; what is longer counts as unreadable. */
const mostText = 3_000_000;

/** Undefined where it is no script, or too long for one. */
export function parseScript(text: string, kind: ScriptKind): Node | undefined {
  if (text.length > mostText) return undefined;
  const sourceType = kind === 'module' ? 'module' : 'script';
  try {
    return parse(text, {
      ecmaVersion: 'latest',
      sourceType,
      locations: true,
      allowReturnOutsideFunction: kind === 'handler',
    });
  } catch {
    return undefined;
  }
}
