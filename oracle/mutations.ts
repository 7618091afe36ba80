// Small sheets changed at random: what the proof calls the same must be so in Chromium, Gecko and WebKit, by the computed values of every
// element and pseudo-element. node … oracle/mutations.ts [--seed N] [--cases N] [--engine chromium,firefox,webkit]
import { parseArgs } from 'node:util';
import { proveSites } from '../packages/core/src/proof/proveSites.ts';
import { Random } from '../packages/core/src/testing/random.ts';
import { pageOf, siteOf } from '../packages/core/src/testing/siteOf.ts';
import { body, SheetMaker } from './mutatedSheet.ts';
import { openTab } from './openTab.ts';
import { serve } from './serve.ts';
import { whereLooksPart } from './whereLooksPart.mjs';

const { values } = parseArgs({
  options: {
    seed: { type: 'string', default: '1' },
    cases: { type: 'string', default: '500' },
    engine: { type: 'string', default: 'chromium,firefox,webkit' },
  },
});

type Pair = readonly [before: string, after: string];

const state = (css: string): ReturnType<typeof siteOf> => siteOf({ 'p.html': pageOf(`<style>${css}</style>`, body) });

/** Pairs that the proof calls the same. */
function samePairs(count: number, maker: SheetMaker): readonly Pair[] {
  const found: Pair[] = [];
  for (let tried = 0; found.length < count && tried < count * 60; tried++) {
    const [before, after] = maker.pair();
    if (before === after || /<\//.test(before + after)) continue;
    if (proveSites(state(before), state(after)).pages[0]!.verdict === 'same') found.push([before, after]);
  }
  return found;
}

const pairs = samePairs(Number(values.cases), new SheetMaker(new Random(Number(values.seed))));
const server = await serve(() => new TextEncoder().encode(`<!DOCTYPE html><title>t</title>${body}`));
let wrong = 0;
for (const name of values.engine.split(',')) {
  const { tab, close } = await openTab(name);
  for (let i = 0; i < pairs.length; i += 20) {
    const part = pairs.slice(i, i + 20);
    await tab.goto(`${server.origin}/p.html`);
    const found = await tab.evaluate<readonly string[]>(whereLooksPart, part);
    for (const [k, difference] of found.entries()) {
      if (difference === '') continue;
      wrong++;
      console.log(`${name}: ${difference}\n--- before\n${part[k]![0]}\n--- after\n${part[k]![1]}\n`);
    }
  }
  await close();
  console.log(`${name}: ${pairs.length} pairs called the same, ${wrong} wrong so far`);
}
server.close();
process.exit(wrong > 0 ? 1 : 0);
