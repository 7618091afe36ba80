import { boxOf } from '../../ui/pageDom.ts';
import type { ProofReply } from '@syndeton/contract';
import { elementAtPath } from '../../ui/elementPath.ts';

export interface Outline {
  readonly key: string;
  readonly number: number;
  readonly box: { readonly left: number; readonly top: number; readonly width: number; readonly height: number };
}

const mostOutlines = 80;

/** Where the differing elements stand in the frame as it is scrolled now, with the number of their cause. */
export function outlinesIn(
  document: Document | null,
  causes: ProofReply['pages'][number]['causes'],
): readonly Outline[] {
  if (!document?.body) return [];
  const out: Outline[] = [];
  const seen = new Set<string>();
  causes.forEach((cause, i) => {
    for (const { path } of cause.elements) {
      if (seen.has(path) || out.length >= mostOutlines) continue;
      seen.add(path);
      const element = elementAtPath(document, path);
      const box = element && boxOf(element);
      if (box && box.width > 0 && box.height > 0 && !/^(html|html>body:nth-child\(2\))$/.test(path))
        out.push({ key: path, number: i + 1, box });
    }
  });
  return out;
}
