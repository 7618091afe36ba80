import { pagesOf, sheetsOf, type Site } from '../../source/site.ts';

/** How the authors of a site write rules. */
export interface RuleStyle {
  /** `p { top: 0; left: 0 }` on one line. */
  readonly oneLine: boolean;
  /** What stands before a declaration on a line of its own. */
  readonly indent: string;
}

/** Enough to tell a habit. */
const mostRules = 200;

/** The habit most rules of the site's sheets and blocks show; a declaration a line and two spaces where there is none. */
export function ruleStyleOf(site: Site): RuleStyle {
  let lines = 0;
  let blocks = 0;
  const indents = new Map<string, number>();
  for (const text of stylingOf(site)) {
    for (const [, inside] of text.matchAll(/\{([^{}]*:[^{}]*)\}/g)) {
      if (!/[\r\n]/.test(inside!)) lines++;
      else blocks++;
      const indent = /[\r\n]([ \t]+)[a-z-]+\s*:/i.exec(inside!)?.[1];
      if (indent !== undefined) indents.set(indent, (indents.get(indent) ?? 0) + 1);
      if (lines + blocks >= mostRules) break;
    }
    if (lines + blocks >= mostRules) break;
  }
  // blocks in pages are indented as a whole: the shortest habit is the step
  const [indent] = [...indents].sort((a, b) => a[0].length - b[0].length || b[1] - a[1])[0] ?? ['  '];
  return { oneLine: lines > blocks, indent };
}

function* stylingOf(site: Site): Iterable<string> {
  for (const { text } of sheetsOf(site)) if (text !== undefined) yield text;
  for (const { text } of pagesOf(site))
    for (const [, inside] of (text ?? '').matchAll(/<style\b[^>]*>([^<]*)</gi)) yield inside!;
}
