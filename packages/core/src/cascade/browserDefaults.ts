/**
 * What browsers declare before any page does, as far as it concerns what pages declare; presentational attributes are apart.
 *
 * HTML Standard, "Rendering": "Hidden elements", "The page", "Flow content", "Phrasing content", "Bidirectional text",
 * "Sections and headings", "Lists", "Tables", "Form controls", "The hr element", "The fieldset and legend elements". Where
 * Chromium and the standard part, Chromium stands: see browserDefaults.test.ts.
 */
export const browserDefaults = `
@namespace url(http://www.w3.org/1999/xhtml);
@namespace svg url(http://www.w3.org/2000/svg);
:root { view-transition-name: root }
area, base, basefont, datalist, head, link, meta, noembed, noframes, param, rp, script, style, template, title { display: none }
input[type=hidden i] { display: none !important }
noscript { display: none !important }
html, body, address, blockquote, center, dialog, div, figure, figcaption, footer, form, header, hr, legend, listing, main, p,
plaintext, pre, search, xmp, article, aside, h1, h2, h3, h4, h5, h6, hgroup, nav, section, dir, dd, dl, dt, menu, ol, ul,
fieldset, details, summary, option, optgroup, frameset, frame { display: block }
body { margin: 8px }
blockquote, figure, listing, p, plaintext, pre, xmp { margin-block: 1em }
blockquote, figure { margin-inline: 40px }
address, cite, dfn, em, i, var { font-style: italic }
listing, plaintext, pre, xmp { font-family: monospace; white-space: pre }
b, strong { font-weight: bolder }
code, kbd, samp, tt { font-family: monospace }
listing, plaintext, pre, xmp, code, kbd, samp, tt { font-size: 13px }
big { font-size: larger }
small, sub, sup { font-size: smaller }
sub { vertical-align: sub }
sup { vertical-align: super }
center { text-align: -webkit-center }
ruby { display: ruby }
rt { display: ruby-text }
ruby > rt, ruby > rtc { font-size: 50%; text-align: start }
:any-link { color: -webkit-link; text-decoration: underline; cursor: pointer }
:visited { color: -webkit-link }
:any-link:active { color: -webkit-activelink }
:focus-visible { outline: auto 1px -webkit-focus-ring-color }
mark { background-color: yellow; color: black }
abbr[title], acronym[title] { text-decoration: dotted underline }
ins, u { text-decoration: underline }
del, s, strike { text-decoration: line-through }
::marker { unicode-bidi: isolate; font-variant-numeric: tabular-nums; text-transform: none; text-align: start; text-align-last: auto; text-indent: 0; white-space: pre }
q::before { content: open-quote }
q::after { content: close-quote }
nobr { white-space: nowrap }
nobr wbr { white-space: normal }
address, blockquote, center, div, figure, figcaption, footer, form, header, hr, legend, listing, main, p, plaintext, pre,
summary, xmp, article, aside, h1, h2, h3, h4, h5, h6, hgroup, nav, search, section, table, caption, colgroup, col, thead, tbody,
tfoot, tr, td, th, dir, dd, dl, dt, menu, ol, ul, li, bdi, output, [dir=ltr i], [dir=rtl i], [dir=auto i] { unicode-bidi: isolate }
bdo, bdo[dir] { unicode-bidi: isolate-override }
textarea[dir=auto i], pre[dir=auto i] { unicode-bidi: plaintext }
h1, h2, h3, h4, h5, h6 { font-weight: bold }
h1 { margin-block: 0.67em; font-size: 2em }
h2 { margin-block: 0.83em; font-size: 1.5em }
h3 { margin-block: 1em; font-size: 1.17em }
h4 { margin-block: 1.33em }
h5 { margin-block: 1.67em; font-size: 0.83em }
h6 { margin-block: 2.33em; font-size: 0.67em }
li { display: list-item; text-align: match-parent }
dir, dl, menu, ol, ul { margin-block: 1em }
:is(dir, dl, menu, ol, ul) :is(dir, dl, menu, ol, ul) { margin-block: 0 }
dd { margin-inline-start: 40px }
dir, menu, ol, ul { padding-inline-start: 40px }
ol { list-style-type: decimal }
dir, menu, ul { list-style-type: disc }
:is(dir, menu, ol, ul) :is(dir, menu, ul) { list-style-type: circle }
:is(dir, menu, ol, ul) :is(dir, menu, ol, ul) :is(dir, menu, ul) { list-style-type: square }
table { display: table; box-sizing: border-box; border-spacing: 2px; border-collapse: separate; text-indent: initial }
caption { display: table-caption; text-align: -webkit-center }
colgroup { display: table-column-group }
col { display: table-column }
thead { display: table-header-group }
tbody { display: table-row-group }
tfoot { display: table-footer-group }
tr { display: table-row }
td, th { display: table-cell; padding: 1px }
th { font-weight: bold; text-align: -internal-center }
thead, tbody, tfoot, table > tr { vertical-align: middle }
tr, td, th { vertical-align: inherit }
thead, tbody, tfoot, tr { border-color: inherit }
input, textarea, select, button { letter-spacing: initial; word-spacing: initial; text-transform: initial; text-indent: initial;
  text-shadow: initial; display: inline-block; text-align: start; margin: 0 }
input:is([type=reset i], [type=button i], [type=submit i]), button { text-align: center }
select, button, input:is([type=radio i], [type=checkbox i], [type=reset i], [type=button i], [type=submit i], [type=color i], [type=search i]) { box-sizing: border-box }
img { overflow: clip; overflow-clip-margin: content-box }
label { cursor: default }
input, textarea, select, button { font: 13.3333px Arial; color: FieldText; cursor: text }
input { background-color: Field; border: 2px inset light-dark(#767676, #858585); padding: 1px 2px }
select, button, input:is([type=reset i], [type=button i], [type=submit i], [type=checkbox i], [type=radio i], [type=image i], [type=file i], [type=color i], [type=range i]) { cursor: default }
button, input:is([type=reset i], [type=button i], [type=submit i]) { background-color: ButtonFace; color: ButtonText; border: 2px outset ButtonBorder; padding: 1px 6px }
input:is([type=checkbox i], [type=radio i]) { background-color: initial; border: initial; padding: initial; margin: 3px 3px 3px 4px }
input:is([type=image i], [type=file i], [type=range i]) { background-color: initial; border: initial; padding: initial }
input:is([type=range i]) { margin: 2px }
select { background-color: Field; border: 1px solid light-dark(#767676, #858585); border-radius: 0; white-space: pre; align-items: center; padding: initial }
textarea { background-color: Field; border: 1px solid light-dark(#767676, #858585); padding: 2px; font-family: monospace; resize: both; overflow: auto; overflow-wrap: break-word; column-count: initial }
option { padding: 0 2px 1px; white-space: nowrap; min-height: 1.2em; font-weight: normal }
progress, meter { display: inline-block; box-sizing: border-box; vertical-align: -0.2em }
progress { width: 10em; height: 1em }
meter { width: 5em; height: 1em }
textarea { white-space: pre-wrap }
input, textarea, button, select, meter, progress { appearance: auto }
audio { width: 300px; height: 54px }
optgroup { font-weight: bolder }
hr { color: gray; border: 1px inset; margin-block: 0.5em; margin-inline: auto; overflow: hidden }
fieldset { margin-inline: 2px; border: groove 2px ThreeDFace; padding-block: 0.35em 0.625em; padding-inline: 0.75em; min-inline-size: min-content }
legend { padding-inline: 2px }
iframe { border: 2px inset }
img[align=left i] { margin-right: 3px }
img[align=right i] { margin-left: 3px }
video { object-fit: contain }
details > summary:first-of-type { display: list-item; counter-increment: list-item 0; list-style: disclosure-closed inside }
details[open] > summary:first-of-type { list-style-type: disclosure-open }
marquee { display: inline-block; text-align: initial; overflow: hidden }
dialog:not([open]) { display: none }
svg|svg:not(:root) { overflow: hidden; overflow-clip-margin: content-box }
svg|text { text-wrap-mode: nowrap }
svg|symbol, svg|image, svg|marker, svg|pattern, svg|foreignObject { overflow: hidden }
svg|*:not(svg|svg), svg|*:not(svg|foreignObject) > svg|svg { transform-origin: 0 0 }
embed, object, canvas, iframe, video { overflow: clip; overflow-clip-margin: content-box }
`;

/** Added on pages in quirks mode. HTML Standard, "Rendering": "Tables", "Margin collapsing quirks", "Form controls". */
export const quirksDefaults = `
table { font-weight: initial; font-style: initial; font-variant: initial; font-size: initial; line-height: initial; white-space: initial; text-align: start }
`;
