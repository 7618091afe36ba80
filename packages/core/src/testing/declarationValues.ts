/** Values of all kinds, right for few properties and wrong for most. */
export const values: readonly string[] = String.raw`
  0 | 1px | -1px | 1 | -1 | 0.5 | 1.5 | 50% | -5% | auto | none | normal | red | #fff | #ff | url(a.png) | "x" | x | x y |
  1px 2px | 1px 2px 3px | 1px 2px 3px 4px | 1px 2px 3px 4px 5px | 1px solid red | left | right | center | top | bottom |
  start | end | left top | center center | inherit | calc(1px + 2%) | calc(1 + 2) | 1s | -1s | 100 | 400 | 1e3 | 10deg |
  transparent | currentColor | rgb(1,2,3) | hsl(1,2%,3%) | solid | dotted | bold | italic | 12px serif |
  Arial, sans-serif | 1 / 2 | 1px / 2px | all | both | hidden | visible | scroll | inset | a b c | none none | auto auto |
  1fr | repeat(2, 1fr) | minmax(1px,1fr) | [a] 1px | circle(1px) | blur(1px) | rotate(3deg) | translate(1px) |
  linear-gradient(red,blue) | ease | linear | var(--x) | 1px, 2px | none, none | red, blue | url(a), auto | 1 1 0 |
  1px 1px red | counter(x) | attr(title) | min-content | fit-content | fit-content(1px) | stretch | underline |
  underline red | block | inline | flow-root | 2 | 3 4 | 1px auto | auto 1px | first | last baseline | repeat | repeat-x |
  repeat no-repeat | cover | border-box | text | 1px solid | thin | medium | thick | serif | content-box padding-box |
  -2 | 1001 | "a" "b" | 1px 50% | min(1px,2px) | clamp(1px,2px,3px) | env(x) | inherit inherit | red !x | 1 px | 10 10 |
  auto 1 / 2 | 1dvh | 1svw | 1lvh | 1vi | 1cqw | 1rlh | 1lh | 1cap | 1ric | 1rex | 1ic | 1rch | oklch(50% .1 20) |
  lab(50% 1 2) | color(display-p3 1 0 0) | color-mix(in srgb, red, blue) | light-dark(red, blue) | hwb(1 2% 3%) |
  rgb(1 2 3 / 4%) | rgb(from red r g b) | color-mix(in oklch longer hue, red, blue) | contrast-color(red) |
  alpha(from red / 50%) | image-set("a.png" 1x) | -webkit-image-set(url(a) 1x) | cross-fade(url(a), url(b)) |
  element(#a) | conic-gradient(red,blue) | repeating-conic-gradient(red,blue) | linear-gradient(in oklch, red, blue) |
  -webkit-linear-gradient(red,blue) | -webkit-gradient(linear, 0 0, 0 100%, from(red), to(blue)) | paint(x) | sin(1deg) |
  round(1px,2px) | pow(2,2) | calc(pi * 1px) | calc-size(auto, size) | sign(1) | abs(1px) | rem(3px,2px) |
  hypot(1px,2px) | progress(1px,0px,2px) | anchor(top) | anchor-size(width) | sibling-index() |
  calc(1px * sibling-index()) | random(1px,2px) | path("M0 0") | shape(from 0 0, line to 1px 1px) |
  xywh(1px 2px 3px 4px) | rect(1px 2px 3px 4px) | inset(1px) | polygon(0 0) | ellipse() | ray(1deg) |
  url(a) format("woff2") | src("a") | steps(1, jump-start) | linear(0, 1) | spring(1) | scroll() | view() | subgrid |
  masonry | grid-lanes | repeat(auto-fill, 1px) | contents | ruby | math | run-in | inline flex | block grid | flow |
  inline-grid | list-item | inline list-item | table-cell | ruby-text | -webkit-box | -webkit-flex | -moz-box | clip |
  overlay | safe center | unsafe end | plaintext | isolate-override | break-word | anywhere | break-spaces | keep-all |
  auto-phrase | pretty | balance | stable | avoid-orphans | from-font | cap-height | under left | over right |
  sideways-rl | vertical-lr | upright | mixed | full-width | full-size-kana | math-auto | capitalize full-width |
  trim-start | each-line | 1em each-line hanging | hanging | match-parent | justify-all | text-bottom | ideographic |
  1ch | fade | "..." | ellipsis clip | only-child | allow-keywords | pan-x | pinch-zoom | manipulation | x mandatory |
  y proximity | both mandatory | system-ui | ui-serif | emoji | fangsong | generic(kai) | small-caps | historical-forms |
  stylistic(x) | tabular-nums | sub | super | jis78 | -apple-system-body | caption | menu | status-bar | lighter |
  bolder | 950 | 0.3 | oblique 10deg | oblique | condensed | 75% | xxx-large | smaller | larger | auto 0.5 |
  cap-height 0.5 | "a" 1 | "liga" off | style | content | inline-size | layout paint | strict | layer | x / inline-size |
  scroll-state | size | auto none | 1px 1px 1px | color-burn | plus-lighter | plus-darker | difference | luminosity |
  isolate | luminance | match-source | alpha | add | exclude | intersect | no-clip | fill-box | stroke-box | view-box |
  border-area | text border-box | fixed | local | round | space | round space | repeat-y no-repeat | from-image | snap |
  crisp-edges | pixelated | high-quality | -webkit-optimize-contrast | smooth | -webkit-crisp-edges | optimizeSpeed |
  optimize-contrast | geometricPrecision | sRGB | linearRGB | invert | -webkit-focus-ring-color | highlight |
  accentcolor | accentcolortext | canvas | buttonborder | graytext | activeborder | mark | selecteditem | -webkit-link |
  -webkit-text | linktext | rebeccapurple | dotted solid | wavy | underline wavy red 1px | spelling-error | blink |
  grammar-error | skip | edges | objects | ink | blinking | under | from-font 1px | filled dot | "x" red | open sesame |
  disc | decimal-leading-zero | symbols("a") | "-" | disclosure-open | japanese-informal | ethiopic-numeric |
  -moz-arabic-indic | hebrew | inside "x" | counters(x, ".") | open-quote | "a" / "b" | url(a) / "x" | none / "x" |
  leader("x") | target-counter(url(a), b) | element(x) | string(x) | x 1 y 2 | reversed(x) 1 | reversed(x) | auto-add |
  avoid | avoid-page | recto | verso | left right | column | region | page | always | 1 / span 2 | span 2 / x |
  a / b / c / d | "a b" "c d" | auto-flow dense | dense | row dense | auto-flow / 1px | 1px / auto-flow | row nowrap |
  column-reverse | wrap-reverse | balance-all | flex-visual | stretch 1px | 1px stretch | legacy left | self-start |
  space-evenly | anchor-center | baseline | first baseline | unsafe | no-autospace | insert | trim-both cap alphabetic |
  text-box | trim-end | auto cap | x-slow | drag | no-drag | manual | -webkit-fill-available | -moz-available |
  -moz-fit-content | -webkit-fit-content | -moz-min-content | -webkit-min-content | intrinsic | min-intrinsic |
  -moz-none | -moz-pre-wrap | -webkit-center | -moz-center | -webkit-sticky | sticky | -webkit-grab | -webkit-zoom-in |
  zoom-in | all-scroll | url(a) 1 2, auto | none !x | visibleFill | bounding-box | stroke | painted | hover | coarse |
  hidden auto | clip visible | scroll hidden | -webkit-paged-x | -moz-scrollbars-none | overlay auto | contain | chain |
  no-preference | running(x) | absolute | static | inline-start | footnote | snap-block | inline-end | both-inline |
  1px 2px, 3px | rect(1px,2px,3px,4px) | margin-box | half-border-box | circle() border-box | closest-side | at center |
  translate3d(1px,2px,3px) | matrix(1,0,0,1,0,0) | perspective(none) | perspective(1px) | rotate3d(1,1,1,1deg) | x 30deg |
  1 1 1deg | 1 2 3 | 10% 20% | preserve-3d | rotate(3) | skew(1deg) | scale(50%) | scale(1) | top left 1px |
  right 1px bottom 2px | top 1px | left 1px top | auto / 1px | reverse 30deg | auto 30deg | reverse |
  cubic-bezier(0,0,1,1) | ease-in | step-end | alternate-reverse | backwards | paused | x 1s | 1s x 2s | "x" 1s |
  none 1s | 1s, 2s | allow-discrete | opacity 1s allow-discrete | infinite | 2.5 | accumulate | replace | entry 0% exit |
  contain 1% | --x | --x inline | --x, --y | none x | drop-shadow(1px 1px) | blur() | hue-rotate(0) | brightness(50%) |
  opacity(.5) url(#x) | url("#x") blur(1px) | auto red | 1px auto red | outset | double 1px | groove | 2px inset | 0 0 |
  fill 1 | 1 fill | url(a) 1 / 2 / 3 stretch | url(a) 30 fill / 1px round | 1 2 3 4 fill | 0 / 1px | 50% / 1px 2px |
  superellipse(2) | squircle | bevel | notch | scoop | collapse | slice | clone | auto hidden | bold 12px/1.5 serif |
  italic small-caps bold condensed 12px/1 x | 12px/2 "A", x | icon | message-box | -webkit-small-control |
  12px system-ui | normal 1px x | oblique 10deg 12px x | optional | swap | block axis | none auto 1 | wght | "wght" 500 |
  "wght" 1, "wdth" 2 | dark | light | only light | dark light | normal dark | x dark | preserve-parent-color | economy |
  exact | autohide | no-limit | 3 | 3 2 | normal 2 | drop | raise | 1.5 2 | 2 drop | hyphenate | 4 auto | auto auto 4 |
  8 | consistent | loose | none both | allow-end | first last | force-end | alphabetic | from-parent | leading | spread |
  text-over-edge | cap alphabetic | ex | collapse preserve | preserve | preserve-breaks | preserve nowrap |
  discard-before | nowrap | wrap balance | break-spaces nowrap | pre-line | auto-same | content-visibility |
  visible auto | hidden-until | auto-content | red blue | auto auto auto | stable both-edges | both-edges | smooth auto |
  instant | 10px 20px | start end | none center | normal always | textfield | searchfield | button | menulist | meter |
  slider-horizontal | push-button | base | base-select | square-button | listbox | progress-bar | media-play-button`
  .trim()
  .split(/\s*\|\s*/);
