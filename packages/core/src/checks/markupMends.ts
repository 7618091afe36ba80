import { tableOf } from '../source/tableOf.ts';
import type { ChildNode, ElementNode } from '../page/nodes.ts';
import { parsePage } from '../page/parsePage.ts';
import { applyEdits } from '../source/applyEdits.ts';
import type { Edit } from '../source/span.ts';

/** What a validator said at a place of a page, by its rule. */
export interface MarkupMessage {
  readonly rule: string;
  readonly message: string;
  readonly offset: number;
}

/** What can be taken out of the markup with nothing else becoming another page; what the act is called. */
export function markupMend({ rule, message }: MarkupMessage): string | undefined {
  if (rule === 'no-dup-attr') return 'Remove the one that does not count';
  if (rule === 'no-dup-class') return 'Say it once';
  return rule === 'void-content' || /^Stray end tag/.test(message) ? 'Remove the end tag' : undefined;
}

/** The edits that take it out; none where browsers would then build another page of it (`</p>` and `</br>` alone make an element). */
export function markupEdits(text: string, messages: readonly MarkupMessage[], isRun = false): readonly Edit[] {
  const edits = messages.flatMap((one) => {
    const span = spanOf(text, one);
    return span ? [{ span, text: '' }] : [];
  });
  const after = edits.length === 0 ? undefined : applyEdits(text, edits);
  if (!after?.ok) return [];
  return pageKey(text, isRun) === pageKey(after.value, isRun) ? edits : [];
}

function spanOf(text: string, { rule, offset }: MarkupMessage): { start: number; end: number } | undefined {
  const pattern = patterns[rule];
  if (!pattern) return undefined;
  pattern.lastIndex = rule.startsWith('no-dup') ? offset : offset - 1;
  const found = pattern.exec(text);
  if (!found) return undefined;
  let start = found.index;
  if (rule.startsWith('no-dup')) while (/\s/.test(text[start - 1] ?? '')) start--;
  return { start, end: pattern.lastIndex };
}

const patterns: Readonly<Record<string, RegExp>> = tableOf({
  'no-dup-attr': /[^\s=>/]+(?:\s*=\s*(?:"[^"]*"|'[^']*'|[^\s>"']?[^\s>]*))?/y,
  'no-dup-class': /[^\s"'>]+/y,
  'void-content': /<\/[^>]*>/y,
  'close-order': /<\/[^>]*>/y,
});

/** Equal for pages of which a browser builds the same tree, but for how often a class is named. */
function pageKey(text: string, isRun: boolean): string {
  const { document } = parsePage(text, true, isRun);
  const parts: string[] = [document.mode];
  const stack: (ChildNode | string)[] = [...document.children].reverse();
  for (let node = stack.pop(); node !== undefined; node = stack.pop()) {
    if (typeof node === 'string') parts.push(node);
    else if (node.type === 'element') {
      parts.push(`<${node.namespace} ${node.tag}`, ...attributesOf(node));
      stack.push('>', ...[...node.children].reverse());
    } else if (node.type === 'text') parts.push(`text ${node.value}`);
    else parts.push(node.type === 'comment' ? `comment ${node.value}` : `doctype ${node.name}`);
  }
  return JSON.stringify(parts);
}

const attributesOf = ({ attributes, classes }: ElementNode): readonly string[] =>
  attributes.map(
    ({ name, value, prefix = '' }) => `${prefix} ${name}=${name === 'class' ? [...new Set(classes)].join(' ') : value}`,
  );
