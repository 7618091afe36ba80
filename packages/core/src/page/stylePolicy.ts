import { lowered } from '../source/asciiCase.ts';
import { trimmed } from '../source/space.ts';
import { sha256, sha384, sha512 } from '@noble/hashes/sha2.js';
import { encodeText } from '../source/textCoding.ts';
import { attributeOf, type ElementNode } from './nodes.ts';

/** What a page's own policy says of one style: `maybe` where it names hosts, and the site may or may not be served from one. */
export type Allowed = 'yes' | 'maybe' | 'no';

type Directives = ReadonlyMap<string, readonly string[]>;

/** One `meta` with a policy; it counts for what comes after it. */
interface Policy {
  readonly from: number;
  readonly directives: Directives;
}

/** The policies a page sets for its own styles. */
export class StylePolicies {
  private readonly policies: readonly Policy[];

  /** Content Security Policy Level 3, "The <meta> element": in the head only, and without effect on what comes before. */
  constructor(elements: readonly ElementNode[]) {
    const policies: Policy[] = [];
    for (const element of elements) {
      if (element.tag !== 'meta' || element.namespace !== 'html') continue;
      if (attributeOf(element, 'http-equiv')?.toLowerCase() !== 'content-security-policy') continue;
      const content = attributeOf(element, 'content');
      const inHead = element.parent?.type === 'element' && element.parent.tag === 'head';
      if (content !== undefined && inHead) policies.push({ from: element.index, directives: directivesOf(content) });
    }
    this.policies = policies;
  }

  get isEmpty(): boolean {
    return this.policies.length === 0;
  }

  /** Whether the rules of a `style` element count. */
  block(element: ElementNode, text: string): Allowed {
    return this.all(element, 'style-src-elem', (list) => inline(list, attributeOf(element, 'nonce'), text));
  }

  /** Whether what a style attribute declares counts. */
  attribute(element: ElementNode, text: string): Allowed {
    return this.all(element, 'style-src-attr', (list) =>
      list.includes("'unsafe-hashes'") ? inline(list, undefined, text) : inline(list, undefined, undefined),
    );
  }

  /** Whether a sheet of the site is loaded. */
  sheet(element: ElementNode): Allowed {
    return this.all(element, 'style-src-elem', (list) => external(list, attributeOf(element, 'nonce')));
  }

  /** Whether a sheet of the site is loaded for an `@import`: sheets load when the whole page has been read. */
  imported(): Allowed {
    return worst(
      this.policies.map(({ directives }) => judged(directives, 'style-src-elem', (list) => external(list, undefined))),
    );
  }

  private all(element: ElementNode, name: string, judge: (list: readonly string[]) => Allowed): Allowed {
    const before = this.policies.filter(({ from }) => from < element.index);
    return worst(before.map(({ directives }) => judged(directives, name, judge)));
  }
}

const worst = (answers: readonly Allowed[]): Allowed =>
  answers.includes('no') ? 'no' : answers.includes('maybe') ? 'maybe' : 'yes';

/** Content Security Policy Level 3, "Parse a serialized CSP": of directives of one name the first counts. */
function directivesOf(content: string): Directives {
  const out = new Map<string, readonly string[]>();
  for (const part of content.split(';')) {
    const [name = '', ...list] = trimmed(part).split(/[\t\n\f\r ]+/);
    const lower = lowered(name);
    if (lower !== '' && !out.has(lower)) out.set(lower, list);
  }
  return out;
}

/** The list that speaks for a directive: its own, that of `style-src`, that of `default-src`. */
function judged(directives: Directives, name: string, judge: (list: readonly string[]) => Allowed): Allowed {
  const list = directives.get(name) ?? directives.get('style-src') ?? directives.get('default-src');
  return list === undefined
    ? 'yes'
    : judge(list.map((one) => (one.startsWith("'") && !/^'(nonce|sha\d+)-/i.test(one) ? lowered(one) : one)));
}

const hashSource = /^'(sha256|sha384|sha512)-(.+)'$/i;

/** "Does element match source list for type and source?": a nonce or a hash in the list takes the word of `unsafe-inline`. */
function inline(list: readonly string[], nonce: string | undefined, text: string | undefined): Allowed {
  if (nonce !== undefined && nonce !== '' && list.some((one) => /^'nonce-/i.test(one) && one.slice(7, -1) === nonce))
    return 'yes';
  if (text !== undefined && list.some((one) => isHashOf(one, text))) return 'yes';
  const named = list.some((one) => /^'nonce-/i.test(one) || hashSource.test(one));
  return list.includes("'unsafe-inline'") && !named ? 'yes' : 'no';
}

function isHashOf(source: string, text: string): boolean {
  const found = hashSource.exec(source);
  return found !== null && hashText(found[1]!, encodeText(text, 'utf-8')!) === standardBase64(found[2]!);
}

function external(list: readonly string[], nonce: string | undefined): Allowed {
  if (nonce !== undefined && nonce !== '' && list.some((one) => /^'nonce-/i.test(one) && one.slice(7, -1) === nonce))
    return 'yes';
  if (list.includes("'self'") || list.includes('*')) return 'yes';
  return list.some((one) => !one.startsWith("'") && !/^(data|blob|filesystem|mediastream):$/i.test(one))
    ? 'maybe'
    : 'no';
}

/**
 * Whether a file's bytes are what a link's `integrity` promises; true where it promises nothing that can be read.
 *
 * Subresource Integrity, "Do bytes match metadataList?": of several algorithms the strongest counts.
 */
export function matchesIntegrity(integrity: string, bytes: Uint8Array): boolean {
  const found = [
    ...integrity.matchAll(/(?:^|[\t\n\f\r ])(sha256|sha384|sha512)-([A-Za-z0-9+/_-]+={0,2})(?=[?\t\n\f\r ]|$)/gi),
  ];
  const strongest = ['sha512', 'sha384', 'sha256'].find((name) => found.some((one) => lowered(one[1]!) === name));
  if (strongest === undefined) return true;
  const hash = hashText(strongest, bytes);
  return found.some((one) => lowered(one[1]!) === strongest && standardBase64(one[2]!) === hash);
}

const standardBase64 = (text: string): string => text.replaceAll('-', '+').replaceAll('_', '/');

function hashText(algorithm: string, bytes: Uint8Array): string {
  const hash = algorithm === 'sha512' ? sha512(bytes) : algorithm === 'sha384' ? sha384(bytes) : sha256(bytes);
  const letters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
  let out = '';
  for (let i = 0; i < hash.length; i += 3) {
    const [a, b, c] = [hash[i]!, hash[i + 1], hash[i + 2]];
    const bits = (a << 16) | ((b ?? 0) << 8) | (c ?? 0);
    out += letters[bits >> 18]! + letters[(bits >> 12) & 63]!;
    out += (b === undefined ? '=' : letters[(bits >> 6) & 63]!) + (c === undefined ? '=' : letters[bits & 63]!);
  }
  return out;
}
