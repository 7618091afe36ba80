import { isOutsideAll, physicalCounterparts } from '../values/longhands.ts';
import type { CompiledBlock, CompiledDeclaration } from './compiledRule.ts';

/** One block that reaches an element: a rule's or its style attribute's. */
export interface StackSource {
  readonly block: CompiledBlock;
  readonly pseudoElement: string;
  /** Layer rank; the style attribute stands above every layer and every rule. */
  readonly layerRank: number;
  /** What must hold for it to apply; empty when it always applies. */
  readonly condition: string;
  /** What else tells it from an equal block: its layer, sheets that cannot be read before it, the folder `var()` counts from. */
  readonly mark: string;
}

/** A declaration in its place in the order of strength. */
export interface StackedDeclaration {
  readonly source: number;
  readonly compiled: CompiledDeclaration;
}

/**
 * All declarations of the blocks, weakest first. `sources` are weakest first for normal declarations, the style attribute last.
 * Important ones follow normal ones with the order of layers reversed; among equals the order of `sources` stands.
 *
 * CSS Cascading and Inheritance Level 5, "Cascade Sorting Order": origin and importance, element-attached styles, layers,
 * specificity, order of appearance.
 */
export function orderDeclarations(sources: readonly StackSource[]): StackedDeclaration[] {
  const normal: StackedDeclaration[] = [];
  const important: StackedDeclaration[] = [];
  sources.forEach(({ block }, source) => {
    for (const compiled of block.declarations)
      (compiled.declaration.important ? important : normal).push({ source, compiled });
  });
  const rank = (s: StackedDeclaration): number => sources[s.source]!.layerRank;
  if (important.length > 1)
    important.sort((a, b) => {
      const [x, y] = [rank(a), rank(b)];
      if (x === attributeRank || y === attributeRank) return x - y;
      return y - x;
    });
  return normal.concat(important);
}

/** Marks what the browser declares for an element itself, among its presentational attributes. */
export const browsersOwn = ' of the browser';

/** The layer rank of presentational hints: below every layer. */
export const hintRank = -1;

/** The layer rank of a style attribute. */
export const attributeRank = 1e9;

/**
 * For each longhand the declarations that can decide it, strongest first, as one comparable text, down to the first that
 * surely applies. Keys are `pseudo-element longhand`. Equal texts look the same at every width, in every medium and state.
 * Without `tellsImportance` that holds only where nothing runs that beats normal declarations and not important ones, or the
 * other way about: animations, transitions, scripts.
 */
export function slotKeys(sources: readonly StackSource[], tellsImportance = true): ReadonlyMap<string, string> {
  return new Map([...stacksOf(sources, tellsImportance)].map(([slot, stack]) => [slot, textOf(stack)]));
}

/** The declarations that can decide something, under whatever conditions, by the place of their block among the sources. */
export function decidersAmong(sources: readonly StackSource[]): ReadonlyMap<number, ReadonlySet<CompiledDeclaration>> {
  const out = new Map<number, Set<CompiledDeclaration>>();
  for (const { lines } of stacksOf(sources, true).values())
    for (const { source, compiled } of lines) {
      const known = out.get(source);
      if (known) known.add(compiled);
      else out.set(source, new Set([compiled]));
    }
  return out;
}

/** Of each slot the declarations that can decide it, strongest first: what `slotKeys` makes its texts of. */
export function slotLines(
  sources: readonly StackSource[],
): ReadonlyMap<string, readonly { readonly source: number; readonly text: string; readonly condition: string }[]> {
  return new Map([...stacksOf(sources, true)].map(([slot, { lines }]) => [slot, lines]));
}

function stacksOf(sources: readonly StackSource[], tellsImportance: boolean): ReadonlyMap<string, Stack> {
  const ordered = orderDeclarations(sources);
  const open = new Map<string, Stack>();
  for (const { source, compiled } of ordered)
    for (const slot of slotsOf(compiled, sources[source]!.pseudoElement))
      open.set(slot.slot, { lines: [], closed: false, rolled: false, atBrowser: false, covered: new Set() });
  for (let i = ordered.length - 1; i >= 0; i--) {
    const { source, compiled } = ordered[i]!;
    const { pseudoElement, condition, layerRank, mark: sourceMark } = sources[source]!;
    const important = tellsImportance && compiled.declaration.important ? ' !' : '';
    const isBrowsers = sourceMark.includes(browsersOwn);
    const mark = sourceMark + rollsBackTo(compiled, layerRank) + important;
    const sure = compiled.validity === 'valid' && !compiled.yields;
    if (compiled.declaration.property === 'all') appendAll(open, pseudoElement, ordered[i]!, condition, mark, sure);
    else
      for (const { slot, text, closes } of slotsOf(compiled, pseudoElement))
        if (isBrowsers || !open.get(slot)!.atBrowser)
          append(open.get(slot)!, text + mark, condition, sure && closes, ordered[i]!);
  }
  return open;
}

/**
 * `revert-layer` in a style attribute rolls back to the rules, in a rule to the layers below it. CSS Cascading and Inheritance
 * Level 5, "Rolling Back Cascade Layers: the revert-layer keyword".
 */
const rollsBackTo = ({ comparable }: CompiledDeclaration, layerRank: number): string =>
  layerRank === attributeRank && comparable.includes('revert-layer') ? ' to the rules' : '';

/**
 * `covered`: conditions under which something stronger surely applies, so that weaker declarations under the same one never do.
 * `rolled`: something rolls back to what stands further below, past declarations that would else decide. `atBrowser`: only what
 * browsers declare themselves counts any more.
 */
interface Stack {
  readonly lines: (StackedDeclaration & { readonly text: string; readonly condition: string })[];
  closed: boolean;
  rolled: boolean;
  atBrowser: boolean;
  readonly covered: Set<string>;
}

interface Slot {
  readonly slot: string;
  readonly text: string;
  readonly closes: boolean;
}

function slotsOf(compiled: CompiledDeclaration, pseudoElement: string): readonly Slot[] {
  const { declaration, longhands, comparable, values } = compiled;
  const out: Slot[] = [];
  longhands.forEach((longhand, i) => {
    const text = values ? `${longhand}:${values[i]}` : `${declaration.property}:${comparable}`;
    out.push({ slot: `${pseudoElement} ${longhand}`, text, closes: true });
    // on which side a flow-relative longhand lands is decided elsewhere: it may decide each physical one
    for (const physical of physicalCounterparts(longhand))
      out.push({ slot: `${pseudoElement} ${physical}`, text, closes: false });
  });
  return out;
}

function append(slot: Stack, text: string, condition: string, closes: boolean, stacked: StackedDeclaration): void {
  const { comparable, yields } = stacked.compiled;
  if (slot.closed || slot.covered.has(condition)) return;
  slot.lines.push({ ...stacked, text, condition });
  // back to the browser's own, past all that authors say; an element that is another one now has another there
  if (yields && comparable === 'revert' && condition === '') slot.atBrowser = true;
  slot.rolled ||= yields && comparable !== 'revert';
  if (!closes || slot.rolled) return;
  slot.closed = condition === '';
  slot.covered.add(condition);
}

/** What says under a condition what counts without it says nothing by that. */
function textOf({ lines, closed, rolled }: Stack): string {
  let from = lines.length;
  if (closed && !rolled) while (from > 1 && lines[from - 2]!.text === lines.at(-1)!.text) from--;
  const telling = closed && !rolled ? [...lines.slice(0, from - 1), lines.at(-1)!] : lines;
  return telling.map(({ text, condition }) => `${text}${condition === '' ? '' : ` if ${condition}`}\n`).join('');
}

function appendAll(
  open: Map<string, Stack>,
  pseudoElement: string,
  stacked: StackedDeclaration,
  condition: string,
  mark: string,
  sure: boolean,
): void {
  for (const [slot, stack] of open) {
    const longhand = slot.slice(pseudoElement.length + 1);
    if (slot.startsWith(`${pseudoElement} `) && !isOutsideAll(longhand))
      if (!stack.atBrowser) append(stack, `all:${stacked.compiled.comparable}${mark}`, condition, sure, stacked);
  }
}

/** The slots whose stacks differ. A slot only one side declares is compared with the other side's `all`. */
export function differingSlots(
  before: ReadonlyMap<string, string>,
  after: ReadonlyMap<string, string>,
): readonly string[] {
  const out: string[] = [];
  for (const slot of new Set([...before.keys(), ...after.keys()])) {
    const [pseudoElement, longhand] = splitSlot(slot);
    const fallback = isOutsideAll(longhand) ? '' : undefined;
    const left = before.get(slot) ?? fallback ?? before.get(`${pseudoElement} all`) ?? '';
    const right = after.get(slot) ?? fallback ?? after.get(`${pseudoElement} all`) ?? '';
    if (left !== right) out.push(slot);
  }
  return out;
}

export function splitSlot(slot: string): readonly [pseudoElement: string, longhand: string] {
  const at = slot.lastIndexOf(' ');
  return [slot.slice(0, at), slot.slice(at + 1)];
}
