import { lowered } from '../source/asciiCase.ts';
import { languageOf } from '../page/languageOf.ts';
import { attributeOf, type ElementNode } from '../page/nodes.ts';
import { parentElement } from '../page/parsePage.ts';
import { unescapeCss } from '../values/unescape.ts';
import { autoDirection } from '../page/autoDirection.ts';
import { holdsAtRest } from './formStates.ts';
import type { Match, MatchContext } from './match.ts';
import { stateClasses } from './pseudoTable.ts';

/** HTML Standard, "Pseudo-classes"; Selectors 4, "Tree-Structural pseudo-classes". */
export function matchPseudoClass(
  element: ElementNode,
  name: string,
  argument: string | undefined,
  context: MatchContext,
): Match {
  const { state } = context;
  if (stateClasses.has(name)) {
    if (!canHold(element, name)) return 0;
    if (context.forced?.get(element)?.has(name)) return 2;
    if (state === 'any') return 1;
    if (name === 'link' && context.forced?.get(element)?.has('visited')) return 0;
    return yes(holdsAtRest(element, name));
  }
  switch (name) {
    case 'scope':
      if (context.scope) return yes(element === context.scope);
      return yes(parentElement(element) === undefined);
    case 'root':
      return yes(parentElement(element) === undefined);
    case 'any-link':
    case '-webkit-any-link':
      return yes(isHyperlink(element));
    case 'defined':
      return element.namespace === 'html' && element.tag.includes('-') ? (state === 'any' ? 1 : 0) : 2;
    case 'empty':
      return yes(element.children.every((c) => c.type === 'comment' || (c.type === 'text' && c.value === '')));
    case 'first-child':
      return yes(element.siblingIndex === 0);
    case 'last-child':
      return yes(element.siblingIndex === element.siblings.length - 1);
    case 'only-child':
      return yes(element.siblings.length === 1);
    case 'first-of-type':
      return yes(firstOfType(element, 0, element.siblingIndex));
    case 'last-of-type':
      return yes(firstOfType(element, element.siblingIndex + 1, element.siblings.length));
    case 'only-of-type':
      return yes(
        firstOfType(element, 0, element.siblingIndex) &&
          firstOfType(element, element.siblingIndex + 1, element.siblings.length),
      );
    case 'lang':
      return matchesLanguage(element, argument ?? '', state);
    case 'dir':
      return matchesDirection(element, lowered(argument ?? ''), state);
    case 'state':
    case 'active-view-transition-type':
      return inSomeState(state);
    default:
      // :host and :host-context() match nothing outside shadow trees; what ours does not know another browser may
      return name.startsWith('host') ? 0 : inSomeState(state);
  }
}

type State = MatchContext['state'];

const yes = (condition: boolean): Match => (condition ? 2 : 0);

const inSomeState = (state: State): Match => (state === 'any' ? 1 : 0);

const isHyperlink = (element: ElementNode): boolean =>
  (element.tag === 'a' || element.tag === 'area') && attributeOf(element, 'href') !== undefined;

function firstOfType(element: ElementNode, from: number, to: number): boolean {
  for (let i = from; i < to; i++) {
    const other = element.siblings[i]!;
    if (other.tag === element.tag && other.namespace === element.namespace) return false;
  }
  return true;
}

const controls = new Set(['button', 'input', 'select', 'textarea', 'option', 'optgroup', 'fieldset']);
const fields = new Set(['input', 'select', 'textarea']);

/** Whether an element can ever be in a state; where unknown, yes. */
function canHold(element: ElementNode, name: string): boolean {
  const { tag } = element;
  switch (name) {
    case 'link':
    case 'visited':
      return isHyperlink(element);
    case 'enabled':
    case 'disabled':
      return controls.has(tag) || tag.includes('-');
    case 'checked':
      return tag === 'input' || tag === 'option';
    case 'read-only':
    case 'read-write':
      return element.namespace === 'html';
    case 'required':
    case 'optional':
    case 'placeholder-shown':
      return fields.has(tag) || (tag === 'button' && name === 'optional');
    default:
      return true;
  }
}

/**
 * Selectors 4, "The Language Pseudo-class: :lang()", with an identifier as its argument. Where nothing in the page tells the language,
 * its server may: HTML Standard, "The lang and xml:lang attributes".
 */
function matchesLanguage(element: ElementNode, argument: string, state: State): Match {
  if (/["',*]/.test(argument)) return inSomeState(state);
  const range = lowered(unescapeCss(argument));
  const language = languageOf(element);
  if (language === undefined) return inSomeState(state);
  const own = lowered(language.said);
  if (own === range || own.startsWith(`${range}-`)) return 2;
  if (isWithin(own, range)) return inSomeState(state);
  return language.perhaps.some((one) => lowered(one).startsWith(range)) ? inSomeState(state) : 0;
}

/** RFC 4647, "Extended Filtering", which some browsers follow: `de-DE` for `de-Latn-DE`. */
function isWithin(own: string, range: string): boolean {
  const parts = own.split('-');
  const [first, ...others] = range.split('-');
  if (parts.shift() !== first) return false;
  return others.every((one) => {
    const at = parts.indexOf(one);
    parts.splice(0, at + 1);
    return at >= 0;
  });
}

function matchesDirection(element: ElementNode, wanted: string, state: State): Match {
  for (let at: ElementNode | undefined = element; at; at = parentElement(at)) {
    const dir = at.namespace === 'html' ? attributeOf(at, 'dir')?.toLowerCase() : undefined;
    if (dir === 'ltr' || dir === 'rtl') return yes(dir === wanted);
    const typedInto = /^(input|textarea)$/.test(at.tag);
    if (dir === 'auto' && typedInto && state === 'any') return 1;
    const auto = autoDirection(at);
    if (auto !== undefined) return yes(auto === wanted);
    if (at.tag === 'input' && attributeOf(at, 'type')?.toLowerCase() === 'tel') return yes(wanted === 'ltr');
  }
  return yes(wanted === 'ltr');
}
