import { askOf, asking, type Ask } from './asks.ts';
import type { Touch } from './scriptFacts.ts';
import type { Any, Constants } from './scriptTree.ts';
import { sameWords, type Sink, type ValueFlow } from './valueFlow.ts';

type What = Touch['what'];

/** Methods that give the same text in other letters, or more of it. */
const sameText =
  /^(trim|trimStart|trimEnd|toString|valueOf|concat|toLowerCase|toUpperCase|normalize|replace|replaceAll)$/;
/** Those in other letters: a name written so is another one. */
const otherLetters = /^(toLowerCase|toUpperCase|normalize)$/;
/** What is done with a list of names that one more in it does not disturb. */
const sameList = /^(indexOf|lastIndexOf|includes|forEach|map|filter|some|every|find|join|concat|push|unshift|splice)$/;
/** Functions that make elements of markup again, or keep it. */
const copying = /^(write|writeln|insertAdjacentHTML|html|setHTMLUnsafe|createContextualFragment|push|setItem)$/;
/** Members of elements that show a text, or make something of it. */
const telling =
  /^(textContent|innerText|outerText|innerHTML|outerHTML|data|nodeValue|value|title|name|id|alt|label|href|src|cssText|class|className|style)$/;

/**
 * What a script that reads the `class` of `element` may notice of one more name in it, told from where the text comes to. To ask for a
 * name that is said elsewhere (`indexOf(name)`) is taken for asking by the whole name.
 */
export function classReading(node: Any, flow: ValueFlow, constants: Constants): readonly What[] {
  const element = node.object!;
  const out: What[] = [];
  const texts = new Texts(node);
  const noticedAt = (sink: Sink, isFolded: boolean): readonly What[] => {
    if (sink.kind === 'set' && sink.name === 'className')
      return sameWords(sink.object, element) && !isFolded ? [] : [{ kind: 'class' }];
    // kept to be set again later
    if (sink.kind === 'set') return sink.name === undefined || telling.test(sink.name) ? [{ kind: 'class' }] : [];
    if (sink.kind === 'argument') {
      const ask = testing(sink.call, constants);
      return ask ? [{ kind: 'class-asked', ask }] : [{ kind: 'class' }];
    }
    if (sink.kind !== 'member' || sink.name === undefined || !sink.call) return [{ kind: 'class' }];
    if (sink.name === 'split') return listReading(sink.call, flow);
    const isAsking = asking.test(sink.name);
    if (!isAsking && !sameText.test(sink.name)) return [{ kind: 'class' }];
    if (sameText.test(sink.name)) texts.add(sink.call, isFolded || otherLetters.test(sink.name));
    const ask = isAsking ? askOf(sink.call.arguments?.[0], constants) : undefined;
    return ask === 'any' ? [{ kind: 'class' }] : ask ? [{ kind: 'class-asked', ask }] : [];
  };
  for (const { value, isFolded } of texts.all())
    for (const sink of flow.sinksOf(value)) out.push(...noticedAt(sink, isFolded));
  return out;
}

/** Expressions that have a text, each followed once: `name = name.trim()` comes back to itself. */
class Texts {
  private readonly waiting: { readonly value: Any; readonly isFolded: boolean }[] = [];
  private readonly plain = new Set<Any>();
  private readonly folded = new Set<Any>();

  constructor(first: Any) {
    this.add(first, false);
  }

  add(value: Any, isFolded: boolean): void {
    const known = isFolded ? this.folded : this.plain;
    if (known.has(value)) return;
    known.add(value);
    this.waiting.push({ value, isFolded });
  }

  *all(): Generator<{ readonly value: Any; readonly isFolded: boolean }> {
    for (let next = this.waiting.pop(); next; next = this.waiting.pop()) yield next;
  }
}

/** `/x/.test(text)`, where the pattern is known. */
function testing(call: Any, constants: Constants): Ask | undefined {
  const callee = call.callee!;
  if (callee.type !== 'MemberExpression' || !/^(test|exec)$/.test(callee.property?.name ?? '')) return undefined;
  const ask = askOf(callee.object, constants);
  return ask === 'any' || (ask && 'text' in ask) || call.arguments?.length !== 1 ? undefined : ask;
}

/** A list of names that is gone through and each held against others; not counted, and none asked whether it is there. */
function listReading(list: Any, flow: ValueFlow): readonly What[] {
  const isHeld = (item: Any): boolean => flow.sinksOf(item).every(({ kind }) => kind !== 'tested');
  const isSame = (sink: Sink): boolean => {
    if (sink.kind === 'looped') return sink.items.every(isHeld);
    if (sink.kind === 'lost' || sink.kind === 'argument' || sink.kind === 'set') return true;
    if (sink.kind !== 'member') return false;
    // where a loop over them ends
    if (sink.isBound) return sink.name === 'length';
    // one after the other, but not the first or the last of them
    if (sink.node.computed === true) return sink.node.property?.type !== 'Literal' && isHeld(sink.node);
    if (!sink.call || sink.name === undefined || !sameList.test(sink.name)) return false;
    return flow.itemsOf(sink.call.arguments?.[0]).every(isHeld);
  };
  return flow.sinksOf(list).every(isSame) ? [] : [{ kind: 'class' }];
}

/**
 * What a script that reads markup (`innerHTML`, `outerHTML`) may notice of classes and style attributes in it. Held against a text without
 * a tag, or asked whether it is empty, it tells nothing of them.
 */
export function markupReading(node: Any, flow: ValueFlow, constants: Constants): readonly What[] {
  const any: readonly What[] = [{ kind: 'class' }, { kind: 'style', property: undefined }];
  const out: What[] = [];
  const texts = new Texts(node);
  for (const { value } of texts.all())
    for (const sink of flow.sinksOf(value)) {
      if (sink.kind === 'compared') {
        const text = constants.textOf(sink.with);
        if (text === undefined ? sink.with.type !== 'Literal' : text.includes('<')) out.push(...any);
      }
      if (sink.kind === 'argument') {
        const ask = testing(sink.call, constants);
        if (ask) out.push({ kind: 'markup-asked', ask });
        else if (!copying.test(sink.call.callee?.property?.name ?? '')) out.push(...any);
      }
      if (sink.kind === 'set' && !/^(inner|outer)HTML$/.test(sink.name ?? '') && telling.test(sink.name ?? 'title'))
        out.push(...any);
      if (sink.kind === 'lost' || sink.kind === 'looped') out.push(...any);
      if (sink.kind !== 'member') continue;
      if (sink.name === undefined || !sink.call) out.push(...any);
      else if (asking.test(sink.name)) {
        const ask = askOf(sink.call.arguments?.[0], constants);
        if (ask === 'any') out.push(...any);
        else if (ask) out.push({ kind: 'markup-asked', ask });
        if (sameText.test(sink.name)) texts.add(sink.call, false);
      } else if (sameText.test(sink.name)) texts.add(sink.call, false);
      else out.push(...any);
    }
  return out;
}
