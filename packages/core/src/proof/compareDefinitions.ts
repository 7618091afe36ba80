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
  const old = bySubject(before.definitions);
  const now = bySubject(after.definitions);
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
export const definitionKeys = ({ definitions }: PageRules): string =>
  [...bySubject(definitions)].map(([subject, keys]) => `${subject}\n${keys.join('\n')}`).sort().join('\n\n'); // prettier-ignore

function bySubject(definitions: readonly AppliedDefinition[]): Map<string, string[]> {
  const out = new Map<string, string[]>();
  for (const { compiled, conditionKey, layerPath, unreadBefore } of definitions) {
    const subject = `@${compiled.name} ${compiled.subject}`.trim();
    const key = `${compiled.key} if ${conditionKey} in ${layerPath.join('.')} after ${unreadBefore}`;
    const list = out.get(subject);
    if (list) list.push(key);
    else out.set(subject, [key]);
  }
  return out;
}

function matters(subject: string, says: (name: string) => boolean): boolean {
  const found = /^@(font-face|keyframes|counter-style|property|font-palette-values) (.+)$/s.exec(subject);
  return !found || says(found[2]!);
}
