import { lowered } from '../source/asciiCase.ts';
import { trimmed } from '../source/space.ts';
import { attributeOf, type ElementNode } from '../page/nodes.ts';
import { parentElement } from '../page/parsePage.ts';
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
      return yes(matchesLanguage(element, argument ?? ''));
    case 'dir':
      return matchesDirection(element, lowered(argument ?? ''), state);
    case 'state':
    case 'active-view-transition-type':
      return state === 'any' ? 1 : 0;
    default:
      return 0; // :host and :host-context() match nothing outside shadow trees
  }
}

const yes = (condition: boolean): Match => (condition ? 2 : 0);

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

/** Selectors 4, "The Language Pseudo-class: :lang()", with identifiers as arguments. */
function matchesLanguage(element: ElementNode, argument: string): boolean {
  for (let at: ElementNode | undefined = element; at; at = parentElement(at)) {
    const language = attributeOf(at, 'lang');
    if (language === undefined) continue;
    const own = lowered(language);
    return argument
      .split(',')
      .map((range) => lowered(trimmed(range)))
      .some((range) => range !== '' && (own === range || own.startsWith(`${range}-`)));
  }
  return false;
}

function matchesDirection(element: ElementNode, wanted: string, state: 'any' | 'rest'): Match {
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
