/** Every element of HTML, obsolete ones included, and of SVG and MathML; HTML Standard, "Elements" and "Non-conforming features". */
const html =
  'a abbr acronym address applet area article aside audio b base basefont bdi bdo bgsound big blink blockquote body br button canvas ' +
  'caption center cite code col colgroup command content data datalist dd del details dfn dialog dir div dl dt element em embed ' +
  'fieldset figcaption figure font footer form frame frameset h1 h2 h3 h4 h5 h6 head header hgroup hr html i iframe image img input ' +
  'ins isindex kbd keygen label legend li link listing main map mark marquee math menu menuitem meta meter multicol nav nextid nobr ' +
  'noembed noframes noscript object ol optgroup option output p param picture plaintext pre progress q rb rbc rp rt rtc ruby s samp ' +
  'script search section select selectedcontent shadow slot small source spacer span strike strong style sub summary sup svg table ' +
  'tbody td template textarea tfoot th thead time title tr track tt u ul var video wbr xmp';
const foreign =
  'g defs symbol use switch desc metadata path rect circle ellipse line polyline polygon text tspan textpath tref marker pattern ' +
  'clippath mask lineargradient radialgradient stop filter foreignobject view animate animatemotion animatetransform set mpath ' +
  'glyph missing-glyph font-face hatch mesh solidcolor mi mo mn ms mtext mspace mrow mfrac msqrt mroot mstyle merror mpadded mphantom ' +
  'mfenced menclose msub msup msubsup munder mover munderover mmultiscripts mtable mtr mtd maction semantics annotation annotation-xml';

const known = new Set(
  `${html} ${foreign}`.split(' ').filter((name) => name !== 'content' && name !== 'element' && name !== 'command'),
);

/** Whether a type selector can mean something: a known element, one of SVG's filters, or a custom element, which has a hyphen. */
export const isKnownElement = (lower: string): boolean =>
  known.has(lower) || lower.includes('-') || /^fe[a-z]+$/.test(lower);
