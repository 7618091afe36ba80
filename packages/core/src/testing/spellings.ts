import type { Random } from './random.ts';

/** Ways to say a piece of a value, some with another meaning: what is compared must tell them apart. */
const ways: readonly (readonly [piece: RegExp, others: readonly string[]])[] = [
  [/(?<![\w.#-])0(?![\w.%])/, ['0px', '-0', '0.0', '+0', '0em', '00', '0%', '0e3']],
  [/(?<![\w.#-])1px/, ['1.0px', '+1px', '1PX', '01px', '1e0px', '.75pt']],
  [/50%/, ['center', '50.0%', '5e1%', '050%']],
  [/#fff(?!\w)/, ['white', '#FFFFFF', 'rgb(255,255,255)', 'rgb(255 255 255)', 'hsl(0 0% 100%)', '#ffff', 'hwb(0 100% 0%)']],
  [/#112233/, ['rgb(17,34,51)', '#123', '#123F', 'rgb(17 34 51/1)', 'rgb(17 34 51/100%)']],
  [/currentColor/i, ['currentcolor', 'inherit']],
  [/\b(auto|none|normal)\b/, ['AUTO', 'none', 'normal', 'initial', '0']],
  [/"x"/, ["'x'", '"\\78"', 'x', '"X"']],
  [/url\(a\.png\)/, ['url("a.png")', 'URL(a.png)', 'url( a.png )', 'url(./a.png)', 'url(A.png)']],
  [/, /, [',', ' , ', ',/**/']],
  [/ \/ /, ['/', ' /', '/ ']],
  [/45deg/, ['.125turn', '50grad', '45DEG']],
  [/0deg/, ['0', '0turn', '360deg']],
  [/1s/, ['1000ms', '1S', '1.0s']],
  [/\babc\b/, ['ABC', 'Abc', '\\61 bc']],
  [/left|top/, ['0%', '0', 'left center', 'top center', 'LEFT']],
  [/center/, ['50%', 'center center']],
  [/\b1\b/, ['1.0', '+1', '100%', '1e0']],
  [/\.5/, ['50%', '0.5', '.50']],
  [/\bmedium\b/, ['3px']],
  [/\bease\b/, ['cubic-bezier(.25,.1,.25,1)']],
  [/\blinear\b/, ['cubic-bezier(0,0,1,1)', 'linear(0,1)']],
  [/transparent/i, ['rgba(0,0,0,0)', '#0000', 'rgb(0 0 0/0)']],
  [/red\b/, ['#f00', 'RED', 'rgb(255,0,0)', 'hsl(0,100%,50%)', '#ff0000ff']],
  [/ /, ['  ', '\n', '/**/ ', '\t']],
  [/\b(\w+)\b/, ['$1 $1']],
  [/$/, [' 0', ' none', ' auto', ' 0px', ' 1', ' center', ' normal', ' repeat', ' scroll']],
  [/^/, ['0 ', 'none ', 'normal ', 'auto ', 'center ']],
]; // oxfmt-ignore

/** A value and near neighbours of it. */
export function spellings(value: string, count: number, random: Random): readonly string[] {
  const found = new Set([value]);
  for (let i = 0; i < count; i++) {
    const [piece, others] = random.pick(ways);
    const once = value.replace(piece, random.pick(others));
    const [second, more] = random.pick(ways);
    found.add(random.chance(0.3) ? once.replace(second, random.pick(more)) : once);
  }
  return [...found];
}
