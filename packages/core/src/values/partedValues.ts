import { lowered } from '../source/asciiCase.ts';

// Values that one engine takes and another drops: where it is dropped, what stands before it counts. Asked of Chromium, Gecko and
// WebKit by oracle/engines.ts; what all of them take, or none, stands in the grammar.

type Row = readonly [property: RegExp, value: RegExp];

const isIn = (rows: readonly Row[], property: string, value: string): boolean =>
  rows.some(([name, pattern]) => name.test(property) && pattern.test(lowered(value)));

/** Whether some engine drops a value that the grammar takes. */
export const isDroppedElsewhere = (property: string, value: string): boolean =>
  partedNames.test(property) || isIn(dropped, property, value);

/** Whether some engine takes a value that the grammar does not. */
export const isTakenElsewhere = (property: string, value: string): boolean => isIn(taken, property, value);

/** Second names of longhands that not every engine knows: where it does not, the first name's value counts. */
const partedNames =
  /^(-webkit-((border|margin|padding)-(after|before|end|start)|column|hyphenate|(max-|min-)?logical|opacity$|print-color|shape|text-emphasis|font-feature)|rule)/;

const word = (words: string): RegExp => new RegExp(`(?<![-\\w])(${words.split(' ').join('|')})(?![-\\w(])`);

const box = word('fill-box stroke-box view-box content');
const layer = word('no-clip match-source luminance alpha');
const corner = /(left|right|top|bottom)\s+([\d.]\S*\s+)?(left|right|top|bottom|center)/;

/** Against a value in lower case. */
const taken: readonly Row[] = [
  [/^place-/, word('first safe unsafe')],
  [/^font-variant-alternates$/, word('historical-forms')],
  [/^content$/, /\/$/],
  [/color$|^(border|outline|background|text-emphasis|(fill|stroke)$)|^-webkit-text/, word('text alpha')],
  [/^background(-clip)?$/, word('border-area')],
  [/^(-webkit-)?perspective-origin$/, /./],
  [/^text-decoration$/, /(?<![-\w])([a-z]+)(?=\s)(.*\s)?\1(?![-\w])/],
  [/^text-align(-last)?$/, word('-moz-center match-parent')],
  [/^text-overflow$/, /"|'|\S\s+\S/],
  [/^vertical-align$/, /^(first|last|center|hanging|ideographic|alphabetic|central|mathematical)/],
  [/^((-webkit-)?align-content|place-content)$/, word('baseline')],
  [/-(self|items)$/, word('anchor-center')],
  [/^(alignment|dominant)-baseline$/, word('text-bottom')],
  [/^baseline-shift$/, word('center top bottom')],
  [/^display$/, word('math')],
  [/^cursor$/, /-moz-/],
  [/^(-webkit-)?flex(-basis)?$/, word('intrinsic min-intrinsic')],
  [/^(-webkit-)?flex-(wrap|flow)$/, word('balance')],
  [/^overflow$/, word('overlay')],
  [/^overscroll-behavior/, word('chain')],
  [/^container-type$/, word('scroll-state')],
  [/^pointer-events$/, word('bounding-box')],
  [/^font-variant$/, word('text emoji unicode sub super')],
  [/^initial-letter$/, word('drop raise')],
  [/^hyphenate-limit-chars$/, /^(?!auto$)/],
  [/^offset/, /url\(|margin-box/],
  [/^-webkit-line-clamp$/, /%/],
  [/^-webkit-box-ordinal-group$/, /^0/],
  [/^mask(-clip|-origin)?$/, box],
  [/^mask$/, layer],
  [/^mask$/, corner],
  [/^-webkit-(mask(-clip|-origin|-composite|-position(-y)?)?|background-origin)$/, /^(?!none$)/],
];

const dropped: readonly Row[] = [
  [/^((min-|max-)?(width|height|inline-size|block-size)|(-webkit-)?flex(-basis)?)$/, word('stretch')],
  [/^text-wrap(-style)?$/, word('pretty')],
  [/^background(-clip)?$/, word('border-area')],
  [/^(-webkit-)?animation(-duration)?$/, word('auto')],
  [/^counter-(increment|reset|set)$/, /\S\s+none|none\s+\S|reversed/],
  [/^text-decoration$/, /(^|\s)(?!(none|underline|overline|line-through)(\s|$))\S/],
  [/^text-decoration-line$/, word('spelling-error grammar-error')],
  [/^text-align$/, word('-webkit-auto')],
  [/^text-transform$/, word('math-auto')],
  [/^columns$/, /\//],
  [/^break-(after|before)$/, word('avoid-page avoid-column avoid-region recto verso column region')],
  [/^(fill|stroke)$/, word('context-fill context-stroke')],
  [/^overflow-(block|inline)$/, word('overlay')],
  [/^overflow-anchor$/, word('visible')],
  [/^cursor$/, /-webkit-(grab|zoom)/],
  [/^display$/, word('ruby ruby-base ruby-text list-item\\s+\\S+ \\S+\\s+list-item')],
  [/^(alignment|dominant)-baseline$/, /auto|edge|use-script|no-change|reset-size/],
  [/^(cx|cy|rx?|ry|x|y|baseline-shift)$/, /^[^a-df-z%]*$|calc|baseline/],
  [/^place-content$/, word('baseline')],
  [/^(font|font-size)$/, word('math')],
  [/^(font|font-style)$/, /oblique\s+(?![-+]?[1-8]?\d(\.\d+)?deg)\S/],
  [/^font-variant$/, /(\S+\s+){5}/],
  [/^forced-color-adjust$/, word('preserve-parent-color')],
  [/^stroke-(dash|width)/, /calc/],
  [/^resize$/, word('auto')],
  [/^touch-action$/, word('pan-left pan-right pan-up pan-down')],
  [/^word-break$/, word('auto-phrase')],
  [/^(-webkit-)?shape-image-threshold$/, /%/],
  [
    /^(-webkit-)?shape-outside$|^(-webkit-)?clip-path$|^offset/,
    /(circle|ellipse)\([^)]*(farthest|closest)-corner|polygon\((evenodd|nonzero)|url\(/,
  ],
  [/^-webkit-text-size-adjust$/, /%/],
  [/^-webkit-box-flex$/, /-/],
  [/^mask(-clip|-origin)?$/, box],
  [/^mask$/, layer],
  [/^-webkit-(mask(-clip|-origin|-composite|-position(-y)?)?|background-origin)$/, /^(?!none$)/],
  [/^-webkit-(ruby-position|writing-mode|text-orientation|line-break|align-items)$/, /./],
];
