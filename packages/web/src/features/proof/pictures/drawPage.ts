import { toCanvas } from 'html-to-image';
import { hiddenFrame, holdAnimations, loaded } from '../hiddenFrame.ts';

/** Longer pages are drawn so far, in CSS pixels. */
export const mostHeight = 8000;

export interface Drawn {
  readonly canvas: HTMLCanvasElement;
  /** The page is longer than what is drawn. */
  readonly isCut: boolean;
}

/** One page as this browser draws what it computed for it, one picture pixel to a CSS pixel; its scripts do not run. */
export async function drawPage(address: string, width: number): Promise<Drawn> {
  const frame = hiddenFrame('Drawn');
  try {
    frame.style.width = `${width}px`;
    await loaded(frame, address);
    const document = frame.contentDocument!;
    holdAnimations(document);
    const { body, documentElement } = document;
    const whole = Math.max(documentElement.scrollHeight, body.scrollHeight);
    const height = Math.min(whole, mostHeight);
    const own = document.defaultView!.getComputedStyle(body);
    const canvas = await toCanvas(body, {
      width,
      height,
      pixelRatio: 1,
      skipAutoScale: true,
      backgroundColor: canvasColour(document),
      style: { width: own.width, height: own.height },
    });
    return { canvas, isCut: whole > height };
  } finally {
    frame.remove();
  }
}

/** What the root, or else the body, gives to the whole canvas. CSS Backgrounds 3, "The Canvas Background and the Root Element". */
function canvasColour({ defaultView, documentElement, body }: Document): string {
  const colours = [documentElement, body].map((element) => defaultView!.getComputedStyle(element).backgroundColor);
  return colours.find((colour) => !/^(transparent|rgba\(0, 0, 0, 0\))$/.test(colour)) ?? 'white';
}
