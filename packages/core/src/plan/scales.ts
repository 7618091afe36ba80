import { tableOf } from '../source/tableOf.ts';
import type { SettleAttributes } from '../operations/gather/settleAttributes.ts';
import { parseFile } from '../page/parsePage.ts';
import type { Site } from '../source/site.ts';
import { attributeLook, type AttributeLook } from '../survey/attributeLooks.ts';
import { byWorth, mostPages, type Trade } from './trades.ts';

/** Looks of fewer than these many kinds are no scale. */
const fewestLooks = 3;
/** How far the numbers of a scale lie apart at most, by unit; what is farther apart is meant. Common practice. */
const widest: Readonly<Record<string, number>> = tableOf({ px: 10, pt: 8, em: 0.8, rem: 0.8, '%': 8 });

interface Step {
  readonly look: AttributeLook;
  readonly value: string;
  readonly number: number;
  readonly pages: Set<string>;
  elements: number;
}

interface Scale {
  readonly tag: string;
  readonly property: string;
  readonly unit: string;
  readonly steps: Map<string, Step>;
}

/** Style attributes that differ by one number a little: one class would do for them, if they said the same. */
export function scaleTrades(site: Site, pages: readonly string[]): readonly Trade[] {
  if (pages.length > mostPages) return [];
  const scales = new Map<string, Scale>();
  for (const path of pages) {
    const file = site.files.get(path);
    if (file?.text === undefined || !/\sstyle\s*=/i.test(file.text)) continue;
    for (const element of parseFile(file).elements) {
      const look = attributeLook(element);
      if (look) for (let i = 0; i < look.declarations.length; i++) note(scales, look, i, path);
    }
  }
  return [...scales.values()].flatMap(tradeFor).sort(byWorth);
}

/** Under what is left of a look when one number of one declaration is taken out. */
function note(scales: Map<string, Scale>, look: AttributeLook, at: number, page: string): void {
  const { property, value } = look.declarations[at]!;
  const rest = look.declarations
    .filter((_, i) => i !== at)
    .map((d) => `${d.property}:${d.value}${d.important ? '!' : ''}`);
  for (const found of value.matchAll(/(?<![\w#.-])(-?[\d.]+)(px|pt|em|rem|%)(?![\w%])/g)) {
    const unit = found[2]!;
    const around = `${value.slice(0, found.index)}#${value.slice(found.index + found[0].length)}`;
    const key = [look.tag, property, around, unit, ...rest.sort()].join('\n');
    let scale = scales.get(key);
    if (!scale) scales.set(key, (scale = { tag: look.tag, property, unit, steps: new Map() }));
    let step = scale.steps.get(look.key);
    if (!step)
      scale.steps.set(look.key, (step = { look, value, number: Number(found[1]), pages: new Set(), elements: 0 }));
    step.pages.add(page);
    step.elements++;
  }
}

function tradeFor({ tag, property, unit, steps }: Scale): readonly Trade[] {
  const list = [...steps.values()].sort((a, b) => a.number - b.number);
  if (list.length < fewestLooks || list.at(-1)!.number - list[0]!.number > widest[unit]!) return [];
  const to = middleOf(list);
  const others = list.filter((one) => one !== to);
  const pages = [...new Set(others.flatMap((one) => [...one.pages]))].sort();
  const operation: SettleAttributes = {
    kind: 'settle-attributes',
    tag,
    looks: others.map(({ look }) => look.key),
    property,
    value: to.value,
    pages,
  };
  const saves = { marks: 0, rules: others.length, declarations: others.length * to.look.declarations.length };
  return [
    {
      operation,
      label: tag,
      pages,
      others: to.pages.size,
      properties: [property],
      saves,
      scale: {
        from: others.map(({ value }) => value),
        to: to.value,
        elements: others.reduce((sum, one) => sum + one.elements, 0),
      },
    },
  ];
}

/** What most elements have; of several the one in the middle. */
function middleOf(steps: readonly Step[]): Step {
  const most = Math.max(...steps.map(({ elements }) => elements));
  const frequent = steps.filter(({ elements }) => elements === most);
  return frequent[frequent.length >> 1]!;
}
