import type { PageCascade } from '../cascade/pageCascade.ts';
import { attributeOf } from '../page/nodes.ts';
import type { PageTree } from '../page/parsePage.ts';
import { readDifferently } from '../page/readDifferently.ts';
import { hasScripts } from '../scripts/pageScripts.ts';
import { serverCode } from '../scripts/serverCode.ts';
import { writtenSources } from './shownSources.ts';
import { isShadowTemplate, isStyleSource } from './pairElements.ts';

/**
 * What of a page the cascade does not compare and something else may read: class and style attributes, places among siblings,
 * links and blocks as they are written. Undefined where nothing can read them: no script, no server's code, no `attr()`,
 * no shadow tree.
 */
export function exposedText(cascade: PageCascade): string | undefined {
  const { tree, rules } = cascade;
  // where browsers see other elements, any rule may count
  if (readDifferently(tree).length > 0) return `${tree.text}\n${rules.key}`;
  const isRead = rules.readsMarkup || hasScripts(tree) || tree.elements.some(isShadowTemplate);
  if (!isRead && (serverCode(tree)?.sheets ?? []).length === 0) return undefined;
  return `${markedText(tree)}\n${writtenSources(cascade)}`;
}

function markedText({ elements }: PageTree): string {
  const parts: string[] = [];
  for (const element of elements) {
    if (isStyleSource(element)) continue;
    const [own, style] = [attributeOf(element, 'class'), attributeOf(element, 'style')];
    parts.push(`${element.siblingIndex}/${element.siblings.length}`);
    if (own !== undefined) parts.push(`c${own.length}:${own}`);
    if (style !== undefined) parts.push(`s${style.length}:${style}`);
  }
  return parts.join(' ');
}
