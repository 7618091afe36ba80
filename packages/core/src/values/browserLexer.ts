import { fork } from 'css-tree';

const nonNegative = '<length-percentage [0,∞]>';
const size = `auto | ${nonNegative} | min-content | max-content | fit-content | stretch | -webkit-fill-available | -webkit-fit-content | -webkit-min-content | -webkit-max-content | intrinsic | min-intrinsic`;
const maxSize = size.replace('auto', 'none');
const gap = `normal | ${nonNegative}`;
const gridLine =
  'auto | <custom-ident> | [ [ <integer [-∞,-1]> | <integer [1,∞]> ] && <custom-ident>? ] | [ span && [ <integer [1,∞]> || <custom-ident> ] ]';
const selfPosition = 'self-start | self-end | start | end | center | flex-start | flex-end';
const baseline = '[ first ]? baseline';
const cursorWords =
  'auto | default | none | context-menu | help | pointer | progress | wait | cell | crosshair | text | vertical-text | alias | copy | move | no-drop | not-allowed | e-resize | n-resize | ne-resize | nw-resize | s-resize | se-resize | sw-resize | w-resize | ew-resize | ns-resize | nesw-resize | nwse-resize | col-resize | row-resize | all-scroll | zoom-in | zoom-out | grab | grabbing | -webkit-grab | -webkit-grabbing | -webkit-zoom-in | -webkit-zoom-out';
const cursorSyntax = `[ [ <url> | <image> ] [ <number> <number> ]? , ]* [ ${cursorWords} ]`;
const svgLength = '<length-percentage> | <number>';

/**
 * css-tree's value grammar, with what Debian's Chromium takes where the two part.
 * declarationValidity.test.ts asks Chromium about every property.
 */
export const browserLexer = fork({
  types: {
    'line-width': '<length [0,∞]> | thin | medium | thick',
    'grid-line': gridLine,
    'single-animation-iteration-count': 'infinite | <number [0,∞]>',
    'track-breadth': '<length-percentage [0,∞]> | <flex> | min-content | max-content | auto',
    'fixed-breadth': '<length-percentage [0,∞]>',
    'inflexible-breadth': '<length-percentage [0,∞]> | min-content | max-content | auto',
    'single-transition-property': 'all | <custom-ident>',
  },
  properties: {
    'line-height': `normal | <number [0,∞]> | ${nonNegative}`,
    'flex-grow': '<number [0,∞]>',
    'flex-shrink': '<number [0,∞]>',
    'column-count': 'auto | <integer [1,∞]>',
    'text-align':
      'start | end | left | right | center | justify | match-parent | -webkit-auto | -webkit-left | -webkit-right | -webkit-center',
    cursor: cursorSyntax,
    orphans: '<integer [1,∞]>',
    widows: '<integer [1,∞]>',
    'tab-size': '<number [0,∞]> | <length [0,∞]>',
    'column-gap': gap,
    'row-gap': gap,
    gap: `[ ${gap} ] [ ${gap} ]?`,
    'grid-gap': `[ ${gap} ] [ ${gap} ]?`,
    'grid-column-gap': gap,
    'grid-row-gap': gap,
    'border-spacing': '<length [0,∞]>{1,2}',
    'text-size-adjust': 'none | auto | <percentage [0,∞]>',
    width: size,
    height: size,
    'block-size': size,
    'inline-size': size,
    'min-width': size,
    'min-height': size,
    'min-block-size': size,
    'min-inline-size': size,
    'max-width': maxSize,
    'max-height': maxSize,
    'max-block-size': maxSize,
    'max-inline-size': maxSize,
    'flex-basis': `content | ${size}`,
    filter: 'none | [ <filter-function> | <url> ]+',
    'animation-duration': '[ auto | <time [0s,∞]> ]#',
    'transition-duration': '<time [0s,∞]>#',
    'animation-iteration-count': '[ infinite | <number [0,∞]> ]#',
    'align-content': `normal | ${baseline} | space-between | space-around | space-evenly | stretch | [ unsafe | safe ]? [ center | start | end | flex-start | flex-end ]`,
    'align-self': `auto | normal | stretch | anchor-center | ${baseline} | last baseline | [ unsafe | safe ]? [ ${selfPosition} ]`,
    'column-rule-width': '<line-width>',
    'column-rule-style': '<line-style>',
    'column-rule-color': '<color>',
    'column-rule': '<line-width> || <line-style> || <color>',
    'word-spacing': 'normal | <length-percentage>',
    'letter-spacing': 'normal | <length-percentage>',
    resize: 'none | both | horizontal | vertical | block | inline | auto',
    'text-overflow': 'clip | ellipsis',
    'font-stretch':
      'normal | ultra-condensed | extra-condensed | condensed | semi-condensed | semi-expanded | expanded | extra-expanded | ultra-expanded | <percentage [0,∞]>',
    'transition-property': 'none | [ all | <custom-ident> ]#',
    cx: svgLength,
    cy: svgLength,
    x: svgLength,
    y: svgLength,
    r: '<length-percentage [0,∞]> | <number [0,∞]>',
    rx: 'auto | <length-percentage [0,∞]> | <number [0,∞]>',
    ry: 'auto | <length-percentage [0,∞]> | <number [0,∞]>',
    'fill-opacity': '<number> | <percentage>',
    'stroke-opacity': '<number> | <percentage>',
    'stop-opacity': '<number> | <percentage>',
    'stroke-width': '<length-percentage [0,∞]> | <number [0,∞]>',
    'stroke-miterlimit': '<number [0,∞]>',
    'stroke-dasharray': 'none | [ <length-percentage [0,∞]> | <number [0,∞]> ]+#',
    '-webkit-box-ordinal-group': '<integer [1,∞]>',
    '-webkit-line-clamp': 'none | <integer [1,∞]>',
    '-webkit-text-stroke-width': '<line-width>',
    'image-orientation': 'none | from-image',
    'overflow-anchor': 'auto | visible | none',
    'hyphenate-limit-chars': '[ auto | <integer [1,∞]> ]{1,3}',
    'initial-letter': 'normal | <number [1,∞]> <integer [1,∞]>?',
    perspective: 'none | <length [0,∞]>',
    'shape-margin': nonNegative,
    'font-size-adjust':
      'none | [ ex-height | cap-height | ch-width | ic-width | ic-height ]? [ from-font | <number [0,∞]> ]',
    'font-family': '[ <family-name> | <generic-family> ]#',
    ...Object.fromEntries(
      [
        '-block',
        '-inline',
        '-block-start',
        '-block-end',
        '-inline-start',
        '-inline-end',
        '-top',
        '-right',
        '-bottom',
        '-left',
        '',
      ].map((end) => [
        `scroll-padding${end}`,
        `[ auto | ${nonNegative} ]${end === '' ? '{1,4}' : /^-(block|inline)$/.test(end) ? '{1,2}' : ''}`,
      ]),
    ),
    'will-change': 'auto | [ scroll-position | contents | <custom-ident> ]#',
    'grid-row-start': gridLine,
    'grid-row-end': gridLine,
    'grid-column-start': gridLine,
    'grid-column-end': gridLine,
    outline: '[ auto | <outline-line-style> ] || <line-width> || <color>',
    'outline-width': '<line-width>',
    'container-name': 'none | <custom-ident>+',
  },
}).lexer;
