import { describe, expect, test } from '@jest/globals';
import css from '@webref/css';
import { askChromium } from '../testing/chromium.ts';
import { initialValues } from './initialValues.ts';
import { isInherited, longhandsOf, propertyKind } from './longhands.ts';
import { longhandNames, longhandsOfShorthand } from './propertyTable.ts';

const samples = ['0','1px','3px','1','2','5','0.5','50%','auto','none','red','rgb(1, 2, 3)','"x"','x','left','right','center','both','hidden','scroll','inset','solid','dotted','italic','bold','700','all','block','end','start','ease','linear','1s','2s','rtl','bidi-override','vertical-rl','collapse','bottom','hide','pre','nowrap','uppercase','underline','optimizelegibility','optimizeSpeed','geometricprecision','circle(1px)','url(#a)','linear-gradient(red,blue)','1fr','repeat','wrap','column','row','stretch','baseline','contain','cover','text','visible','clip','break-all','break-word','anywhere','manual','pixelated','evenodd','square','round','painted','10deg','rotate(3deg)','translate(1px)','1px 2px','balance','read-write','element','dark','light','isolate','multiply','fixed','absolute','sticky','small-caps','condensed','mixed','upright','under','dot','filled','open','"a"','"liga" 0','"wght" 2','over','first','last','strict','loose','alphabetic','middle','sRGB','linearRGB','smooth','size','paint','normal','always','page','avoid','proximity','x mandatory','inline','pan-x','reverse','alternate','infinite','paused','forwards','span 2','a','after-white-space','reverse','2 2','2 2 2','slice','clone','100','auto 1px','auto auto','antialiased','monospace','content-box','border-box','fill-box','view-box','no-repeat','preserve','preserve-3d','flat','1 / 2','attr(x)','open-quote','decimal','square inside','inside','default','pointer','grab','discretionary','no-limit','allow-keywords','no-autospace','space-all','trim-start','--x','exact','economy','preserve-parent-color','from-image','element','grayscale','crisp-edges']; // oxfmt-ignore

// the browser answers: a value set on a parent, looked for on its child
test('which longhands inherit, as in Chromium', async () => {
  const ask = `(() => {
    const [parent, child] = [document.getElementById('a'), document.getElementById('b')];
    const read = (element, name) => getComputedStyle(element).getPropertyValue(name);
    return ${JSON.stringify(longhandNames)}.map((name) => {
      let answer = '?';
      for (const value of ${JSON.stringify(samples)}) {
        parent.style.cssText = '';
        const [parentBefore, childBefore] = [read(parent, name), read(child, name)];
        parent.style.setProperty(name, value);
        const [set, got] = [read(parent, name), read(child, name)];
        if (set === parentBefore) continue;
        if (got === set && got !== childBefore) return 'yes';
        answer = 'no';
      }
      return answer;
    });
  })()`;
  const html = '<!DOCTYPE html><div style="display: none"><div id=a><div id=b></div></div></div>';
  const [answers] = (await askChromium([{ html, ask }])) as [readonly string[]];
  const parted = longhandNames.filter((name, i) => answers[i] !== '?' && (answers[i] === 'yes') !== isInherited(name));
  expect(parted).toEqual([]);
  expect(answers.filter((answer) => answer !== '?').length).toBeGreaterThan(400);
});

test('initial values are those Chromium computes for `all: initial`', async () => {
  const ask = `(() => {
    const style = getComputedStyle(document.getElementById('p'));
    return Object.fromEntries([...style].map((name) => [name, style.getPropertyValue(name)]));
  })()`;
  const html = '<!DOCTYPE html><p id=p style="all: initial; display: none">';
  const [answer] = (await askChromium([{ html, ask }])) as [Record<string, string>];
  expect({ ...answer, display: 'inline' }).toEqual(initialValues);
});

// Chromium is behind the drafts here (animation-trigger, background-blend-mode, rule-*), or names longhands its own way
const partedSets: readonly string[] = [
  '-webkit-animation', '-webkit-box-shadow', '-webkit-mask', '-webkit-mask-box-image', 'animation', 'background', 'columns',
  'mask', 'rule-inset-cap', 'rule-inset-junction', 'rule-visibility-items', 'view-timeline',
]; // oxfmt-ignore

// @webref/css 8.7.5, scraped from the standards; where it parts from Chromium, Chromium stands
describe('the table against the standards', () => {
  test('longhand sets differ in listed properties only', async () => {
    const { properties } = await css.listAll();
    const leaves = (name: string, seen = new Set<string>()): string[] => {
      const found = properties.find((p) => p.name === name);
      const parts = [...(found?.longhands ?? []), ...(found?.resetLonghands ?? [])];
      if (parts.length === 0 || seen.has(name)) return [name];
      return parts.flatMap((part) => leaves(part, new Set([...seen, name])));
    };
    const differing = Object.keys(longhandsOfShorthand).filter((name) => {
      const found = properties.find((p) => p.name === name);
      if (!found?.longhands || propertyKind(name) !== 'shorthand') return false;
      return [...new Set(leaves(name))].sort().join() !== [...longhandsOf(name)].sort().join();
    });
    expect(differing).toEqual(partedSets);
  });
});
