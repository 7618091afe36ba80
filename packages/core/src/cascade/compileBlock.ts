import { folderOf } from '../source/sitePath.ts';
import { urlReferences } from '../sheet/urlReferences.ts';
import type { Declaration } from '../sheet/sheet.ts';
import { comparableValue } from '../values/comparableValue.ts';
import { declarationValidity, isNeverKept, type Validity } from '../values/declarationValidity.ts';
import { meantElsewhere } from '../values/knownElsewhere.ts';
import { longhandsOf, propertyKind } from '../values/longhands.ts';
import { longhandValues } from '../values/longhandValues.ts';
import { unescapeCss } from '../values/unescape.ts';
import { resolveReference, type Base, type Target } from '../values/urls.ts';
import type { CompiledBlock, CompiledDeclaration } from './compiledRule.ts';

/** Where references count from, and a mark for files whose contents differ between the two states compared. */
export interface BlockContext {
  readonly base: Base;
  readonly fingerprint: ((path: string) => string) | undefined;
}

/** A block whose declarations are made ready when somebody asks: most rules reach nothing on most pages. */
export function compileBlock(declarations: readonly Declaration[], context: BlockContext): CompiledBlock {
  return new LazyBlock(declarations, context);
}

class LazyBlock implements CompiledBlock {
  readonly varFolder: string | undefined;
  readonly definesReference: boolean;
  readonly readsMarkup: boolean;
  private compiled: readonly CompiledDeclaration[] | undefined;
  private text: string | undefined;
  private readonly written: readonly Declaration[];
  private readonly context: BlockContext;

  constructor(written: readonly Declaration[], context: BlockContext) {
    this.written = written;
    this.context = context;
    const { base } = context;
    const folder = folderOfBase(base);
    this.varFolder = written.some((d) => usesVar(d.value)) ? folder : undefined;
    this.readsMarkup = written.some((d) => mayReadMarkup(d.value));
    this.definesReference = written.some((d) => d.property.startsWith('--') && /(url|src|image-set)\(/i.test(d.value));
  }

  get declarations(): readonly CompiledDeclaration[] {
    return (this.compiled ??= this.written.map((declaration) => compileDeclaration(declaration, this.context)));
  }

  get key(): string {
    return (this.text ??= this.declarations
      .map((c) => `${c.declaration.property}:${c.comparable}${c.declaration.important ? '!' : ''}`)
      .join(';'));
  }

  get isEmpty(): boolean {
    return this.written.length === 0;
  }
}

/** An escape could spell a function's name. */
export const mayReadMarkup = (value: string): boolean => /attr\(|sibling-|\\[^;{}]{0,60}\(/i.test(value);

const usesVar = (value: string): boolean => /(^|[^-\w])var\(/i.test(value);

function compileDeclaration(declaration: Declaration, context: BlockContext): CompiledDeclaration {
  const { property, value } = declaration;
  const validity = declarationValidity(property, value);
  const comparable = resolved(spelled(property, value, validity), property, context);
  return {
    declaration,
    longhands:
      property === 'all' ? ['all'] : validity === 'invalid' && isNeverKept(property, value) ? [] : setBy(property),
    comparable,
    values: validity === 'valid' ? longhandValues(property, comparable) : undefined,
    validity,
    yields: /^revert(-layer)?$/.test(comparable),
  };
}

/** What ours does not know sets itself in another browser, or what its name says without a prefix. */
function setBy(property: string): readonly string[] {
  if (propertyKind(property) !== 'unknown') return longhandsOf(property);
  const meant = meantElsewhere(property);
  return meant === undefined ? [] : [property, ...longhandsOf(meant)];
}

/**
 * A number with a point is no integer, and where one is asked for it is dropped: `1.0` stays another value than `1` unless both are
 * surely kept. CSS Values and Units 4, "Integers: the <integer> type".
 */
function spelled(property: string, value: string, validity: Validity): string {
  const comparable = comparableValue(property, value);
  return validity !== 'valid' && wholeWithPoint.test(value) ? `${comparable} written ${value}` : comparable;
}

const wholeWithPoint = /\.0+(?![\d%a-z])/i;

/** The value with each reference replaced by what it points at, so that a moved rule compares equal to itself. */
function resolved(comparable: string, property: string, context: BlockContext): string {
  // a relative reference in a custom property counts from the sheet that uses it: see CompiledBlock.varFolder
  return property.startsWith('--') ? comparable : resolvedText(comparable, context);
}

/** A text of CSS with its references resolved. */
export function resolvedText(comparable: string, context: BlockContext): string {
  if (holdsHiddenReference(comparable) || takesReferenceIn(comparable))
    return `${comparable} from ${folderOfBase(context.base)}`;
  if (!/(url|src|image-set)\(/i.test(comparable)) return comparable;
  let out = '';
  let done = 0;
  for (const { reference, span } of urlReferences(comparable)) {
    const target = resolveReference(reference, context.base);
    out += `${comparable.slice(done, span.start)}url(${targetKey(target, context)})`;
    done = span.end;
  }
  // url("x") has its quotes inside the parentheses: the spans above cover the string, so fold the double form
  return (out + comparable.slice(done)).replace(/url\([\t\n\f\r ]*url\(([^)]*)\)[\t\n\f\r ]*\)/gi, 'url($1)');
}

/** A text that something else brings in becomes an address where it is used. */
const takesReferenceIn = (text: string): boolean =>
  /(^|[^-\w])(-webkit-)?(image-set|src)\([^;{}]*(var|attr|env|if|inherit|--[-\w]+)\(/i.test(text);

/** A reference whose function is spelled with an escape is not followed: it counts from where it stands. */
const holdsHiddenReference = (text: string): boolean =>
  text.includes('\\') &&
  functionNames(text).some(
    (name) => name.includes('\\') && /^(url|src|(-webkit-)?image-set)$/i.test(unescapeCss(name)),
  );

const functionNames = (text: string): readonly string[] => text.match(/[^\t\n\f\r ,;:(){}"']+(?=\()/g) ?? [];

const folderOfBase = (base: Base): string => (base.kind === 'site' ? folderOf(base.path) : base.url);

export function targetKey(target: Target, context: BlockContext): string {
  switch (target.kind) {
    case 'site':
      return `/${target.path}${target.suffix}${context.fingerprint?.(target.path) ?? ''}`;
    case 'remote':
    case 'data':
      return target.url;
    case 'local':
      return target.fragment;
    case 'outside':
      // it climbs, so that of the page or sheet itself only the folder counts
      return `outside ${target.reference} from ${folderOf(context.base.kind === 'site' ? context.base.path : context.base.url)}`;
    case 'empty':
      return '';
  }
}
