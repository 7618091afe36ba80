import { lowered } from '../source/asciiCase.ts';
import type { Span } from '../source/span.ts';
import { propertyName } from '../values/longhands.ts';
import { readImport } from './readImport.ts';
import type { Declaration, Rule, Sheet } from './sheet.ts';
import { foldedText, tokensOf, tokenTypes as T, type Tokens } from './tokens.ts';
import { unescapeCss } from '../values/unescape.ts';

/**
 * The rules of a sheet or embedded block, recovered from errors as browsers do. `from` and `to` bound a block inside a page;
 * all spans count from the start of `text`. Read as a whole it is a file, whose byte order mark is passed over.
 *
 * CSS Syntax 3, "Parse a stylesheet", "Consume a qualified rule", "Consume a block's contents".
 */
export function parseSheet(text: string, from = 0, to = text.length): Sheet {
  const parser = new Parser(tokensOf(text, from, to, from === 0 && to === text.length), to);
  const rules = parser.stylesheet();
  return { text, rules, comments: parser.comments };
}

/** The declarations of a style attribute's value. CSS Style Attributes, "Syntax and Parsing". Nested rules are dropped. */
export function parseDeclarations(text: string): readonly Declaration[] {
  return new Parser(tokensOf(text), text.length).blockContents(true).declarations;
}

interface Contents {
  readonly declarations: Declaration[];
  readonly rules: Rule[];
}

/** After a nested rule, declarations make a run of their own. */
function addDeclaration(out: Contents, declaration: Declaration): void {
  if (!out.rules.some((rule) => rule.kind !== 'dropped')) {
    out.declarations.push(declaration);
    return;
  }
  const last = out.rules.at(-1)!;
  if (last.kind === 'declarations')
    out.rules[out.rules.length - 1] = {
      kind: 'declarations',
      declarations: [...last.declarations, declaration],
      span: { start: last.span.start, end: declaration.span.end },
    };
  else out.rules.push({ kind: 'declarations', declarations: [declaration], span: declaration.span });
}

const groupNames = new Set([
  'media',
  'supports',
  'layer',
  'container',
  'scope',
  'starting-style',
  '-webkit-media',
  'document',
  '-moz-document',
]);
/** Deepest nesting read; what lies deeper is one definition, compared as written. */
const maxDepth = 200;

class Parser {
  readonly comments: Span[] = [];
  private at = 0;
  private depth = 0;
  private readonly t: Tokens;
  private readonly limit: number;

  constructor(tokens: Tokens, limit: number) {
    this.t = tokens;
    this.limit = limit;
    for (let i = 0; i < tokens.count; i++)
      if (tokens.type[i] === T.Comment) this.comments.push({ start: tokens.start[i]!, end: tokens.end[i]! });
  }

  stylesheet(): Rule[] {
    const rules: Rule[] = [];
    while (this.at < this.t.count) {
      const type = this.t.type[this.at]!;
      if (type === T.WhiteSpace || type === T.Comment || type === T.CDO || type === T.CDC) this.at++;
      else if (type === T.AtKeyword) rules.push(this.atRule(false));
      else {
        const rule = this.qualifiedRule(false);
        if (rule) rules.push(rule);
      }
    }
    return rules;
  }

  blockContents(topOfAttribute = false): Contents {
    const out: Contents = { declarations: [], rules: [] };
    while (this.at < this.t.count) {
      const type = this.t.type[this.at]!;
      if (type === T.WhiteSpace || type === T.Comment || type === T.Semicolon) this.at++;
      else if (type === T.RightCurlyBracket) {
        if (!topOfAttribute) return out;
        this.at++;
      } else if (type === T.AtKeyword) out.rules.push(this.atRule(true));
      else {
        const mark = this.at;
        const declaration = this.declaration(topOfAttribute);
        if (declaration && topOfAttribute) out.declarations.push(declaration);
        else if (declaration) addDeclaration(out, declaration);
        else if (declaration === undefined) {
          this.at = mark;
          if (topOfAttribute) {
            this.skipBadDeclaration();
            continue;
          }
          const rule = this.qualifiedRule(true);
          if (rule) out.rules.push(rule);
        }
      }
    }
    return out;
  }

  /** A declaration; undefined when what stands here may be a rule instead. */
  private declaration(attribute: boolean): Declaration | undefined {
    const { t } = this;
    if (t.type[this.at] !== T.Ident) return undefined;
    const nameAt = this.at++;
    this.skipSpace();
    if (t.type[this.at] !== T.Colon) return undefined;
    this.at++;
    this.skipSpace();
    const first = this.at;
    let blocks = 0;
    while (this.at < t.count) {
      const type = t.type[this.at]!;
      // in a style attribute a closing brace ends nothing: it spoils the value
      if (type === T.Semicolon || (type === T.RightCurlyBracket && !attribute)) break;
      if (type === T.LeftCurlyBracket) blocks++;
      this.componentValue();
    }
    const name = unescapeCss(t.text.slice(t.start[nameAt], t.end[nameAt]));
    const custom = name.startsWith('--');
    if (blocks > 0 && !custom) return undefined;
    return this.finishDeclaration(nameAt, first, this.at, propertyName(name));
  }

  private finishDeclaration(nameAt: number, first: number, stop: number, property: string): Declaration {
    const { t } = this;
    let last = this.lastSolid(first, stop);
    let important = false;
    const end = last < first ? t.end[first - 1]! : t.end[last]!;
    if (
      last >= first &&
      t.type[last] === T.Ident &&
      /^important$/i.test(unescapeCss(t.text.slice(t.start[last], t.end[last])))
    ) {
      const bang = this.lastSolid(first, last);
      if (bang >= first && t.type[bang] === T.Delim && t.text[t.start[bang]!] === '!') {
        important = true;
        last = this.lastSolid(first, bang);
      }
    }
    const valueSpan =
      last < first
        ? { start: t.end[first - 1]!, end: t.end[first - 1]! }
        : { start: t.start[first]!, end: Math.min(t.end[last]!, this.limit) };
    return {
      property,
      value: t.text.slice(valueSpan.start, valueSpan.end),
      important,
      span: { start: t.start[nameAt]!, end: Math.min(end, this.limit) },
      valueSpan,
    };
  }

  private lastSolid(first: number, stop: number): number {
    let i = stop - 1;
    while (i >= first && (this.t.type[i] === T.WhiteSpace || this.t.type[i] === T.Comment)) i--;
    return i;
  }

  private qualifiedRule(nested: boolean): Rule | undefined {
    const { t } = this;
    const first = this.at;
    while (this.at < t.count) {
      const type = t.type[this.at]!;
      if (type === T.Semicolon && nested) return this.dropped(first, ++this.at);
      if (type === T.RightCurlyBracket) {
        if (nested) return this.dropped(first, this.at);
        this.at++;
      } else if (type === T.LeftCurlyBracket) {
        if (this.looksLikeCustomProperty(first)) {
          this.componentValue();
          return this.dropped(first, this.at);
        }
        return this.styleRule(first);
      } else this.componentValue();
    }
    return this.dropped(first, this.at);
  }

  private dropped(first: number, stop: number): Rule | undefined {
    if (stop <= first) return undefined;
    return { kind: 'dropped', span: { start: this.t.start[first]!, end: this.t.end[stop - 1]! } };
  }

  /** `--name:` before a brace is a custom property gone wrong, not a selector. */
  private looksLikeCustomProperty(first: number): boolean {
    const { t } = this;
    if (t.type[first] !== T.Ident || !t.text.startsWith('--', t.start[first])) return false;
    let i = first + 1;
    while (t.type[i] === T.WhiteSpace || t.type[i] === T.Comment) i++;
    return t.type[i] === T.Colon;
  }

  private styleRule(first: number): Rule {
    const { t } = this;
    const brace = this.at;
    const last = this.lastSolid(first, brace);
    const selectorSpan = { start: t.start[first]!, end: last < first ? t.start[first]! : t.end[last]! };
    if (this.depth >= maxDepth)
      return this.definition(first, brace, 'nested', foldedText(t.text.slice(selectorSpan.start, selectorSpan.end)));
    const block = this.block();
    return {
      kind: 'style',
      selector: foldedText(t.text.slice(selectorSpan.start, selectorSpan.end)),
      selectorSpan,
      declarations: block.declarations,
      nested: block.rules,
      span: { start: selectorSpan.start, end: block.end },
      closed: block.closed,
    };
  }

  /** At `{`: its contents and where it ends. */
  private block(): Contents & { readonly end: number; readonly closed: boolean } {
    this.at++;
    this.depth++;
    const contents = this.blockContents();
    this.depth--;
    const closed = this.at < this.t.count;
    if (closed) this.at++;
    return { ...contents, end: closed ? this.t.end[this.at - 1]! : this.limit, closed };
  }

  private atRule(nested: boolean): Rule {
    const { t } = this;
    const first = this.at++;
    const name = lowered(unescapeCss(t.text.slice(t.start[first]! + 1, t.end[first])));
    while (this.at < t.count) {
      const type = t.type[this.at]!;
      if (type === T.Semicolon || type === T.LeftCurlyBracket) break;
      if (type === T.RightCurlyBracket) {
        if (nested) break;
        this.at++;
      } else this.componentValue();
    }
    const prelude = t.text.slice(t.end[first], this.at < t.count ? t.start[this.at] : this.limit);
    if (this.at < t.count && t.type[this.at] === T.LeftCurlyBracket)
      return this.atBlock(first, name, foldedText(prelude));
    if (this.at < t.count && t.type[this.at] === T.Semicolon) this.at++;
    const span = { start: t.start[first]!, end: Math.max(t.end[this.at - 1]!, t.end[first]!) };
    if (name === 'import') return readImport(t.text, t.end[first]!, prelude, span);
    return { kind: 'statement', name, prelude: foldedText(prelude), span };
  }

  private atBlock(first: number, name: string, prelude: string): Rule {
    const { t } = this;
    const start = t.start[first]!;
    const open = this.at;
    if (groupNames.has(name) && this.depth < maxDepth) {
      const block = this.block();
      const blockSpan = { start: t.end[open]!, end: block.closed ? block.end - 1 : block.end };
      return {
        kind: 'group',
        name,
        prelude,
        rules: block.rules,
        declarations: block.declarations,
        span: { start, end: block.end },
        blockSpan,
        closed: block.closed,
      };
    }
    return this.definition(first, open, name, prelude);
  }

  /** At `{`: the block as it is written. */
  private definition(first: number, open: number, name: string, prelude: string): Rule {
    const { t } = this;
    this.componentValue();
    const end = t.end[this.at - 1]!;
    const closed = t.type[this.at - 1] === T.RightCurlyBracket && this.at - 1 > open;
    return {
      kind: 'definition',
      name,
      prelude,
      span: { start: t.start[first]!, end },
      blockSpan: { start: t.end[open]!, end: closed ? end - 1 : end },
      closed,
    };
  }

  /** CSS Syntax 3, "Consume the remnants of a bad declaration". */
  private skipBadDeclaration(): void {
    while (this.at < this.t.count && this.t.type[this.at] !== T.Semicolon) this.componentValue();
  }

  private skipSpace(): void {
    while (this.t.type[this.at] === T.WhiteSpace || this.t.type[this.at] === T.Comment) this.at++;
  }

  /** CSS Syntax 3, "Consume a component value", without recursion. */
  private componentValue(): void {
    const open: number[] = [];
    do {
      const type = this.t.type[this.at++]!;
      if (type === T.LeftCurlyBracket) open.push(T.RightCurlyBracket);
      else if (type === T.LeftSquareBracket) open.push(T.RightSquareBracket);
      else if (type === T.LeftParenthesis || type === T.Function) open.push(T.RightParenthesis);
      else if (open.length > 0 && type === open.at(-1)) open.pop();
    } while (open.length > 0 && this.at < this.t.count);
  }
}
