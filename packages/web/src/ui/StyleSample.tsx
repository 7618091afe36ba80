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
  }, [declarations]);
  return (
    <span className="sample">
      <span ref={line}>{text}</span>
    </span>
  );
}
