import { tableOf } from '../source/tableOf.ts';
import { trimmed } from '../source/space.ts';
/** SVG 2, "Presentation attributes": attributes of SVG elements that are declarations. As Chromium takes them. */
const svgPresentationAttributes: ReadonlySet<string> = new Set(
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

/** SVG 2, "Geometry properties": which of these attributes are declarations, by element. As Chromium takes them. */
const geometry: Readonly<Record<string, string>> = tableOf({
  circle: 'cx cy r',
  ellipse: 'cx cy rx ry',
  rect: 'x y width height rx ry',
  image: 'x y width height',
  foreignObject: 'x y width height',
  use: 'x y',
  mask: 'x y width height',
  symbol: 'x y width height',
  path: 'd',
  svg: 'x y',
});

const noTransform =
  /^(mask|filter|marker|linearGradient|radialGradient|pattern|tspan|textPath|stop|title|desc|metadata|style|script)$/;

/**
 * What an attribute of an SVG element declares; undefined for attributes that declare nothing. `outermost`: an `svg` in HTML.
 *
 * SVG 2, "Presentation attributes" (lengths need no unit there); CSS Transforms 1, "SVG transform attribute".
 */
export function svgDeclaration(
  tag: string,
  name: string,
  value: string,
  outermost: boolean,
): readonly [property: string, value: string] | undefined {
  if (svgPresentationAttributes.has(name)) return [name, unitless.has(name) ? withUnit(value) : value];
  if (geometry[tag]?.split(' ').includes(name) || (outermost && /^(width|height)$/.test(name)))
    return [name, name === 'd' ? `path("${value.replace(/["\\\n]/g, ' ')}")` : withUnit(value)];
  const transforms = /Gradient$/.test(tag) ? 'gradientTransform' : tag === 'pattern' ? 'patternTransform' : 'transform';
  if (name !== transforms || (name === 'transform' && noTransform.test(tag))) return undefined;
  const text = transformList(value);
  return text === undefined ? undefined : ['transform', text];
}

const unitless = new Set(['font-size', 'letter-spacing', 'word-spacing', 'baseline-shift']);

const withUnit = (value: string): string =>
  /^[\t\n\f\r ]*[+-]?(\d+\.?\d*|\.\d+)[\t\n\f\r ]*$/.test(value) ? `${trimmed(value)}px` : value;

/** The attribute's list in CSS: numbers get the units they stand for. Undefined when it is none. */
function transformList(value: string): string | undefined {
  const parts: string[] = [];
  const rest = value.replace(
    /[\t\n\f\r ]*,?[\t\n\f\r ]*([a-zA-Z]+)[\t\n\f\r ]*\(([^()]*)\)/g,
    (_all, name: string, list: string) => {
      const numbers = trimmed(list)
        .split(/[\t\n\f\r ,]+/)
        .map(Number);
      const one = numbers.some(Number.isNaN) ? undefined : transform(name, numbers);
      parts.push(one ?? '');
      return '';
    },
  );
  return trimmed(rest) !== '' || parts.length === 0 || parts.includes('') ? undefined : parts.join(' ');
}

function transform(name: string, numbers: readonly number[]): string | undefined {
  const [a, b, c] = numbers;
  switch (`${name} ${numbers.length}`) {
    case 'translate 1':
      return `translate(${a}px)`;
    case 'translate 2':
      return `translate(${a}px, ${b}px)`;
    case 'scale 1':
    case 'scale 2':
    case 'matrix 6':
      return `${name}(${numbers.join(', ')})`;
    case 'rotate 1':
    case 'skewX 1':
    case 'skewY 1':
      return `${name}(${a}deg)`;
    case 'rotate 3':
      return `translate(${b}px, ${c}px) rotate(${a}deg) translate(${-b!}px, ${-c!}px)`;
    default:
      return undefined;
  }
}
