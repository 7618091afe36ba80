import { blend, parse as parseColour, wcagContrast } from 'culori';

/**
 * The contrast of text on a ground, 1 to 21; undefined where either is no plain colour. What shines through is counted on white.
 *
 * WCAG 2.2, "Contrast (Minimum)" and "contrast ratio".
 */
export function contrastRatio(text: string, ground: string): number | undefined {
  const [over, under] = [parseColour(text), parseColour(ground)];
  if (!over || !under) return undefined;
  const paper = blend(['white', under]);
  return wcagContrast(blend([paper, over]), paper);
}
