import { lowered } from '../source/asciiCase.ts';
import { trimmed } from '../source/space.ts';
import { attributeOf, type ElementNode } from '../page/nodes.ts';
import { parentElement } from '../page/parsePage.ts';

/**
 * Whether a state holds on a page just loaded, nothing typed, hovered or focused. False for states not known here.
 *
 * HTML Standard, "Pseudo-classes" and "Constraints".
 */
export function holdsAtRest(element: ElementNode, name: string): boolean {
  switch (name) {
    case 'link':
      return true;
    case 'enabled':
      return controls.has(element.tag) && !isDisabled(element);
    case 'disabled':
      return controls.has(element.tag) && isDisabled(element);
    case 'checked':
      return isChecked(element);
    case 'default':
      return isDefault(element);
    case 'indeterminate':
      return isIndeterminate(element);
    case 'required':
      return has(element, 'required') && !unrequired.test(typeOf(element));
    case 'optional':
      return !holdsAtRest(element, 'required');
    case 'read-write':
      return isWritable(element);
    case 'read-only':
      return !isWritable(element);
    case 'open':
      return /^(details|dialog)$/.test(element.tag) && has(element, 'open');
    case 'placeholder-shown':
      return has(element, 'placeholder') && valueOf(element) === '';
    case 'in-range':
      return rangeOf(element) === 'in';
    case 'out-of-range':
      return rangeOf(element) === 'out';
    case 'valid':
      return validityOf(element) === true;
    case 'invalid':
      return validityOf(element) === false;
    default:
      return false;
  }
}

const has = (element: ElementNode, name: string): boolean => attributeOf(element, name) !== undefined;
const typeOf = (element: ElementNode): string => lowered(attributeOf(element, 'type') ?? '');

/** What a control holds when the page is loaded. */
function valueOf(element: ElementNode): string {
  if (element.tag === 'textarea') return element.children.map((c) => (c.type === 'text' ? c.value : '')).join('');
  return attributeOf(element, 'value') ?? '';
}

const controls = new Set(['button', 'input', 'select', 'textarea', 'option', 'optgroup', 'fieldset']);
const unrequired = /^(hidden|range|color|submit|image|reset|button)$/;

function isDisabled(element: ElementNode): boolean {
  if (has(element, 'disabled')) return true;
  let child = element;
  for (let at = parentElement(element); at; child = at, at = parentElement(at)) {
    if (element.tag === 'option' && at.tag === 'optgroup' && has(at, 'disabled')) return true;
    if (at.tag !== 'fieldset' || !has(at, 'disabled')) continue;
    const legend = at.children.find((c) => c.type === 'element' && c.tag === 'legend');
    if (legend !== child) return true;
  }
  return false;
}

function isChecked(element: ElementNode): boolean {
  if (element.tag === 'input') return /^(checkbox|radio)$/.test(typeOf(element)) && has(element, 'checked');
  if (element.tag !== 'option') return false;
  const select = ancestor(element, 'select');
  if (!select || has(select, 'multiple') || Number(attributeOf(select, 'size') ?? 1) > 1)
    return has(element, 'selected');
  const options = descendants(select).filter((e) => e.tag === 'option');
  const chosen = options.filter((option) => has(option, 'selected')).at(-1);
  return (
    element ===
    (chosen ?? options.find((option) => !has(option, 'disabled') && !has(parentElement(option)!, 'disabled')))
  );
}

function isDefault(element: ElementNode): boolean {
  if (element.tag === 'option') return has(element, 'selected');
  if (element.tag === 'input' && /^(checkbox|radio)$/.test(typeOf(element))) return has(element, 'checked');
  if (!submits(element)) return false;
  const form = ancestor(element, 'form');
  return form !== undefined && descendants(form).find(submits) === element;
}

const submits = (element: ElementNode): boolean =>
  element.tag === 'button'
    ? /^(submit)?$/.test(typeOf(element))
    : element.tag === 'input' && /^(submit|image)$/.test(typeOf(element));

function isIndeterminate(element: ElementNode): boolean {
  if (element.tag === 'progress') return !has(element, 'value');
  if (element.tag !== 'input' || typeOf(element) !== 'radio') return false;
  const name = attributeOf(element, 'name') ?? '';
  if (name === '') return !has(element, 'checked');
  const form = ancestor(element, 'form');
  return !descendants(form ?? rootOf(element)).some(
    (e) =>
      e.tag === 'input' &&
      typeOf(e) === 'radio' &&
      attributeOf(e, 'name') === name &&
      has(e, 'checked') &&
      ancestor(e, 'form') === form,
  );
}

const textTypes = /^(text|search|url|tel|email|password|date|month|week|time|datetime-local|number)?$/;
const knownTypes =
  /^(text|search|url|tel|email|password|date|month|week|time|datetime-local|number|range|color|checkbox|radio|file|submit|image|reset|button|hidden)$/;

function isWritable(element: ElementNode): boolean {
  const type = knownTypes.test(typeOf(element)) ? typeOf(element) : 'text';
  if (element.tag === 'textarea' || (element.tag === 'input' && textTypes.test(type)))
    return !has(element, 'readonly') && !isDisabled(element);
  for (let at: ElementNode | undefined = element; at; at = parentElement(at)) {
    const editable = attributeOf(at, 'contenteditable')?.toLowerCase();
    if (editable !== undefined) return editable !== 'false';
  }
  return false;
}

/** Undefined where no range is asked for. */
function rangeOf(element: ElementNode): 'in' | 'out' | undefined {
  const type = typeOf(element);
  if (element.tag !== 'input' || !/^(number|range|date|month|week|time|datetime-local)$/.test(type)) return undefined;
  if (isDisabled(element) || has(element, 'readonly')) return undefined;
  const [low, high] = [attributeOf(element, 'min'), attributeOf(element, 'max')];
  // date types have limits of their own in Chromium
  if (/^(number|time)$/.test(type) && low === undefined && high === undefined) return undefined;
  const value = valueOf(element);
  if (type === 'range' || value === '') return 'in';
  if (type !== 'number')
    return (low !== undefined && value < low) || (high !== undefined && value > high) ? 'out' : 'in';
  return Number(value) < Number(low ?? -Infinity) || Number(value) > Number(high ?? Infinity) ? 'out' : 'in';
}

/** Undefined for elements that are not checked. */
function validityOf(element: ElementNode): boolean | undefined {
  const { tag } = element;
  if (tag === 'form' || tag === 'fieldset')
    return !descendants(element).some((e) => validityOf(e) === false && !/^(form|fieldset)$/.test(e.tag));
  if (!/^(input|select|textarea|button)$/.test(tag)) return undefined;
  const type = typeOf(element);
  if (isDisabled(element) || ancestor(element, 'datalist')) return undefined;
  if (tag === 'button') return /^(reset|button)$/.test(type) ? undefined : true;
  if (tag === 'input' && /^(hidden|reset|button|image)$/.test(type)) return undefined;
  if (has(element, 'readonly') && tag !== 'select') return undefined;
  return isFilled(element) && suits(element, type);
}

function isFilled(element: ElementNode): boolean {
  if (!holdsAtRest(element, 'required')) return true;
  if (element.tag === 'select') {
    const chosen = descendants(element).find((e) => e.tag === 'option' && isChecked(e));
    const text = chosen?.children.map((c) => (c.type === 'text' ? c.value : '')).join('') ?? '';
    return chosen !== undefined && (attributeOf(chosen, 'value') ?? text) !== '';
  }
  if (typeOf(element) === 'checkbox') return has(element, 'checked');
  if (typeOf(element) === 'radio') return !isIndeterminate(element);
  return valueOf(element) !== '';
}

function suits(element: ElementNode, type: string): boolean {
  const value = valueOf(element);
  if (element.tag !== 'input' || value === '') return true;
  if (rangeOf(element) === 'out') return false;
  // HTML Standard, "Email state": the pattern given there
  if (type === 'email' && !/^[\w.!#$%&'*+/=?^`{|}~-]+@[a-z0-9-]+(\.[a-z0-9-]+)*$/i.test(value)) return false;
  if (type === 'url' && !/^[a-z][a-z0-9+.-]*:[^\t\n\f\r ]/i.test(trimmed(value))) return false;
  const pattern = attributeOf(element, 'pattern');
  if (pattern === undefined || !/^(text|search|url|tel|email|password)?$/.test(type)) return true;
  try {
    return new RegExp(`^(?:${pattern})$`, 'v').test(value);
  } catch {
    return true;
  }
}

function ancestor(element: ElementNode, tag: string): ElementNode | undefined {
  for (let at = parentElement(element); at; at = parentElement(at)) if (at.tag === tag) return at;
  return undefined;
}

function rootOf(element: ElementNode): ElementNode {
  let at = element;
  for (let up = parentElement(at); up; up = parentElement(at)) at = up;
  return at;
}

function descendants(element: ElementNode): ElementNode[] {
  const out: ElementNode[] = [];
  const stack = [...element.children].reverse();
  for (let node = stack.pop(); node; node = stack.pop()) {
    if (node.type !== 'element') continue;
    out.push(node);
    stack.push(...[...node.children].reverse());
  }
  return out;
}
