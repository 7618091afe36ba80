import type { Touch } from './scriptFacts.ts';

type What = Touch['what'];

const sheets: What = { kind: 'sheets' };

/** What a text of a script may ask for or make, wherever it is handed to. `isKey`: it is the name of a member. */
export function textTouches(text: string, isKey: boolean): readonly What[] {
  const out: What[] = [];
  if (/<(style|link)\b/i.test(text)) out.push(sheets);
  for (const [, name] of text.matchAll(/\[\s*([a-z]+)/gi)) out.push({ kind: 'attribute', name: name!.toLowerCase() });
  if (/\[\s*style/i.test(text)) out.push({ kind: 'style', property: undefined });
  if (/\[\s*class/i.test(text)) out.push({ kind: 'class' });
  // as an attribute's name, or an element's
  if (text === 'style' && !isKey) out.push({ kind: 'style', property: undefined }, sheets);
  if (text === 'class' && !isKey) out.push({ kind: 'class' });
  if (structural.test(text)) out.push({ kind: 'places' });
  if (structural.test(text) && /\bhead\b/.test(text)) out.push(sheets);
  return out;
}

const absolute = /^(querySelector|querySelectorAll|\$|jQuery)$/;
const relative =
  /^(getElementById|closest|matches|getElementsByClassName|find|filter|is|not|children|parents|siblings)$/;

/** Whether a call looks for or makes links and blocks, or counts them; `texts`: its arguments, as far as they are known. */
export function dealsWithSources(name: string, texts: readonly (string | undefined)[]): boolean {
  const [first] = texts;
  if (/^(createElement|createElementNS|getElementsByTagName)$/.test(name)) {
    const tag = texts.at(-1);
    return tag === undefined || /^(\*|style|link)$/i.test(tag);
  }
  if (first === undefined || !(absolute.test(name) || relative.test(name))) return false;
  return (
    first === '*' ||
    /(^|[\s,>+~(])(style|link)\b(?!\s*[\])])/i.test(first) ||
    (absolute.test(name) && meansSources(first))
  );
}

/** Whether a call asks by a path of XML for anything but elements of a name: for attributes, places, parents or sheets. */
export const asksByPath = (name: string, text: string | undefined): boolean =>
  /^(evaluate|createExpression|selectNodes|selectSingleNode)$/.test(name) &&
  (text === undefined || !/^[\w/.:-]*$/.test(text) || /\b(style|link|head|html|node|text)\b|\.\.|::/i.test(text));

/** A selector that asks for elements by their place among siblings. */
const structural = /:(nth|first|last|only)-|:empty|[\w)\]*]\s*[+~]\s*[\w.#:[*]/;

/** A selector that counts links and blocks, or what is around them: of its compounds one that names nothing, in the head or anywhere. */
function meansSources(selector: string): boolean {
  const bare = withoutArguments(selector);
  return bare.split(',').some((complex) => {
    let mayBeInHead = true;
    for (const compound of complex.trim().split(/\s*[\s>+~]\s*/)) {
      if (namesNothing.test(compound)) {
        if (mayBeInHead) return true;
      } else if (!/^(html|head|:root|title|meta|base|script)\b/i.test(compound)) mayBeInHead = false;
    }
    return false;
  });
}

/** What may stand beside any name: functions, and places among siblings. */
const namesNothing = /^(\*|:(x|empty|defined|scope|(first|last|only)-(child|of-type)))+$/i;

/** `:not(…)` and the like say nothing of what an element is. */
function withoutArguments(selector: string): string {
  let text = selector;
  for (let i = 0; i < 5; i++) text = text.replace(/:[\w-]+\([^()]*\)/g, ':x');
  return text.replace(/\[[^\]]*\]/g, '.x');
}
