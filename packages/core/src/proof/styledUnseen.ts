import type { PageTree } from '../page/parsePage.ts';
import { hasScripts } from '../scripts/pageScripts.ts';
import { isTemplated } from '../source/templates.ts';
import { isShadowTemplate } from './pairElements.ts';

/**
 * Whether something may say how elements of a page look, below or between its own rules, that is not in it: a script or a server that
 * writes attributes and sheets, a shadow tree that styles what it slots.
 */
export const mayBeStyledUnseen = (tree: PageTree): boolean =>
  isTemplated(tree.text) || hasScripts(tree) || tree.elements.some(isShadowTemplate);
