import { PageOutcomes, hintsOf, type Contender, type PageCascade, type View } from '@syndeton/core';

export interface FlatPage {
  readonly css: string;
  /** Per element the presentational attributes to take away. */
  readonly hints: readonly (readonly string[])[];
  /** The pseudo-elements that some rule is for. */
  readonly pseudoElements: readonly string[];
}

/**
 * The page's look written out flat from what core says: per element and pseudo-element one rule with what its longhands come
 * from, `!important`, for elements marked `data-flat`. Laid over the page with its own styling taken away, nothing may change.
 */
export function flatPage(page: PageCascade, view: View): FlatPage {
  const outcomes = new PageOutcomes(page, view);
  const rules: string[] = [];
  for (const element of page.tree.elements) {
    const pseudoElements = new Set(['']);
    for (const { indexed } of page.matchedAtRest(element, view.forced)) pseudoElements.add(indexed.pseudoElement);
    for (const pseudoElement of pseudoElements) {
      const own = outcomes.winnersOf(element, pseudoElement);
      const declared = new Map<Contender, string>();
      const keywords: string[] = [];
      for (const [longhand, winner] of own) {
        const outcome = outcomes.outcomeOf(element, longhand, pseudoElement);
        // layout may have changed the parent's initial value, and that is what is inherited
        if (winner.compiled.comparable === 'inherit') keywords.push(`${longhand}:inherit`);
        else if (outcome.kind === 'declared') {
          const { property } = outcome.contender.compiled.declaration;
          declared.set(outcome.contender, `${property}:${valueOf(outcome.contender)}`);
        } else if (outcome.kind === 'initial') keywords.push(`${longhand}:initial`);
        else if (outcome.kind === 'inherited') keywords.push(`${longhand}:inherit`);
        else keywords.push(`${longhand}:revert-layer`); // not revert: a cell's padding is a hint without an attribute
      }
      // whole declarations, weakest first, so that a shorthand yields to what wins over part of it
      const strength = new Map([...outcomes.contendersOf(element, pseudoElement)].map((c, i) => [c, i]));
      const ordered = [...declared].sort(([a], [b]) => strength.get(b)! - strength.get(a)!).map(([, text]) => text);
      const body = [...ordered, ...keywords];
      if (body.length > 0)
        rules.push(`[data-flat="${element.index}"]${pseudoElement}{${body.map((d) => `${d} !important`).join(';')}}`);
    }
  }
  const hints = page.tree.elements.map((element) => [
    ...new Set(
      hintsOf(element)
        .filter((h) => h.of === element && !staying(element.tag, h.attribute))
        .map((h) => h.attribute),
    ),
  ]);
  const named = page.rules.rules.flatMap((rule) =>
    rule.compiled.selectors.map((s) => s.compounds.at(-1)!.pseudoElement),
  );
  const pseudoElements = ['::before', '::after', '::marker', '::first-letter', '::first-line'].filter((p) =>
    named.includes(p),
  );
  return { css: rules.join('\n'), hints, pseudoElements };
}

/** Attributes that the browser's own sheet or its layout asks for as well. */
const staying = (tag: string, attribute: string): boolean =>
  attribute === 'dir' || attribute === 'lang' || attribute === 'nowrap' || (tag === 'img' && attribute === 'align');

/** Addresses as core resolved them, since the flat sheet stands in the page; else as written. */
function valueOf({ compiled, origin }: Contender): string {
  const { property, value } = compiled.declaration;
  // a foreign element's style attribute is read in quirks mode, the flat sheet need not be
  if (origin === 'attribute' && compiled.validity === 'quirks')
    return value
      .replace(/(^|\s)([0-9a-f]{6}|[0-9a-f]{3})(?=\s|$)/gi, /color/.test(property) ? '$1#$2' : '$&')
      .replace(/(^|\s)([\d.]+)(?=\s|$)/g, '$1$2px');
  return !property.startsWith('--') && /(url|src|image-set)\(/i.test(value) ? compiled.comparable : value;
}

/** Runs in the page: lays the flat sheet over it and gives what changed, `element ::pseudo longhand: before → after`. */
export function layFlat({ css, hints, pseudoElements }: FlatPage): string[] {
  const all = [...document.querySelectorAll('*')];
  const names = [...getComputedStyle(document.documentElement)].filter(
    // flow-relative sizes repeat the physical ones, and Chromium swaps them where the body's writing mode spreads
    (n) => !/^(transition|animation)|(^|-)(block|inline)-size$/.test(n),
  );
  const read = (): Map<string, readonly string[]> => {
    const out = new Map<string, readonly string[]>();
    all.forEach((element, i) => {
      for (const pseudo of ['', ...pseudoElements]) {
        const style = getComputedStyle(element, pseudo === '' ? null : pseudo);
        if ((pseudo === '::before' || pseudo === '::after') && style.content === 'none') continue;
        out.set(
          `${i}${pseudo}`,
          names.map((name) => style.getPropertyValue(name)),
        );
      }
    });
    return out;
  };
  if (all.length !== hints.length) return [`the trees differ: ${all.length} elements, core has ${hints.length}`];
  document.getAnimations().forEach((animation) => animation.cancel());
  const before = read();
  const definitions: string[] = [];
  const disable = (sheet: CSSStyleSheet): void => {
    for (const rule of sheet.cssRules) {
      if (/^@(property|counter-style|keyframes|font-face)/.test(rule.cssText)) definitions.push(rule.cssText);
      if (rule instanceof CSSImportRule && rule.styleSheet) disable(rule.styleSheet);
    }
  };
  for (const sheet of document.styleSheets) disable(sheet);
  for (const element of all) {
    const owner = element as { sheet?: CSSStyleSheet | null };
    if (owner.sheet) owner.sheet.disabled = true;
  }
  all.forEach((element, i) => {
    for (const name of hints[i]!) element.removeAttribute(name);
    element.removeAttribute('style');
    element.setAttribute('data-flat', String(i));
  });
  const flat = new CSSStyleSheet();
  flat.replaceSync(`${definitions.join('\n')}\n${css}`);
  document.adoptedStyleSheets = [flat];
  document.getAnimations().forEach((animation) => animation.cancel());
  const after = read();
  const out: string[] = [];
  for (const key of new Set([...before.keys(), ...after.keys()])) {
    const [a, b] = [before.get(key), after.get(key)];
    const element = all[Number.parseInt(key, 10)]!;
    const name = `${element.localName}${element.id ? `#${element.id}` : ''} ${key}`;
    if (!a || !b) out.push(`${name}: ${a ? 'gone' : 'new'}`);
    else names.forEach((longhand, i) => a[i] !== b[i] && out.push(`${name} ${longhand}: ${a[i]} → ${b[i]}`));
  }
  return out;
}
