import { useLayoutEffect, useRef } from 'react';

interface Written {
  readonly property: string;
  readonly value: string;
}

/** What could leave the sample's own box or load something is not shown. */
const harmless =
  /^(color|background-color|background|border(-\w+)*|padding(-\w+)?|font(-\w+)*|line-height|letter-spacing|text-\w+|border-radius|opacity|box-shadow)$/;

/** A line of text in the look of a rule, with an author's own declarations. */
export function StyleSample({
  declarations,
  text = 'No sailing today.',
}: {
  readonly declarations: readonly Written[];
  readonly text?: string;
}) {
  const line = useRef<HTMLSpanElement>(null);
  useLayoutEffect(() => {
    const { style } = line.current!;
    style.cssText = '';
    for (const { property, value } of declarations)
      if (harmless.test(property) && !/url\(|src\(|image-set\(/i.test(value)) style.setProperty(property, value);
    // light text on the paper's white would not be seen
    if (style.backgroundColor === '' && style.background === '' && isLight(getComputedStyle(line.current!).color))
      style.backgroundColor = 'CanvasText';
  }, [declarations]);
  return (
    <span className="sample">
      <span ref={line}>{text}</span>
    </span>
  );
}

/** Nearly white, by the luminance of sRGB; WCAG 2, "relative luminance", without the curve. */
function isLight(colour: string): boolean {
  const [red, green, blue] = (colour.match(/[\d.]+/g) ?? []).map(Number);
  if (red === undefined || green === undefined || blue === undefined) return false;
  return (0.2126 * red + 0.7152 * green + 0.0722 * blue) / 255 > 0.8;
}
