import { lowered } from '../source/asciiCase.ts';
/** HTML Standard, "Rules for parsing a legacy color value": a colour as `#rrggbb` or a name; undefined when there is none. */
export function parseLegacyColour(given: string): string | undefined {
  const text = given.replace(/^[\t\n\f\r ]+|[\t\n\f\r ]+$/g, '');
  if (text === '' || lowered(text) === 'transparent') return undefined;
  if (colourNames.has(lowered(text))) return lowered(text);
  if (/^#[0-9a-f]{3}$/i.test(text)) return lowered(`#${[...text.slice(1)].map((digit) => digit + digit).join('')}`);
  let digits = [...text]
    .map((char) => (char.codePointAt(0)! > 0xffff ? '00' : char))
    .join('')
    .slice(0, 128);
  if (digits.startsWith('#')) digits = digits.slice(1);
  digits = digits.replace(/[^0-9a-f]/gi, '0');
  while (digits.length === 0 || digits.length % 3 !== 0) digits += '0';
  let length = digits.length / 3;
  let parts = [0, 1, 2].map((i) => digits.slice(i * length, (i + 1) * length));
  if (length > 8) {
    parts = parts.map((part) => part.slice(length - 8));
    length = 8;
  }
  while (length > 2 && parts.every((part) => part.startsWith('0'))) {
    parts = parts.map((part) => part.slice(1));
    length--;
  }
  return lowered(`#${parts.map((part) => (length > 2 ? part.slice(0, 2) : part).padStart(2, '0')).join('')}`);
}

/** HTML Standard, "Rules for parsing dimension values", as CSS: `40px`, `12.5%`; undefined when there is none. */
export function parseDimension(text: string, zeroCounts = true): string | undefined {
  const found = /^[\t\n\f\r ]*(\d+(?:\.\d*)?|\.\d+)(%?)/.exec(text);
  if (!found) return undefined;
  const number = Number(found[1]);
  if (number === 0 && !zeroCounts) return undefined;
  return `${number}${found[2] === '%' ? '%' : 'px'}`;
}

/** HTML Standard, "Rules for parsing non-negative integers". */
export function parseNonNegative(text: string): number | undefined {
  const found = /^[\t\n\f\r ]*\+?(\d+)/.exec(text) ?? /^[\t\n\f\r ]*(-0+)/.exec(text);
  return found ? Math.abs(Number(found[1])) : undefined;
}

const sizes = ['x-small', 'small', 'medium', 'large', 'x-large', 'xx-large', 'xxx-large'];

/** HTML Standard, "Rules for parsing a legacy font size", as a CSS keyword. */
export function parseLegacyFontSize(text: string): string | undefined {
  const found = /^[\t\n\f\r ]*([+-]?)(\d+)/.exec(text);
  if (!found) return undefined;
  const number = Number(found[2]);
  const size = found[1] === '+' ? 3 + number : found[1] === '-' ? 3 - number : number;
  return sizes[Math.min(Math.max(size, 1), 7) - 1];
}

/** CSS Color 4, "Named Colors" and "System Colors" as the legacy rules take them. */
const colourNames: ReadonlySet<string> = new Set(
  (
    'aliceblue antiquewhite aqua aquamarine azure beige bisque black blanchedalmond blue blueviolet brown burlywood cadetblue ' +
    'chartreuse chocolate coral cornflowerblue cornsilk crimson cyan darkblue darkcyan darkgoldenrod darkgray darkgreen ' +
    'darkgrey darkkhaki darkmagenta darkolivegreen darkorange darkorchid darkred darksalmon darkseagreen darkslateblue ' +
    'darkslategray darkslategrey darkturquoise darkviolet deeppink deepskyblue dimgray dimgrey dodgerblue firebrick ' +
    'floralwhite forestgreen fuchsia gainsboro ghostwhite gold goldenrod gray green greenyellow grey honeydew hotpink ' +
    'indianred indigo ivory khaki lavender lavenderblush lawngreen lemonchiffon lightblue lightcoral lightcyan ' +
    'lightgoldenrodyellow lightgray lightgreen lightgrey lightpink lightsalmon lightseagreen lightskyblue lightslategray ' +
    'lightslategrey lightsteelblue lightyellow lime limegreen linen magenta maroon mediumaquamarine mediumblue mediumorchid ' +
    'mediumpurple mediumseagreen mediumslateblue mediumspringgreen mediumturquoise mediumvioletred midnightblue mintcream ' +
    'mistyrose moccasin navajowhite navy oldlace olive olivedrab orange orangered orchid palegoldenrod palegreen ' +
    'paleturquoise palevioletred papayawhip peachpuff peru pink plum powderblue purple rebeccapurple red rosybrown royalblue ' +
    'saddlebrown salmon sandybrown seagreen seashell sienna silver skyblue slateblue slategray slategrey snow springgreen ' +
    'steelblue tan teal thistle tomato turquoise violet wheat white whitesmoke yellow yellowgreen'
  ).split(' '),
);
