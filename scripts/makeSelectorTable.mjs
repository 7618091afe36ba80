// Prints which pseudo-classes and pseudo-elements Chromium takes. The result stands in packages/core/src/selectors/pseudoTable.ts.
import css from '@webref/css';
import { launchChromium } from './chromium.mjs';
const names = [...new Set((await css.listAll()).selectors.map((s) => s.name.replace(/\(.*$/, '')))].filter((n) =>
  n.startsWith(':'),
);
const more = [
  '-webkit-autofill',
  '-webkit-any-link',
  '-webkit-any',
  '-webkit-full-screen',
  '-webkit-scrollbar',
  'matches',
  '-webkit-drag',
  'corner-present',
  'horizontal',
  'vertical',
  'decrement',
  'increment',
  'start',
  'end',
  'double-button',
  'single-button',
  'no-button',
  'window-inactive',
  '-internal-x',
].map((n) => ':' + n);
const els = [
  '-webkit-scrollbar',
  '-webkit-scrollbar-thumb',
  '-webkit-scrollbar-track',
  '-webkit-input-placeholder',
  '-webkit-file-upload-button',
  '-webkit-slider-thumb',
  '-webkit-inner-spin-button',
  '-webkit-outer-spin-button',
  '-webkit-search-cancel-button',
  '-webkit-anything-at-all',
  '-webkit-meter-bar',
  '-webkit-details-marker',
  '-moz-focus-inner',
  '-ms-clear',
  'before',
  'after',
  'first-line',
  'first-letter',
  'selection',
  'marker',
  'placeholder',
  'backdrop',
  'cue',
  'slotted',
  'part',
  'file-selector-button',
  'target-text',
  'spelling-error',
  'grammar-error',
  'highlight',
  'view-transition',
  'details-content',
  'checkmark',
  'picker',
  'picker-icon',
  'scroll-marker',
  'scroll-button',
  'column',
  'search-text',
].map((n) => '::' + n);
const browser = await launchChromium();
const page = await browser.newPage();
await page.setContent('<!doctype html>');
const out = await page.evaluate(
  (names) => {
    const ok = [];
    for (const n of names)
      for (const s of [n, n + '(a)', n + '(1)', n + '(en)', n + '(ltr)', n + '(left)'])
        if (CSS.supports(`selector(${s})`)) {
          ok.push(s);
        }
    return ok;
  },
  [...new Set([...names, ...more, ...els])],
);
await browser.close();
console.log(out.join('\n'));
