import { RangeSet, StateEffect, StateField, type EditorState, type Extension, type Range } from '@codemirror/state';
import { Decoration, EditorView, GutterMarker, WidgetType, gutter, type DecorationSet } from '@codemirror/view';
import { ruleAt, type OutlinedDeclaration, type OutlinedRule } from '@syndeton/core';
import { coloursIn } from '../../../ui/Swatch.tsx';

/** How far a rule reaches, for the strip at its first line. */
export interface Reach {
  readonly elements: number;
  readonly pages: number;
  readonly strip: readonly number[];
}

/** What is known of the rules of a text. */
export interface KnownRules {
  readonly rules: readonly OutlinedRule[];
  /** Undefined where it is not known yet, or the rule is not in the draft. */
  readonly reachOf: (rule: OutlinedRule) => Reach | undefined;
  /** The value as it is in the draft, where it is another one there. */
  readonly wasOf: (rule: OutlinedRule, declaration: OutlinedDeclaration) => string | undefined;
}

const known = StateEffect.define<KnownRules>();

export const outline = StateField.define<KnownRules['rules']>({
  create: () => [],
  update(rules, transaction) {
    for (const effect of transaction.effects) if (effect.is(known)) return effect.value.rules;
    if (!transaction.docChanged) return rules;
    const at = (offset: number): number => transaction.changes.mapPos(offset, 1);
    return rules.map((rule) => ({ ...rule, start: at(rule.start), end: at(rule.end) }));
  },
});

/** Strips, colours, former values, and a hairline through the blank lines between rules. */
const marks = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(shown, transaction) {
    let next = shown.map(transaction.changes);
    for (const effect of transaction.effects)
      if (effect.is(known)) next = Decoration.set(marksFor(effect.value, transaction.state), true);
    return next;
  },
  provide: (field) => EditorView.decorations.from(field),
});

/** How far each rule reaches, at the right edge of its first line. */
const strips = StateField.define<RangeSet<GutterMarker>>({
  create: () => RangeSet.empty,
  update(shown, transaction) {
    let next = shown.map(transaction.changes);
    for (const effect of transaction.effects)
      if (effect.is(known)) next = RangeSet.of(stripsFor(effect.value, transaction.state), true);
    return next;
  },
});

/** The lines of the rule at the cursor. */
const ruleHere = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(shown, transaction) {
    const isNew = transaction.effects.some((effect) => effect.is(known));
    if (!isNew && !transaction.selection && !transaction.docChanged) return shown;
    const { state } = transaction;
    const rule = ruleAt(state.field(outline), state.selection.main.head);
    return rule ? Decoration.set(linesOf(rule, state)) : Decoration.none;
  },
  provide: (field) => EditorView.decorations.from(field),
});

export const ruleMarks: Extension = [
  outline,
  marks,
  strips,
  ruleHere,
  gutter({ class: 'cm-strips', side: 'after', markers: (view) => view.state.field(strips) }),
];

export const showRules = (view: EditorView, rules: KnownRules): void => view.dispatch({ effects: known.of(rules) });

const between = Decoration.line({ class: 'cm-between' });
const inRule = Decoration.line({ class: 'cm-inrule' });

function linesOf({ start, end }: OutlinedRule, { doc }: EditorState): Range<Decoration>[] {
  const out: Range<Decoration>[] = [];
  const last = doc.lineAt(Math.min(end, doc.length)).number;
  for (let n = doc.lineAt(Math.min(start, doc.length)).number; n <= last; n++) out.push(inRule.range(doc.line(n).from));
  return out;
}

function stripsFor({ rules, reachOf }: KnownRules, { doc }: EditorState): Range<GutterMarker>[] {
  return rules.flatMap((rule) => {
    const reach = rule.isNested ? undefined : reachOf(rule);
    return reach ? [new Strip(reach).range(doc.lineAt(Math.min(rule.start, doc.length)).from)] : [];
  });
}

function marksFor({ rules, wasOf }: KnownRules, state: EditorState): Range<Decoration>[] {
  const out: Range<Decoration>[] = [];
  let after = 0;
  for (const rule of rules) {
    if (!rule.isNested) {
      if (after > 0) out.push(...blankLines(state, after, rule.start));
      after = rule.end;
    }
    for (const one of rule.declarations) out.push(...declarationMarks(one, wasOf(rule, one), state));
  }
  return out;
}

function blankLines({ doc }: EditorState, from: number, to: number): Range<Decoration>[] {
  const last = doc.lineAt(to).number;
  for (let n = doc.lineAt(from).number + 1; n < last; n++)
    if (doc.line(n).text.trim() === '') return [between.range(doc.line(n).from)];
  return [];
}

function declarationMarks(
  { value, valueStart, end }: OutlinedDeclaration,
  was: string | undefined,
  { doc }: EditorState,
): Range<Decoration>[] {
  const out: Range<Decoration>[] = [];
  let from = 0;
  for (const colour of coloursIn(value)) {
    const at = value.indexOf(colour, from);
    from = at + colour.length;
    out.push(Decoration.widget({ widget: new Colour(colour), side: -1 }).range(valueStart + at));
  }
  const after = doc.sliceString(end, end + 1) === ';' ? end + 1 : end;
  if (was !== undefined) out.push(Decoration.widget({ widget: new Was(was), side: 2 }).range(after));
  return out;
}

function swatch(colour: string): HTMLElement {
  const box = document.createElement('span');
  box.className = 'sw';
  box.style.backgroundColor = colour;
  box.setAttribute('aria-hidden', 'true');
  return box;
}

class Colour extends WidgetType {
  private readonly colour: string;

  constructor(colour: string) {
    super();
    this.colour = colour;
  }

  override eq(other: Colour): boolean {
    return other.colour === this.colour;
  }

  override toDOM(): HTMLElement {
    return swatch(this.colour);
  }
}

class Was extends WidgetType {
  private readonly value: string;

  constructor(value: string) {
    super();
    this.value = value;
  }

  override eq(other: Was): boolean {
    return other.value === this.value;
  }

  override toDOM(): HTMLElement {
    const words = document.createElement('span');
    words.className = 'was';
    const [colour] = coloursIn(this.value);
    words.append('was ', ...(colour === undefined ? [] : [swatch(colour)]), this.value);
    return words;
  }
}

/** Pages the sheet dresses from left to right: a stroke where the rule has elements, a dot where it has none. */
class Strip extends GutterMarker {
  private readonly reach: Reach;

  constructor(reach: Reach) {
    super();
    this.reach = reach;
  }

  override eq({ reach }: Strip): boolean {
    return reach.elements === this.reach.elements && reach.strip.join() === this.reach.strip.join();
  }

  override toDOM(): HTMLElement {
    const { elements, pages, strip } = this.reach;
    const box = document.createElement('span');
    box.className = 'rch';
    if (elements === 0) {
      const words = document.createElement('span');
      words.className = 'dim';
      words.textContent = 'no page has it';
      box.append(words);
    } else box.append(strokes(strip, `on ${pages} ${pages === 1 ? 'page' : 'pages'}`));
    const sum = document.createElement('b');
    sum.textContent = String(elements);
    if (elements === 0) sum.className = 'none';
    box.append(sum);
    return box;
  }
}

const svg = 'http://www.w3.org/2000/svg';

function strokes(strip: readonly number[], label: string): SVGElement {
  const step = Math.min(3.7, 96 / Math.max(strip.length, 1));
  const picture = document.createElementNS(svg, 'svg');
  picture.setAttribute('class', 'ticks');
  picture.setAttribute('width', '96');
  picture.setAttribute('height', '12');
  picture.setAttribute('role', 'img');
  picture.setAttribute('aria-label', label);
  strip.forEach((count, i) => {
    const stroke = document.createElementNS(svg, 'rect');
    const wide = Math.max(1, step - 1.3);
    const size =
      count > 0
        ? { x: i * step, y: 4, width: wide, height: 7 }
        : { x: i * step + wide / 2 - 0.7, y: 9.5, width: 1.4, height: 1.5 };
    for (const [name, value] of Object.entries(size)) stroke.setAttribute(name, String(value));
    stroke.setAttribute('class', 't-common');
    picture.append(stroke);
  });
  return picture;
}
