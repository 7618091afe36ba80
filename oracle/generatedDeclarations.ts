import type { Random } from '../packages/core/src/testing/random.ts';

const colours = [
  'red',
  'GREEN',
  '#f00',
  '#00F8',
  'rgb(1 2 3)',
  'rgba(1,2,3,.5)',
  'hsl(120, 50%, 50%)',
  'currentColor',
  'transparent',
  '#ff',
  'f00',
  '#12345',
  'redd',
];
const lengths = [
  '0',
  '1px',
  '2em',
  '-3px',
  '10%',
  'auto',
  '.5rem',
  '1e1px',
  '4',
  '3 px',
  'calc(1px + 2%)',
  '2ex',
  'min(1px, 2px)',
  '1PX',
];
const values: Readonly<Record<string, readonly string[]>> = {
  color: colours,
  'background-color': colours,
  background: ['red', 'none', 'url(i.png) no-repeat', 'red url("i.png") 0 0 / cover', 'linear-gradient(red, blue)', '#0f0 fixed', 'red blue', 'url(a.png), url(b.png) red', 'inherit'],
  'background-image': ['none', 'url(i.png)', "url('../i.png')", 'url()', 'linear-gradient(red,blue)', 'i.png'],
  margin: ['0', '1px 2px', '1px 2px 3px', '1px 2px 3px 4px', 'auto', '1px 2px 3px 4px 5px', '10', '-1em 0', 'inherit'],
  'margin-left': lengths, 'margin-inline': ['1px', '1px 2px', 'auto'], 'margin-inline-start': lengths, 'margin-top': lengths, 'margin-block-end': lengths,
  padding: ['0', '1px 2px', '-1px', '1em', '5px 6px 7px 8px'], 'padding-left': lengths, 'padding-inline-end': lengths,
  border: ['1px solid red', 'none', '0', 'thick double', 'solid', '1px solid red blue', 'medium none', 'inherit'],
  'border-top': ['2px dotted', 'none', '1px'], 'border-color': ['red', 'red green', 'transparent'], 'border-width': ['1px', 'thin thick', '-1px'], 'border-left-style': ['solid', 'hidden', 'dot'], 'border-inline-start': ['1px solid'], 'border-radius': ['1px', '1px / 2px', '50%'], 'border-start-start-radius': ['3px'],
  font: ['12px serif', 'bold 1em/1.5 Georgia, serif', 'caption', 'italic small-caps 700 condensed 14px/2 "A B", sans-serif', '12px', 'inherit', 'normal 400 10pt x'],
  'font-size': ['12px', '150%', 'larger', 'x-small', '1.2em', '12'], 'font-weight': ['bold', '400', 'bolder', '450', '1001', 'normal'], 'font-family': ['Arial', '"Times New Roman", serif', 'a b c', '1a', 'monospace'], 'font-style': ['italic', 'oblique 10deg', 'slanted'],
  'line-height': ['1.5', 'normal', '20px', '120%', '-1'], 'text-align': ['left', 'center', 'start', '-webkit-center', 'middle', 'justify'], 'text-decoration': ['none', 'underline', 'underline dotted red', 'underline overline', 'line-through 2px'], 'text-indent': lengths, 'text-transform': ['uppercase', 'none', 'full-width'], 'letter-spacing': ['1px', 'normal', '1'], 'white-space': ['nowrap', 'pre', 'pre-line', 'wrap'], 'word-wrap': ['break-word'], 'overflow-wrap': ['anywhere', 'normal'], 'vertical-align': ['top', 'middle', '2px', 'super', 'center'],
  display: ['block', 'inline', 'none', 'inline-block', 'flex', 'grid', 'table-cell', 'run-in', 'list-item', 'contents', 'block flow'], position: ['relative', 'absolute', 'sticky', 'fixed', 'center'], float: ['left', 'none', 'inline-start', 'middle'], clear: ['both', 'left'], top: lengths, left: lengths, inset: ['0', '1px 2px'], 'inset-inline': ['3px'], 'z-index': ['1', 'auto', '1.5', '-2'],
  width: lengths, height: lengths, 'inline-size': lengths, 'max-width': ['none', '10px', 'auto'], 'min-height': ['0', 'auto', 'min-content'], overflow: ['hidden', 'scroll auto', 'visible', 'clip'], 'overflow-x': ['auto', 'hidden'], opacity: ['.5', '50%', '2'], visibility: ['hidden', 'collapse', 'visible'], cursor: ['pointer', 'url(c.png), auto', 'hand', 'url(c.png)'],
  'list-style': ['none', 'square inside', 'url(i.png) circle', 'upper-roman', 'none none'], 'list-style-type': ['disc', 'lower-greek', '"x"', 'none'], content: ['"x"', 'counter(n)', 'attr(title)', 'none', "'\\201C'", 'open-quote', 'x'], quotes: ['none', '"<" ">"', 'auto'], 'counter-reset': ['n', 'n 2 m'],
  flex: ['1', 'none', '1 1 0', 'auto', '2 10px'], 'flex-flow': ['row wrap', 'column'], gap: ['1px', '1px 2px'], 'grid-gap': ['2px'], 'place-items': ['center', 'start end'], 'grid-area': ['1 / 2', 'a'], columns: ['2', '10px 3', 'auto'], 'column-rule': ['1px solid red'],
  direction: ['rtl', 'ltr'], 'unicode-bidi': ['embed', 'isolate'], 'writing-mode': ['vertical-rl', 'horizontal-tb', 'vertical-lr', 'tb-rl'], outline: ['1px solid red', 'none', 'auto'], 'box-sizing': ['border-box'], '-webkit-box-sizing': ['border-box'], 'table-layout': ['fixed'], 'border-collapse': ['collapse', 'separate'], 'border-spacing': ['1px', '1px 2px'], 'caption-side': ['bottom', 'right'], 'empty-cells': ['hide'],
  all: ['unset', 'initial', 'inherit', 'revert', 'red'], '--v': ['red', '2px', ' ', 'var(--w)', '{a:b}'], '--w': ['1px', 'blue'], transform: ['rotate(3deg)', 'none', 'translate(1px, 2px) scale(2)'], 'box-shadow': ['none', '1px 1px red', 'inset 0 0 2px'], 'text-shadow': ['1px 1px 2px red', 'none'], 'page-break-before': ['always', 'auto'], 'break-before': ['page'], orphans: ['3'], colour: ['red'], '*color': ['red'], '_height': ['1px'], zoom: ['1', '2'], filter: ['blur(1px)', 'alpha(opacity=50)', 'none'], 'user-select': ['none'], appearance: ['none'], resize: ['both'], 'tab-size': ['4'], 'object-fit': ['cover'], 'mix-blend-mode': ['multiply'], 'accent-color': ['red'],
}; // prettier-ignore
const names = Object.keys(values);
const wide = ['inherit', 'initial', 'unset', 'revert', 'revert-layer'];
const broken = ['color', 'color:', 'color red', ':red', 'color: red !importan', 'color: "open', 'a{b:c}', 'color: red}', '@x y', 'color: url(a b)', ';;', '/* gone */', 'color: (red', '{color:red}', 'color: red ! important', '--x', '\\63olor: teal', 'COLOR: Olive', 'color: red\\9', 'p: q']; // prettier-ignore

export function declaration(random: Random): string {
  if (random.chance(0.07)) return random.pick(broken);
  const name = random.pick(names);
  let value = random.pick(values[name]!);
  if (random.chance(0.12)) value = random.pick(wide);
  else if (random.chance(0.07)) value = random.pick(['var(--v)', 'var(--w, 3px)', 'var(--none)', '1px var(--v)']);
  const important = random.chance(0.12) ? random.pick([' !important', '!IMPORTANT', ' ! important']) : '';
  return `${random.chance(0.05) ? name.toUpperCase() : name}${random.pick([':', ': ', ' : '])}${value}${important}`;
}

export const declarations = (random: Random, low: number, high: number): string =>
  random.times(low, high, () => declaration(random)).join(random.chance(0.9) ? '; ' : ';\n');
