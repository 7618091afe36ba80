/** SVG 2, "Presentation attributes": attributes of SVG elements that are declarations. As Chromium takes them. */
export const svgPresentationAttributes: ReadonlySet<string> = new Set(
  (
    'alignment-baseline baseline-shift clip-path clip-rule color color-interpolation color-interpolation-filters ' +
    'color-rendering cursor direction display dominant-baseline fill fill-opacity fill-rule filter flood-color flood-opacity ' +
    'font-family font-size font-stretch font-style font-variant font-weight image-rendering letter-spacing lighting-color ' +
    'marker-end marker-mid marker-start mask mask-type opacity overflow paint-order pointer-events shape-rendering stop-color ' +
    'stop-opacity stroke stroke-dasharray stroke-dashoffset stroke-linecap stroke-linejoin stroke-miterlimit stroke-opacity ' +
    'stroke-width text-anchor text-decoration text-overflow text-rendering transform-origin unicode-bidi vector-effect ' +
    'visibility white-space word-spacing writing-mode'
  ).split(' '),
);
