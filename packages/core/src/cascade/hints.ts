import { tableOf } from '../source/tableOf.ts';
import { lowered } from '../source/asciiCase.ts';
import { trimmed } from '../source/space.ts';
import { attributeOf, type ElementNode } from '../page/nodes.ts';
import { parentElement } from '../page/parsePage.ts';
import { parseDimension, parseLegacyColour, parseLegacyFontSize, parseNonNegative } from '../values/legacyValues.ts';
import { svgDeclaration } from './svgAttributes.ts';

/** A declaration that a presentational attribute stands for, and the attribute; of the element itself unless `of` says. */
export interface Hint {
  readonly property: string;
  readonly value: string;
  readonly attribute: string;
  readonly of: ElementNode;
}

type Declarations = readonly (readonly [property: string, value: string])[];

/**
 * The presentational hints of an element, weakest first: what Chromium declares for its attributes, and for those of the table
 * around a cell.
 *
 * HTML Standard, "Rendering": "Hidden elements", "The page", "Flow content", "Phrasing content", "Bidirectional text",
 * "Lists", "Tables", "The hr element", "Images", "Attributes for embedded content and images". SVG 2, "Presentation attributes".
 */
export function hintsOf(element: ElementNode): readonly Hint[] {
  const hints: Hint[] = [];
  const add = (declarations: Declarations, attribute: string, of: ElementNode): void => {
    for (const [property, value] of declarations) hints.push({ property, value, attribute, of });
  };
  for (const { name, prefix, value } of element.attributes) {
    if (prefix !== undefined && prefix !== '') continue;
    const declarations =
      element.namespace === 'html' ? ownHints(element, name, value) : foreignHints(element, name, value);
    if (declarations.length > 0) add(declarations, name, element);
  }
  if (element.namespace === 'html') addTableHints(element, add);
  return hints;
}

/** What browsers declare for an element that is there for nothing else: HTML Standard, "Rendering", "Flow content", `center`. */
export const ownStyle = (element: ElementNode): readonly Hint[] =>
  element.tag === 'center' && element.namespace === 'html'
    ? [{ property: 'text-align', value: '-webkit-center', attribute: '<center>', of: element }]
    : [];

/** The same as the text of a style attribute. */
export const hintText = (hints: readonly Hint[]): string => hints.map((h) => `${h.property}: ${h.value}`).join('; ');

const none: Declarations = [];
const one = (property: string, value: string | undefined): Declarations =>
  value === undefined ? none : [[property, value]];
const sides = ['top', 'right', 'bottom', 'left'];
const onSides = (template: (side: string) => string, value: string): Declarations =>
  sides.map((side) => [template(side), value]);

const isCell = (tag: string): boolean => tag === 'td' || tag === 'th';
const tablePart = /^(table|colgroup|col|thead|tbody|tfoot|tr|td|th)$/;
const insideTable = /^(colgroup|col|thead|tbody|tfoot|tr|td|th)$/;
const embedded = /^(img|object|embed|iframe)$/;

const isImageInput = (element: ElementNode): boolean =>
  element.tag === 'input' && attributeOf(element, 'type')?.toLowerCase() === 'image';

function ownHints(element: ElementNode, name: string, value: string): Declarations {
  const { tag } = element;
  const lower = lowered(value);
  switch (name) {
    case 'align':
      return alignHint(element, lower);
    case 'valign':
      return tablePart.test(tag) || tag === 'img' ? one('vertical-align', verticalAlign(lower)) : none;
    case 'bgcolor':
      return tablePart.test(tag) || tag === 'body' || tag === 'marquee'
        ? one('background-color', parseLegacyColour(value))
        : none;
    case 'background':
      return (tablePart.test(tag) || tag === 'body') && trimmed(value) !== ''
        ? [['background-image', `url(${JSON.stringify(trimmed(value))})`]]
        : none;
    case 'text':
      return tag === 'body' ? one('color', parseLegacyColour(value)) : none;
    case 'color':
      if (tag === 'font') return one('color', parseLegacyColour(value));
      return tag === 'hr' ? ruleColour(parseLegacyColour(value)) : none;
    case 'bordercolor':
      return tag === 'table' || tag === 'frameset' ? colourOnSides(parseLegacyColour(value)) : none;
    case 'face':
      return tag === 'font' && value !== '' ? [['font-family', value]] : none;
    case 'size':
      if (tag === 'font') return one('font-size', parseLegacyFontSize(value));
      return tag === 'hr' ? ruleSize(value) : none;
    case 'noshade':
      return tag === 'hr' && attributeOf(element, 'color') === undefined ? ruleColour('#808080') : none;
    case 'width':
      return lengthHint(element, 'width', value);
    case 'height':
      return lengthHint(element, 'height', value);
    case 'hspace':
      return spaceHint(element, 'left', 'right', value);
    case 'vspace':
      return spaceHint(element, 'top', 'bottom', value);
    case 'border':
      return borderHint(element, value);
    case 'frameborder':
      return tag === 'iframe' && parseNonNegative(value) === 0
        ? onSides((side) => `border-${side}-width`, '0px')
        : none;
    case 'cellspacing':
      return tag === 'table' && parseDimension(value) !== undefined
        ? [['border-spacing', parseDimension(value)!.replace('%', 'px')]]
        : none;
    case 'rules':
      return tag === 'table' && tableRules.has(lower) ? [['border-collapse', 'collapse']] : none;
    case 'frame':
      return tag === 'table' ? frameHint(lower) : none;
    case 'nowrap':
      return isCell(tag) ? [['white-space', 'nowrap']] : none;
    case 'marginwidth':
    case 'leftmargin':
      return tag === 'body' ? lengths(['margin-right', 'margin-left'], value) : none;
    case 'marginheight':
    case 'topmargin':
      return tag === 'body' ? lengths(['margin-bottom', 'margin-top'], value) : none;
    case 'clear':
      return tag === 'br' && value !== '' ? one('clear', lower === 'all' ? 'both' : lower) : none;
    case 'type':
      return one('list-style-type', listStyle(tag, value));
    case 'wrap':
      return wrapHint(tag, lower);
    case 'hidden':
      return hiddenHint(tag, lower);
    case 'dir':
      return directionHint(tag, lower);
    case 'lang':
      return languageHint(value);
    default:
      return none;
  }
}

function alignHint(element: ElementNode, value: string): Declarations {
  const { tag } = element;
  if (tag === 'hr') {
    const [left, right] = value === 'left' ? ['0px', 'auto'] : value === 'right' ? ['auto', '0px'] : ['auto', 'auto'];
    return [
      ['margin-left', left],
      ['margin-right', right],
    ];
  }
  if (tag === 'table') {
    if (value === 'center')
      return [
        ['margin-inline-start', 'auto'],
        ['margin-inline-end', 'auto'],
      ];
    return value === 'left' || value === 'right' ? [['float', value]] : none;
  }
  if (tag === 'caption') return /^(top|bottom|left|right)$/.test(value) ? one('caption-side', value) : none;
  if (embedded.test(tag) || isImageInput(element)) return embeddedAlign(value);
  if (/^(input|textarea|select|button|svg|math)$/.test(tag)) return none;
  if (insideTable.test(tag)) {
    if (value === 'absmiddle') return [['text-align', 'center']];
    return one('text-align', alignValue(value, '-webkit-'));
  }
  const aligned = one('text-align', alignValue(value, tag === 'div' || tag === 'p' ? '-webkit-' : ''));
  return tag === 'legend' && /^(left|center|right)$/.test(value) ? [...aligned, ['justify-self', value]] : aligned;
}

function alignValue(value: string, prefix: string): string | undefined {
  if (value === 'middle' || value === 'center') return `${prefix}center`;
  if (value === 'left' || value === 'right') return prefix + value;
  return value === 'justify'
    ? value
    : /^(start|end|-webkit-(left|right|center|auto)|match-parent)$/.test(value)
      ? value
      : undefined;
}

function embeddedAlign(value: string): Declarations {
  if (value === 'left' || value === 'right')
    return [
      ['float', value],
      ['vertical-align', 'top'],
    ];
  const vertical = /^(absmiddle|abscenter)$/.test(value)
    ? 'middle'
    : /^(middle|center)$/.test(value)
      ? '-webkit-baseline-middle'
      : value === 'texttop'
        ? 'text-top'
        : value === 'absbottom'
          ? 'bottom'
          : value === 'bottom'
            ? 'baseline'
            : value === 'top' || value === 'baseline'
              ? value
              : undefined;
  return one('vertical-align', vertical);
}

const verticalAlign = (value: string): string | undefined =>
  /^(top|middle|bottom|baseline|sub|super|text-top|text-bottom)$/.test(value) ? value : undefined;

function ruleColour(colour: string | undefined): Declarations {
  if (colour === undefined) return none;
  return [
    ...onSides((side) => `border-${side}-style`, 'solid'),
    ...onSides((side) => `border-${side}-color`, colour),
    ['background-color', colour],
  ];
}

const colourOnSides = (colour: string | undefined): Declarations =>
  colour === undefined ? none : onSides((side) => `border-${side}-color`, colour);

function ruleSize(value: string): Declarations {
  const size = Number.parseInt(value, 10);
  if (Number.isNaN(size) || size <= 1) return [['border-bottom-width', '0px']];
  return [['height', `${size - 2}px`]];
}

function lengthHint(element: ElementNode, name: 'width' | 'height', value: string): Declarations {
  const { tag } = element;
  if (tag === 'hr') return name === 'width' ? one('width', parseDimension(value)) : none;
  if (tag === 'col' || tag === 'colgroup' || tablePart.test(tag)) {
    if (name === 'width' && /^(thead|tbody|tfoot|tr)$/.test(tag)) return none;
    return one(name, parseDimension(value, !(tag === 'table' || isCell(tag))));
  }
  if (embedded.test(tag) || tag === 'video' || tag === 'marquee' || isImageInput(element)) {
    const size = parseDimension(value);
    return size === undefined ? none : [[name, size], ...ratioHint(element, name)];
  }
  if (tag === 'canvas') return ratioHint(element, name);
  return none;
}

/** HTML Standard, "Attributes for embedded content and images": both sizes together give a ratio. */
function ratioHint(element: ElementNode, name: string): Declarations {
  if (name !== 'height' || !/^(img|video|canvas|input)$/.test(element.tag)) return none;
  const [width, height] = ['width', 'height'].map((n) => parseDimension(attributeOf(element, n) ?? ''));
  if (!width || !height || width.endsWith('%') || height.endsWith('%')) return none;
  const ratio = `${Number.parseFloat(width)} / ${Number.parseFloat(height)}`;
  return [['aspect-ratio', element.tag === 'canvas' ? ratio : `auto ${ratio}`]];
}

const lengths = (properties: readonly string[], value: string): Declarations => {
  const length = parseDimension(value);
  return length === undefined ? none : properties.map((property) => [property, length]);
};

const spaceHint = (element: ElementNode, first: string, second: string, value: string): Declarations =>
  /^(img|object|embed|input|marquee)$/.test(element.tag)
    ? lengths([`margin-${first}`, `margin-${second}`], value)
    : none;

function borderHint(element: ElementNode, value: string): Declarations {
  if (element.tag === 'table') return onSides((side) => `border-${side}-width`, `${tableBorder(value)}px`);
  if (!/^(img|object)$/.test(element.tag) && !isImageInput(element)) return none;
  const width = `${parseNonNegative(value) ?? (element.tag === 'object' ? 0 : 0)}px`;
  return [...onSides((side) => `border-${side}-width`, width), ...onSides((side) => `border-${side}-style`, 'solid')];
}

const tableBorder = (value: string): number => (value === '' ? 1 : (parseNonNegative(value) ?? 1));

const tableRules = new Set(['none', 'groups', 'rows', 'cols', 'all']);
const listTypes: Readonly<Record<string, string>> = tableOf({ '1': 'decimal', a: 'lower-alpha', A: 'upper-alpha', i: 'lower-roman', I: 'upper-roman' }); // oxfmt-ignore
const frames: Readonly<Record<string, string>> = tableOf({ void: '', above: 'top', below: 'bottom', hsides: 'top bottom', lhs: 'left', rhs: 'right', vsides: 'left right', box: 'top bottom left right', border: 'top bottom left right' }); // oxfmt-ignore

function frameHint(value: string): Declarations {
  const shown = frames[value];
  if (shown === undefined) return none;
  const styles = sides.map((side) => [`border-${side}-style`, shown.includes(side) ? 'solid' : 'hidden'] as const);
  return [...onSides((side) => `border-${side}-width`, 'thin'), ...styles];
}

function listStyle(tag: string, value: string): string | undefined {
  const bullet = /^(disc|circle|square|none)$/i.test(value) ? lowered(value) : undefined;
  if (tag === 'ol') return listTypes[value];
  if (tag === 'ul') return bullet;
  return tag === 'li' ? (listTypes[value] ?? bullet) : undefined;
}

function wrapHint(tag: string, value: string): Declarations {
  if (tag === 'pre') return [['white-space', 'pre-wrap']];
  if (tag !== 'textarea') return none;
  return value === 'off'
    ? [
        ['white-space', 'pre'],
        ['overflow-wrap', 'normal'],
      ]
    : [
        ['white-space', 'pre-wrap'],
        ['overflow-wrap', 'break-word'],
      ];
}

function hiddenHint(tag: string, value: string): Declarations {
  if (tag === 'embed')
    return [
      ['width', '0px'],
      ['height', '0px'],
    ];
  return value === 'until-found' ? [['content-visibility', 'hidden']] : [['display', 'none']];
}

function directionHint(tag: string, value: string): Declarations {
  if (value === 'ltr' || value === 'rtl') return [['direction', value]];
  return value === 'auto' && !/^(pre|textarea)$/.test(tag) ? [['unicode-bidi', 'isolate']] : none;
}

const languageHint = (value: string): Declarations => [
  ['-webkit-locale', value === '' ? 'auto' : JSON.stringify(value)],
];

function foreignHints(element: ElementNode, name: string, value: string): Declarations {
  if (name === 'dir' && element.tag !== 'svg') return directionHint(element.tag, lowered(value));
  if (name === 'lang') return languageHint(value);
  if (element.namespace !== 'svg') return none;
  const parent = parentElement(element);
  const declared = svgDeclaration(element.tag, name, value, element.tag === 'svg' && parent?.namespace !== 'svg');
  return declared ? [declared] : none;
}

type Add = (declarations: Declarations, attribute: string, of: ElementNode) => void;

/** What `border`, `frame`, `rules` and `cellpadding` of a table do to itself, its groups and its cells. */
function addTableHints(element: ElementNode, add: Add): void {
  const { tag } = element;
  if (tag === 'table') {
    const style = outerStyle(element);
    if (style)
      add(
        onSides((side) => `border-${side}-style`, style[0]),
        style[1],
        element,
      );
    return;
  }
  const table = insideTable.test(tag) ? tableAround(element) : undefined;
  if (!table) return;
  if (isCell(tag)) {
    const style = cellStyle(table);
    if (style) add(style[0], style[1], table);
    const padding = parseDimension(attributeOf(table, 'cellpadding') ?? '')?.replace('%', 'px');
    if (padding !== undefined)
      add(
        onSides((side) => `padding-${side}`, padding),
        'cellpadding',
        table,
      );
  } else if (attributeOf(table, 'rules')?.toLowerCase() === 'groups') {
    const edges = /^(thead|tbody|tfoot)$/.test(tag) ? ['top', 'bottom'] : tag === 'colgroup' ? ['left', 'right'] : [];
    add(
      edges.flatMap(
        (edge) =>
          [
            [`border-${edge}-width`, 'thin'],
            [`border-${edge}-style`, 'solid'],
          ] as const,
      ),
      'rules',
      table,
    );
  }
}

function outerStyle(table: ElementNode): readonly [style: string, attribute: string] | undefined {
  if (frames[attributeOf(table, 'frame')?.toLowerCase() ?? '-'] !== undefined) return undefined;
  const border = attributeOf(table, 'border');
  if (border !== undefined && tableBorder(border) > 0)
    return [attributeOf(table, 'bordercolor') ? 'solid' : 'outset', 'border'];
  return tableRules.has(attributeOf(table, 'rules')?.toLowerCase() ?? '') ? ['hidden', 'rules'] : undefined;
}

function cellStyle(table: ElementNode): readonly [declarations: Declarations, attribute: string] | undefined {
  const edged = (edges: readonly string[], width: string, style: string): Declarations =>
    edges.flatMap(
      (edge) =>
        [
          [`border-${edge}-width`, width],
          [`border-${edge}-style`, style],
          [`border-${edge}-color`, 'inherit'],
        ] as const,
    );
  switch (attributeOf(table, 'rules')?.toLowerCase()) {
    case 'none':
    case 'groups':
      return undefined;
    case 'rows':
      return [edged(['top', 'bottom'], 'thin', 'solid'), 'rules'];
    case 'cols':
      return [edged(['left', 'right'], 'thin', 'solid'), 'rules'];
    case 'all':
      return [edged(sides, '1px', 'solid'), 'rules'];
    case undefined:
    default:
      break;
  }
  const border = attributeOf(table, 'border');
  if (border === undefined || tableBorder(border) === 0) return undefined;
  return [edged(sides, '1px', attributeOf(table, 'bordercolor') ? 'solid' : 'inset'), 'border'];
}

function tableAround(element: ElementNode): ElementNode | undefined {
  for (let at = parentElement(element); at; at = parentElement(at)) if (at.tag === 'table') return at;
  return undefined;
}
