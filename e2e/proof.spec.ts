import { expect, test, type Page } from '@playwright/test';
import { strToU8, zipSync } from 'fflate';
import { draftBar, openDemo } from './demoSite.ts';
import { asPrinted } from '../packages/web/src/ui/frameMedium.ts';
import { asHeld, heldStates, type HeldState } from '../packages/web/src/ui/frameState.ts';

/** What a rule of its own says on each page, before and after. */
const planted: readonly (readonly [property: string, before: string, after: string])[] = [
  ['color', 'red', 'navy'],
  ['margin-left', '0', '3px'],
  ['font-size', '16px', '17px'],
  ['letter-spacing', 'normal', '1px'],
  ['border-top', '1px solid red', '2px solid red'],
  ['display', 'block', 'inline'],
  ['background-color', 'white', '#fefefe'],
];
const rule = (i: number, value: string): string => `.k${i} { ${planted[i]![0]}: ${value} }`;
const sheet = (after: boolean): string =>
  [
    ...planted.map(([, one, two], i) => rule(i, after ? two : one)),
    `.k7::first-letter { color: ${after ? 'navy' : 'red'} }`,
    `.k8::before { content: "${after ? 'b' : 'a'}" }`,
    `@media print { .k9 { width: ${after ? 90 : 80}px } }`,
    '.k10, .k11 { color: green }',
  ].join('\n');

async function bringIn(page: Page): Promise<string> {
  const html = (i: number): string =>
    `<!DOCTYPE html><title>${i}</title><link rel="stylesheet" href="s.css"><p class="k${i}">Page ${i} of the timetable`;
  const files = Object.fromEntries(Array.from({ length: 12 }, (_, i) => [`p${i}.html`, strToU8(html(i))]));
  const buffer = Buffer.from(zipSync({ ...files, 's.css': strToU8(sheet(false)) }));
  const reply = await page.request.post('/api/sites', {
    multipart: { name: 'Planted', archive: { name: 'site.zip', mimeType: 'application/zip', buffer } },
  });
  return ((await reply.json()) as { id: string }).id;
}

test('ten planted differences: the proof and this browser find all ten, and nothing else', async ({ page }) => {
  const id = await bringIn(page);
  const file = (await (await page.request.get(`/api/sites/${id}/files/r1/s.css`)).json()) as { hash: string };
  const edit = { kind: 'edit-sheet', path: 's.css', hash: file.hash, text: sheet(true) };
  await page.request.put(`/api/sites/${id}/draft`, { data: { base: 1, version: 0, operations: [edit] } });
  await page.goto(`/sites/${id}/proof`);
  const measure = page.getByRole('region', { name: 'Measured in this browser' });
  await measure.getByRole('checkbox', { name: 'in print' }).check();
  await measure.getByRole('button', { name: 'Measure 12 pages' }).click();
  await expect(measure.getByRole('status')).toHaveText(
    '12 pages at 1280 px, in print: 2 the same, 10 not. It shows no difference that the proof does not tell.',
  );
  const { proof } = (await (await page.request.get(`/api/sites/${id}/draft/proof`)).json()) as {
    proof: { pages: { path: string; verdict: string }[] };
  };
  const same = proof.pages.filter(({ verdict }) => verdict === 'same').map((one) => one.path);
  expect(same).toEqual(['p10.html', 'p11.html']);
  // it is kept with the draft
  await page.reload();
  await expect(measure.getByRole('status')).toContainText('2 the same, 10 not');
});

test('pictures: what a screen shows otherwise is outlined on both, down to one step of colour; what it does not, is equal', async ({
  page,
}) => {
  const id = await bringIn(page);
  const file = (await (await page.request.get(`/api/sites/${id}/files/r1/s.css`)).json()) as { hash: string };
  const edit = { kind: 'edit-sheet', path: 's.css', hash: file.hash, text: sheet(true) };
  await page.request.put(`/api/sites/${id}/draft`, { data: { base: 1, version: 0, operations: [edit] } });
  const said: Record<number, string> = {};
  for (const i of [0, 4, 6, 8, 9, 10]) {
    await page.goto(`/sites/${id}/proof?open=p${i}.html`);
    await page.getByRole('button', { name: 'Draw both states' }).click();
    const box = page.getByRole('dialog');
    await expect(box.getByRole('status')).toContainText(/differs?|Equal/);
    said[i] = (await box.getByRole('status').innerText()).replace(/, .*/, '');
    if (i === 0) {
      await box.getByRole('button', { name: 'Next' }).click();
      await expect(box.locator('[data-now]')).toHaveCount(2);
    }
  }
  // the white one on white is one step off; in print alone nothing shows here
  expect(said).toEqual({
    0: '1 region differs',
    4: '1 region differs',
    6: '1 region differs',
    8: '1 region differs',
    9: 'Equal',
    10: 'Equal',
  });
});

test('pages that were gathered measure the same', async ({ page }) => {
  const reply = await page.request.post('/api/sites/demo');
  const { id } = (await reply.json()) as { id: string };
  const plan = await page.request.post(`/api/sites/${id}/proposal`, { data: { base: 1, sheet: 'css/ferry.css' } });
  const { operations } = (await plan.json()) as { operations: unknown[] };
  await page.request.put(`/api/sites/${id}/draft`, { data: { base: 1, version: 0, operations } });
  await page.goto(`/sites/${id}/proof`);
  const measure = page.getByRole('region', { name: 'Measured in this browser' });
  await measure.getByRole('button', { name: 'Measure 26 pages' }).click();
  await expect(measure.getByRole('status')).toContainText('26 pages at 1280 px: 26 the same.', { timeout: 120_000 });
});

// the proof counts importance there: CSS Basic User Interface 4, "Resizing Boxes: the resize property"
test('an important width is kept where a visitor draws at the corner, another one is not', async ({ page }) => {
  const widthDrawn = async (rule: string): Promise<number> => {
    await page.setContent(`<style>textarea { ${rule}; height: 60px }</style><textarea></textarea>`);
    const box = (await page.locator('textarea').boundingBox())!;
    const [x, y] = [box.x + box.width - 4, box.y + box.height - 4];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + 50, y, { steps: 5 });
    await page.mouse.up();
    return (await page.locator('textarea').boundingBox())!.width - box.width;
  };
  expect([await widthDrawn('width: 90px'), await widthDrawn('width: 90px !important')]).toEqual([50, 0]);
});

test('what a frame shows as print is what Chromium takes in print', async ({ page }) => {
  const lists = [
    'print',
    'screen',
    'only print and (min-width: 10px)',
    'not print',
    'not screen and (color)',
    'tv, print',
    '(min-width: 10px)',
    'not all',
    'not print and (min-width: 9999px)',
  ];
  const holds = (queries: readonly string[]) =>
    page.evaluate((all) => all.map((one) => matchMedia(one).matches), queries);
  await page.emulateMedia({ media: 'print' });
  const printed = await holds(lists);
  await page.emulateMedia({ media: 'screen' });
  expect(await holds(lists.map(asPrinted))).toEqual(printed);
});

test('what a frame shows as held is what Chromium takes of an element in that state, just as strong', async ({
  page,
}) => {
  await page.setContent('<style></style><p><a id="a" class="k" href="#" style="display:block;height:40px">a</a></p>');
  const selectors = [
    'a:hover',
    'p:hover > a',
    'a:not(:hover)',
    ':is(b, a:HOVER)',
    'a:focus',
    'p:focus-within a',
    'a:focus:hover',
    'a:active',
    'a:active:hover',
    '[href=":hover"], a:hover',
  ];
  /** For each selector, and for each order of it and a class: whether it wins. */
  const wins = (list: readonly string[]) =>
    page.evaluate((all) => {
      const block = document.querySelector('style')!;
      const link = document.querySelector('#a')!;
      const say = (text: string): string => {
        block.textContent = text;
        return getComputedStyle(link).top;
      };
      return all.map((one) => [
        say(`${one} { top: 1px }`),
        say(`a.k { top: 2px } ${one} { top: 1px }`),
        say(`${one} { top: 1px } a.k { top: 2px }`),
      ]);
    }, list);
  const states: Readonly<Partial<Record<HeldState, () => Promise<void>>>> = {
    'at rest': () => Promise.resolve(),
    focused: () => page.locator('#a').focus(),
    hovered: () => page.locator('#a').hover(),
    // without what pressing brings along: the focus
    pressed: async () => {
      await page.evaluate(() => addEventListener('mousedown', (event) => event.preventDefault()));
      await page.mouse.down();
    },
  };
  const held = async (state: HeldState) => wins(selectors.map((one) => asHeld(one, state)));
  const atRest = Object.fromEntries(
    await Promise.all(heldStates.map(async (state) => [state, await held(state)] as const)),
  );
  for (const [state, enter] of Object.entries(states) as [HeldState, () => Promise<void>][]) {
    await enter();
    expect({ state, is: await wins(selectors) }).toEqual({ state, is: atRest[state] });
    if (state === 'focused') await page.locator('#a').blur();
  }
  await page.mouse.up();
  // whether a link was visited no page may read; what is put in its place is a selector Chromium takes
  const visited = [asHeld('a:link', 'visited'), asHeld('a:visited', 'visited')];
  expect((await wins(visited)).map(([alone]) => alone)).toEqual(['auto', '1px']);
});

test('a difference nobody wanted is taken back by one act, and the page is the same again', async ({ page }) => {
  const id = await openDemo(page, 'proof');
  const { base, version } = (await (await page.request.get(`/api/sites/${id}/draft`)).json()) as {
    base: number;
    version: number;
  };
  const dropped = {
    kind: 'drop-declaration',
    where: 'block',
    selector: '#wrap h2',
    property: 'color',
    value: '#7a3b12',
  };
  await page.request.put(`/api/sites/${id}/draft`, { data: { base, version, operations: [dropped] } });
  await page.goto(`/sites/${id}/proof?open=timetable.html`);
  const differences = page.getByRole('region', { name: 'Differences' });
  await differences.getByRole('button', { name: 'Keep the old look' }).click();
  await expect(draftBar(page)).toContainText('25 pages look the same; notices looks different', { timeout: 60_000 });
  const { text } = (await (await page.request.get(`/api/sites/${id}/files/draft/timetable.html`)).json()) as {
    text: string;
  };
  expect(text.match(/class="kept-color"/g)).toHaveLength(3);
  await page.goto(`/sites/${id}/handoff`);
  await expect(page.getByRole('alert')).toContainText('There is no station “handoff”');
  await page.getByRole('link', { name: 'To the survey' }).click();
  await expect(page).toHaveURL(/\/survey$/);
});
