import { expect, test } from '@jest/globals';
import { askChromium } from '../testing/chromium.ts';
import { declarationValidity } from './declarationValidity.ts';
import { longhandsOf } from './longhands.ts';
import { longhandNames, longhandsOfShorthand } from './propertyTable.ts';

const values = ['0','1px','-1px','1','-1','0.5','1.5','50%','-5%','auto','none','normal','red','#fff','#ff','url(a.png)','"x"','x','x y','1px 2px','1px 2px 3px','1px 2px 3px 4px','1px 2px 3px 4px 5px','1px solid red','left','right','center','top','bottom','start','end','left top','center center','inherit','calc(1px + 2%)','calc(1 + 2)','1s','-1s','100','400','1e3','10deg','transparent','currentColor','rgb(1,2,3)','hsl(1,2%,3%)','solid','dotted','bold','italic','12px serif','Arial, sans-serif','1 / 2','1px / 2px','all','both','hidden','visible','scroll','inset','a b c','none none','auto auto','1fr','repeat(2, 1fr)','minmax(1px,1fr)','[a] 1px','circle(1px)','blur(1px)','rotate(3deg)','translate(1px)','linear-gradient(red,blue)','ease','linear','var(--x)','1px, 2px','none, none','red, blue','url(a), auto','1 1 0','1px 1px red','counter(x)','attr(title)','min-content','fit-content','fit-content(1px)','stretch','underline','underline red','block','inline','flow-root','2','3 4','1px auto','auto 1px','first','last baseline','repeat','repeat-x','repeat no-repeat','cover','border-box','text','1px solid','thin','medium','thick','serif','content-box padding-box','1','-2','1001','"a" "b"','1px 50%','min(1px,2px)','clamp(1px,2px,3px)','env(x)','inherit inherit','red !x','1 px','10 10','auto 1 / 2']; // oxfmt-ignore
const shorthands = Object.keys(longhandsOfShorthand);

/** Every property is asked with every third value, each value of every third property; the nightly form asks for all. */
const steps = process.env['ALL_VALUES'] === '1' ? 1 : 3;

// the browser answers by CSS.supports: properties it knows with the values above
test('what core calls valid Chromium takes, what core calls invalid it refuses; the rest is called unsure', async () => {
  const names = [...longhandNames, ...shorthands];
  const ask = `${JSON.stringify(names)}.map((n) => ${JSON.stringify(values)}.map((v) => (CSS.supports(n, v) ? 1 : 0)).join(''))`;
  const [answers] = (await askChromium([{ html: '<!DOCTYPE html>', ask }])) as [readonly string[]];
  const wrong: string[] = [];
  let asked = 0;
  let unsure = 0;
  names.forEach((name, i) =>
    values.forEach((value, k) => {
      if ((i + k) % steps !== 0) return;
      asked++;
      const taken = answers[i]![k] === '1';
      const said = declarationValidity(name, value);
      if (said === 'unsure') unsure++;
      else if ((said === 'valid') !== taken) wrong.push(`${name}: ${value} is ${said} here`);
    }),
  );
  expect(wrong).toEqual([]);
  expect(asked).toBeGreaterThan(60_000 / steps);
  expect(unsure / asked).toBeLessThan(0.2);
});

// CSS Cascading 5, "Shorthand Properties": the browser answers by element.style
test('every shorthand sets the longhands the table says, whatever its value', async () => {
  const ask = `${JSON.stringify(shorthands)}.map((n) => {
    const style = document.createElement('p').style;
    return ${JSON.stringify(values)}.flatMap((v) => {
      style.cssText = '';
      style.setProperty(n, v);
      const set = [...style].sort().join(' ');
      return set === '' ? [] : [set];
    });
  })`;
  const [answers] = (await askChromium([{ html: '<!DOCTYPE html>', ask }])) as [readonly (readonly string[])[]];
  const parted = shorthands.flatMap((name, i) => {
    const own = [...longhandsOf(name)].sort().join(' ');
    return [...new Set(answers[i])].filter((set) => set !== own).map((set) => `${name}: ${set} here ${own}`);
  });
  expect(parted).toEqual([]);
  expect(answers.flat().length).toBeGreaterThan(1000);
});
