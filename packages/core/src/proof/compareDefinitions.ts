import type { AppliedDefinition, PageRules } from '../cascade/pageRules.ts';

/**
 * What differs between the definitions two states of a page can use: `@font-face`, `@keyframes`, `@page`, `@property`, …
 * Sentences. A definition that came or went is passed over when no rule of the page says its name.
 */
export function compareDefinitions(
  before: PageRules,
  after: PageRules,
  says: (name: string) => boolean,
): readonly string[] {
  const old = bySubject(before);
  const now = bySubject(after);
  const notes: string[] = [];
  for (const [subject, left] of old) {
    const right = now.get(subject) ?? [];
    if (left.join('\n') === right.join('\n')) continue;
    if (right.length === 0 && !matters(subject, says)) continue;
    notes.push(
      right.length === 0
        ? `${subject} is not there any more.`
        : `${subject} is defined differently now, or in another order.`,
    );
  }
  for (const [subject] of now)
    if (!old.has(subject) && matters(subject, says)) notes.push(`${subject} is defined now and was not before.`);
  return notes;
}

/** Equal for pages that can use the same definitions in the same order. */
export const definitionKeys = (rules: PageRules): string =>
  [...bySubject(rules)]
    .map(([subject, keys]) => `${subject}\n${keys.join('\n')}`)
    .sort()
    .join('\n\n');

/** Of one subject, weakest first: CSS Cascading and Inheritance Level 5, "Cascade Layers", orders at-rules of one name by layer as well. */
function bySubject({ definitions, layers }: PageRules): Map<string, string[]> {
  const out = new Map<string, string[]>();
  const { hangsOn } = layers;
  const rankOf = (definition: AppliedDefinition): number => layers.rank(definition.layerPath);
  const ordered = layers.hasLayers ? [...definitions].sort((a, b) => rankOf(a) - rankOf(b)) : definitions;
  for (const { compiled, conditionKey, layerPath, unreadBefore } of ordered) {
    const subject = `@${compiled.name} ${compiled.subject}`.trim();
    const layer = layerPath.length === 0 ? '' : `${layerPath.join('.')} ${hangsOn}`;
    const key = `${compiled.key} if ${conditionKey} in ${layer} after ${unreadBefore}`;
    const list = out.get(subject);
    if (list) list.push(key);
    else out.set(subject, [key]);
  }
  return out;
}

/** CSS Counter Styles 3, "Simple Predefined Counter Styles": those that lists have by default or by their attributes. */
const predefined = /^(disc|circle|square|decimal|(lower|upper)-(alpha|latin|roman)|disclosure-(open|closed))$/i;

/**
 * Families that browsers take for text and controls where nobody says any (common practice): a font of that name is taken in their
 * stead, as Chromium does.
 */
const unasked =
  /^(times( new roman)?|arial|helvetica( neue)?|courier( new)?|segoe ui|tahoma|verdana|consolas|menlo|monaco|lucida grande|cambria math|\.?sf[ -].*|\.?applesystemuifont.*|(ms|ｍｓ) .*|(dejavu|liberation|noto|nimbus|cantarell|ubuntu|roboto|droid)\b.*)$/i;

function matters(subject: string, says: (name: string) => boolean): boolean {
  const found = /^@(font-face|keyframes|counter-style|property|font-palette-values) (.+)$/s.exec(subject);
  // the browser's own rules ask for these, and attributes of lists stand for them
  if (found?.[1] === 'counter-style' && predefined.test(found[2]!)) return true;
  if (found?.[1] === 'font-face' && unasked.test(found[2]!.replace(/["']/g, ''))) return true;
  return !found || says(found[2]!);
}
