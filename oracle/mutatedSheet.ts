// Sheets of a few rules that touch each other, and what a hand might do to them.
import { values as handValues } from '../packages/core/src/testing/declarationValues.ts';
import { grammarValues } from '../packages/core/src/testing/grammarValues.ts';
import type { Random } from '../packages/core/src/testing/random.ts';
import { selectorForms } from '../packages/core/src/testing/selectorForms.ts';
import { spellings } from '../packages/core/src/testing/spellings.ts';
import { longhandsOf } from '../packages/core/src/values/longhands.ts';
import { longhandNames, longhandsOfShorthand } from '../packages/core/src/values/propertyTable.ts';

export const body = `<div id=w class="w a"><p class="n a" id=p1 title=t lang=en>one <a href=x class=l>y</a> <b>bold</b></p>
<p class="m" dir=rtl>two</p><ul class=u><li class=i>a<li>b</ul><table class=t border=1 width=50><tr><td class=c align=left>1<td>2</table>
<input class=f placeholder=q value=v><input type=checkbox checked class=k><select class=s><option>1</select><button class=b disabled>go</button>
<details class=d open><summary>s</summary>t</details><img class=g width=5 height=6><svg class=v width=9 height=9><rect class=r width=4
height=4 fill=red /></svg><h1 class=h>h</h1><hr class=z><textarea class=x>q</textarea><fieldset class=y><legend>l</legend></fieldset></div>`;

const listed = (text: string): readonly string[] => text.split('|').map((one) => one.trim());
const selectors =
  listed(`p|.n|.m|.a|#p1|*|a|li|ul|td|table|input|button|select|h1|b|.w > p|.w p|p + p|p ~ ul|div|[title]|[dir=rtl]|
  :first-child|p:last-child|:not(.n)|:is(.n,.m)|:where(.n)|li:nth-child(2)|.n::before|p::after|li::marker|input::placeholder|p::first-line|
  p::first-letter|::selection|a:link|a:visited|a:hover|a:any-link|input:checked|button:disabled|details[open]|summary|svg|rect|img|body|html|
  :root|hr|textarea|fieldset|legend|body > div|.w:has(.n)|input:focus|td:empty|option|:lang(en)|a:-webkit-any-link`);
const properties =
  listed(`color|background|background-color|margin|margin-left|padding|padding-top|border|border-top|border-color|
  border-width|font|font-size|font-family|font-weight|line-height|width|height|min-width|display|position|top|left|float|overflow|overflow-x|
  text-align|text-decoration|text-decoration-line|text-transform|text-shadow|box-shadow|border-radius|opacity|z-index|visibility|cursor|
  list-style|list-style-type|vertical-align|white-space|letter-spacing|flex|flex-grow|grid-template-columns|grid-area|align-items|gap|
  transform|transform-origin|outline|content|counter-reset|direction|unicode-bidi|writing-mode|margin-inline-start|margin-inline|padding-block|
  inset|inset-inline-start|inline-size|border-inline-start-color|border-block|columns|column-gap|background-position|background-image|filter|
  clip-path|appearance|-webkit-appearance|user-select|border-spacing|tab-size|hyphens|word-break|overflow-wrap|word-wrap|quotes|fill|stroke|
  stroke-width|r|x|all|zoom|-webkit-margin-start|-webkit-text-fill-color|-webkit-box-shadow|-webkit-transform|text-emphasis|color-scheme|
  contain|will-change|--x|--y|font-variant|font-stretch|font-style|mask|place-items|rotate|scale|text-indent|text-overflow`);
const groups =
  listed(`@media screen|@media print|@media (min-width:1px)|@media (max-width:600px)|@supports (display:grid)|
  @supports (display:ruby)|@supports not (display:x)|@layer a|@layer b|@layer|@scope (.w)|@scope (.w) to (.u)|@container (min-width:1px)|
  @media (hover)|@starting-style|@supports selector(:has(a))|@media not all`);
const wide = ['inherit', 'initial', 'unset', 'revert', 'revert-layer', 'INHERIT'];
const put = ['var(--x)', 'var(--x, red)', 'var(--y,1px)', 'calc(var(--x)*1)', 'env(foo,1px)', 'attr(title)', 'var(x)'];
const own = ['1px', 'red', '', 'initial', 'var(--y)', '{a}', '0', 'inherit'];
const inner = ['&', '& b', '.l', '&:hover', '> a', '&::before', '& + p'];
const everything = [...longhandNames, ...Object.keys(longhandsOfShorthand)];
const forms = selectorForms();

interface Declaration {
  property: string;
  value: string;
  important: boolean;
}

interface Rule {
  selector: string;
  declarations: Declaration[];
  group: string | undefined;
  nested: Rule | undefined;
}

export class SheetMaker {
  private readonly random: Random;

  constructor(random: Random) {
    this.random = random;
  }

  /** A sheet of rules for a few properties, and after a step or two. */
  pair(): readonly [before: string, after: string] {
    const { random } = this;
    const subject = [random.pick(properties), random.pick(properties)].flatMap((one) => [
      one,
      ...longhandsOf(one).slice(0, 4),
    ]);
    const before = random.times(2, 7, () => this.rule(subject));
    let after = this.changed(before);
    if (random.chance(0.3) && after.length > 0) after = this.changed(after);
    return [textOf(before), textOf(after)];
  }

  private rule(subject: readonly string[], isNested = false): Rule {
    const { random } = this;
    return {
      selector: isNested ? random.pick(inner) : this.selector(),
      declarations: random.times(1, 3, () => {
        const property = random.pick(random.chance(0.7) ? subject : random.chance(0.8) ? properties : everything);
        return { property, value: this.value(property), important: random.chance(0.1) };
      }),
      group: random.chance(0.25) ? random.pick(groups) : undefined,
      nested: !isNested && random.chance(0.15) ? this.rule(subject, true) : undefined,
    };
  }

  private selector(): string {
    const { random } = this;
    return random
      .times(1, random.chance(0.2) ? 2 : 1, () => random.pick(random.chance(0.9) ? selectors : forms))
      .join(', ');
  }

  private value(property: string): string {
    const { random } = this;
    if (property.startsWith('--')) return random.pick(own);
    if (random.chance(0.12)) return random.pick(wide);
    if (random.chance(0.08)) return random.pick(put);
    const made = random.chance(0.12) ? [] : grammarValues(property, 1, random);
    const value = random.pick(made.length > 0 ? made : handValues);
    return random.chance(0.25) ? random.pick(spellings(value, 2, random)) : value;
  }

  private changed(before: readonly Rule[]): Rule[] {
    const { random } = this;
    const rules = structuredClone(before) as Rule[];
    const i = random.below(rules.length);
    const rule = rules[i]!;
    const one = random.pick(rule.declarations);
    const { property } = one;
    switch (random.below(12)) {
      case 0:
        rules.splice(i, 1);
        break;
      case 1:
        rule.declarations.splice(rule.declarations.indexOf(one), 1);
        break;
      case 2:
        rules.splice(random.below(rules.length), 0, ...rules.splice(i, 1));
        break;
      case 3:
        one.property = random.pick(longhandsOf(property));
        break;
      case 4:
        one.value = random.pick(spellings(one.value, 3, random));
        break;
      case 5:
        rules.splice(i, 1, ...rule.selector.split(', ').map((selector) => ({ ...structuredClone(rule), selector })));
        break;
      case 6:
        rule.declarations.push({ ...one });
        break;
      case 7:
        rules.splice(random.below(rules.length), 0, structuredClone(rule));
        break;
      case 8:
        rule.group = undefined;
        break;
      case 9:
        rule.declarations.reverse();
        break;
      case 10:
        if (rule.nested) rules.splice(i + 1, 0, unnested(rule, rule.nested));
        rule.nested = undefined;
        break;
      default:
        random.pick(rules).declarations.push(one);
        rule.declarations.splice(rule.declarations.indexOf(one), 1);
    }
    return rules.filter(({ declarations, nested }) => declarations.length > 0 || nested);
  }
}

function unnested(rule: Rule, { selector, ...nested }: Rule): Rule {
  const parent = `:is(${rule.selector})`;
  return {
    ...nested,
    selector: selector.includes('&') ? selector.replaceAll('&', parent) : `${parent} ${selector}`,
    group: nested.group ?? rule.group,
  };
}

const textOf = (rules: readonly Rule[]): string => rules.map(ruleText).join('\n');

function ruleText({ selector, declarations, group, nested }: Rule): string {
  const said = declarations.map(
    ({ property, value, important }) => `${property}:${value}${important ? '!important' : ''}`,
  );
  const text = `${selector}{${said.join(';')}${nested ? `;${ruleText(nested)}` : ''}}`;
  return group === undefined ? text : `${group}{${text}}`;
}
