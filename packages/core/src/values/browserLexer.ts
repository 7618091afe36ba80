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
const origin =
  '[ left | center | right | top | bottom | <length-percentage> ] | [ [ left | center | right | <length-percentage> ] [ top | center | bottom | <length-percentage> ] | [ left | center | right ] && [ top | center | bottom ] ] <length>?';
const radius = '[ <length-percentage [0,∞]> | closest-side | farthest-side | closest-corner | farthest-corner ]';
const fraction = '[ <number [0,∞]> | <percentage [0,∞]> ]?';
const shadow = '[ <length>{2} [ <length [0,∞]> <length>? ]? ]';
/** CSS Color 5, "Relative Colors": names of channels stand for those of the colour they begin with. */
const relative = ([name, channels]: readonly [string, string]): string => {
  const words = ['none', 'alpha', ...channels].join(' | ');
  const value = (letter: string): string => `[ <number> | ${letter === 'h' ? '<angle>' : '<percentage>'} | ${words} ]`;
  return `${name}( from <color> ${[...channels].map(value).join(' ')} [ / ${value('alpha')} ]? )`;
};
const relatives = Object.entries({
  rgb: 'rgb',
  rgba: 'rgb',
  hsl: 'hsl',
  hsla: 'hsl',
  hwb: 'hwb',
  lab: 'lab',
  oklab: 'lab',
  lch: 'lch',
  oklch: 'lch',
});
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
    'single-animation':
      "<'animation-duration'> || <easing-function> || <'animation-delay'> || <single-animation-iteration-count> || <single-animation-direction> || <single-animation-fill-mode> || <single-animation-play-state> || [ none | <keyframes-name> ]",
    'single-transition':
      '[ none | <single-transition-property> ] || <time [0s,∞]> || <easing-function> || <time> || <transition-behavior-value>',
    'single-transition-property': 'all | <custom-ident>',
    'steps()':
      'steps( [ <integer [1,∞]> | <integer [2,∞]> , jump-none | <integer [1,∞]> , [ jump-start | jump-end | jump-both | start | end ] ] )',
    ...Object.fromEntries(
      ['brightness', 'contrast', 'grayscale', 'invert', 'opacity', 'saturate', 'sepia'].map((name) => [
        `${name}()`,
        `${name}( ${fraction} )`,
      ]),
    ),
    'blur()': 'blur( <length [0,∞]>? )',
    'drop-shadow()': 'drop-shadow( [ <color>? && [ <length>{2} <length [0,∞]>? ] ] )',
    shadow: `inset? && ${shadow} && <color>?`,
    'shadow-t': '[ <length>{2} <length [0,∞]>? ] && <color>?',
    'track-size':
      '<track-breadth> | minmax( <inflexible-breadth> , <track-breadth> ) | fit-content( <length-percentage [0,∞]> )',
    'circle()': `circle( ${radius}? [ at <position> ]? )`,
    'ellipse()': `ellipse( ${radius}{2}? [ at <position> ]? )`,
    'color-function': `<rgb()> | <rgba()> | <hsl()> | <hsla()> | <hwb()> | <lab()> | <lch()> | <oklab()> | <oklch()> | <color()> | ${relatives.map(relative).join(' | ')}`,
    'system-color':
      '<deprecated-system-color> | AccentColor | AccentColorText | ActiveText | ButtonBorder | ButtonFace | ButtonText | Canvas | CanvasText | Field | FieldText | GrayText | Highlight | HighlightText | LinkText | Mark | MarkText | SelectedItem | SelectedItemText | VisitedText',
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
    'flex-basis': `content | ${size.replace(' | intrinsic | min-intrinsic', '')}`,
    'transform-origin': origin,
    zoom: 'normal | reset | <number [0,∞]> | <percentage [0,∞]>',
    'overflow-wrap': 'normal | break-word | anywhere',
    'word-wrap': 'normal | break-word | anywhere',
    'container-type': 'normal | size | inline-size',
    'font-variation-settings': 'normal | [ <string> <number> ]#',
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
    'font-family': '[ <string> | <ident>+ ]#',
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
