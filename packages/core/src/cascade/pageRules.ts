import { trimmed, withMarkAsLetter } from '../source/space.ts';
import { textContent, type PageTree } from '../page/parsePage.ts';
import { styleSources, type EmbeddedSource, type LinkedSource, type StyleSources } from '../page/styleSources.ts';
import { matchesIntegrity } from '../page/stylePolicy.ts';
import { sheetsOf, type Site, type SiteFile } from '../source/site.ts';
import { encodingName } from '../source/textCoding.ts';
import { isTakenAsNothing } from '../values/takenAsNothing.ts';
import type { Target } from '../values/urls.ts';
import { mayReadMarkup, targetKey } from './compileBlock.ts';
import {
  conditionKey,
  type CompiledDefinition,
  type CompiledRule,
  type CompiledSheet,
  type Condition,
} from './compiledRule.ts';
import { LayerOrder } from './layers.ts';
import { linkingKey, Linkings } from './linkings.ts';
import { isAllMedia, mediaText } from './mediaText.ts';
import type { SheetCache } from './sheetCache.ts';

/** Where a rule stands: in which file, through which source of the page. */
export interface RuleSource {
  readonly kind: 'linked' | 'imported' | 'embedded';
  /** The sheet's path, or the page's for an embedded block. */
  readonly path: string;
  /** Number among the page's links and blocks, from 0. */
  readonly sourceIndex: number;
  /** Where the compiled text starts in the file: 0 for a sheet, the block's start for an embedded one. */
  readonly offset: number;
}

/** A rule as it applies to one page. */
export interface AppliedRule {
  readonly compiled: CompiledRule;
  readonly source: RuleSource;
  readonly conditions: readonly Condition[];
  readonly conditionKey: string;
  readonly layerPath: readonly string[];
  /** How many sheets that cannot be read and may say something about elements stand before it. */
  readonly unreadBefore: number;
}

export interface AppliedDefinition {
  readonly compiled: CompiledDefinition;
  readonly source: RuleSource;
  readonly conditionKey: string;
  readonly layerPath: readonly string[];
  readonly unreadBefore: number;
}

/** A sheet the page asks for and we cannot read: remote, missing, or no `.css` file. */
export interface UnreadSheet {
  readonly target: Target;
  readonly key: string;
  readonly sourceIndex: number;
  /** Somebody said that it says nothing about elements: fonts and the like may still be defined in it. */
  readonly isNothing: boolean;
}

/** All rules of a page in order of appearance, imports in place. */
export interface PageRules {
  readonly sources: StyleSources;
  readonly rules: readonly AppliedRule[];
  readonly definitions: readonly AppliedDefinition[];
  readonly layers: LayerOrder;
  readonly unread: readonly UnreadSheet[];
  /** A custom property may hold an address, so the folder of what uses it matters. */
  readonly definesReference: boolean;
  /** Some value may read attributes of elements or their place among siblings. */
  readonly readsMarkup: boolean;
  /** Equal for pages whose rules are the same ones in the same order. */
  readonly key: string;
}

/** What a page's sources come to, apart from the page. */
type CollectedRules = Omit<PageRules, 'sources'>;

const linkings = new Linkings<CollectedRules>();

/** CSS Cascading and Inheritance Level 5, "Importing Style Sheets" and "Cascade Sorting Order": linked, embedded and imported sheets in tree order. */
export function pageRules(page: PageTree, path: string, encoding: string, site: Site, cache: SheetCache): PageRules {
  return new Collector(page, path, encoding, site, cache).collect();
}

/** What lies deeper, or comes after so many imports of one page, counts as a sheet that cannot be read; it is the same only while no sheet of the site changes. */
const maxImportDepth = 32;
const maxImports = 2000;

/** How a sheet is asked for. */
interface Asked {
  readonly kind: 'linked' | 'imported';
  readonly index: number;
  readonly charset?: string | undefined;
  /** Of the sheet that imports it. */
  readonly encoding?: string | undefined;
  readonly integrity?: string | undefined;
  /** The page's policy may forbid it. */
  readonly perhaps?: boolean;
}

class Collector {
  private readonly rules: AppliedRule[] = [];
  private readonly definitions: AppliedDefinition[] = [];
  private readonly unread: UnreadSheet[] = [];
  /** How many of them may say something about elements. */
  private unreadDeciding = 0;
  private readonly layers = new LayerOrder();
  private readonly keys: string[] = [];
  private imports = 0;
  private allowedImports: StyleSources['imports'] = 'yes';
  private sheetsKey: string | undefined;
  private readonly page: PageTree;
  private readonly path: string;
  private readonly encoding: string;
  private readonly site: Site;
  private readonly cache: SheetCache;

  constructor(page: PageTree, path: string, encoding: string, site: Site, cache: SheetCache) {
    this.page = page;
    this.path = path;
    this.encoding = encoding;
    this.site = site;
    this.cache = cache;
  }

  collect(): PageRules {
    const sources = styleSources(this.page, this.path);
    const alike = linkingKey(sources, this.encoding);
    const kept = linkings.of(this.cache, this.site);
    const found = (alike === undefined ? undefined : kept.get(alike)) ?? this.read(sources);
    if (alike !== undefined && found.unread.length === 0) kept.set(alike, found);
    // a style attribute may define one as well
    const inPage = /--[^:;]*:[^;]*(url|src|image-set)\(/i.test(this.page.text);
    const definesReference = inPage || found.definesReference;
    const readsMarkup = found.readsMarkup || mayReadMarkup(this.page.text);
    return {
      ...found,
      sources,
      definesReference,
      readsMarkup,
      key: `${definesReference ? 'addresses ' : ''}${found.key}`,
    };
  }

  private read(sources: StyleSources): CollectedRules {
    this.allowedImports = sources.imports;
    sources.sheets.forEach((source, index) => {
      if (source.idle !== undefined) return;
      const conditions = sourceConditions(source, sources.preferredTitle);
      if (source.kind === 'embedded') this.embedded(source, index, sources, conditions);
      else
        this.linked(
          source.target,
          { kind: 'linked', index, charset: source.charset, integrity: source.integrity, perhaps: source.perhaps },
          conditions,
          [],
          [],
        );
    });
    const { rules, definitions, layers, unread } = this;
    const definesReference = rules.some((rule) => rule.compiled.block.definesReference);
    const readsMarkup =
      rules.some((rule) => rule.compiled.block.readsMarkup) ||
      definitions.some(({ compiled }) => mayReadMarkup(compiled.key));
    return { rules, definitions, layers, unread, definesReference, readsMarkup, key: this.keys.join('|') };
  }

  private embedded(
    source: EmbeddedSource,
    index: number,
    sources: StyleSources,
    conditions: readonly Condition[],
  ): void {
    const { start, text } = embeddedText(source, this.page.text);
    const sheet = this.cache.embedded(text, source.base);
    this.sheet(sheet, { kind: 'embedded', path: this.path, sourceIndex: index, offset: start }, conditions, [], []);
  }

  private linked(
    target: Target,
    by: Asked,
    conditions: readonly Condition[],
    layers: readonly string[],
    chain: readonly string[],
  ): void {
    const path = target.kind === 'site' ? target.path : undefined;
    if (path !== undefined && chain.includes(path)) return;
    if (by.kind === 'imported') {
      this.imports++;
      if (this.allowedImports === 'no') return;
    }
    const file = path === undefined ? undefined : this.site.files.get(path);
    const perhaps =
      by.perhaps === true ||
      (file !== undefined && this.isReadApart(by, file)) ||
      (by.kind === 'imported' && this.allowedImports === 'maybe');
    const isTooMuch = chain.length > maxImportDepth || this.imports > maxImports;
    const isNothing = isTakenAsNothing(this.site, target);
    if (path !== undefined && isNothing) return;
    if (by.integrity !== undefined && file && !matchesIntegrity(by.integrity, file.bytes)) return;
    const sheet =
      path === undefined || isTooMuch || perhaps ? undefined : this.cache.file(this.site, path, this.environmentOf(by));
    if (!sheet || path === undefined) {
      // what lies behind it is not looked at: any sheet of the site may be
      const isUnread = isTooMuch || perhaps || file?.isTooMuch === true;
      const behind = isUnread ? `${this.allSheets()} ${this.cache.marks()} ` : this.clampedMark(target);
      const key = `${behind}${targetKey(target, { base: { kind: 'site', path: this.path }, fingerprint: undefined })} ${conditionKey(conditions)}`;
      this.unread.push({ target, key, sourceIndex: by.index, isNothing });
      if (!isNothing) this.unreadDeciding++;
      this.keys.push(`unread ${key}`);
      return;
    }
    const encoding = file && this.cache.encodingOf(file, this.environmentOf(by));
    this.sheet(
      sheet,
      { kind: by.kind, path, sourceIndex: by.index, offset: 0 },
      conditions,
      layers,
      [...chain, path],
      encoding,
    );
  }

  /** CSS Syntax 3, "The input byte stream": a link's `charset` where it is one, the importing sheet's, the page's. */
  private environmentOf({ charset, encoding }: Asked): string {
    return (charset === undefined ? undefined : encodingName(charset)) ?? encoding ?? this.encoding;
  }

  /** A label with spaces around it: to the Encoding Standard it is one, to Chromium it is none. */
  private isReadApart(by: Asked, file: SiteFile): boolean {
    if (by.charset === undefined || trimmed(by.charset) === by.charset) return false;
    const [one, two] = [by, { ...by, charset: undefined }].map((asked) =>
      this.cache.encodingOf(file, this.environmentOf(asked)),
    );
    return one !== two;
  }

  /** A server whose root is the site's folder stops there: then it is this file of the site. */
  private clampedMark(target: Target): string {
    if (target.kind !== 'outside') return '';
    const file = this.site.files.get(target.clamped);
    return file ? `${file.hash} ` : '';
  }

  /** Equal as long as no sheet of the site changes. */
  private allSheets(): string {
    return (this.sheetsKey ??= sheetsOf(this.site)
      .map(({ path, hash }) => `${path} ${hash}`)
      .join(' '));
  }

  private sheet(
    sheet: CompiledSheet,
    source: RuleSource,
    conditions: readonly Condition[],
    layers: readonly string[],
    chain: readonly string[],
    encoding?: string,
  ): void {
    const outer = conditionKey(conditions);
    this.keys.push(`${sheet.id} ${outer} ${layers.join('.')}`);
    for (const item of sheet.items) {
      switch (item.kind) {
        case 'layer-statement':
          for (const name of item.names)
            this.layers.declare([...layers, ...name], orderingKey([...conditions, ...item.conditions]));
          break;
        case 'import': {
          const inner = item.layers.length === 0 ? layers : [...layers, ...item.layers];
          if (inner.length > 0) this.layers.declare(inner, orderingKey([...conditions, ...item.conditions]));
          this.linked(
            item.target,
            { kind: 'imported', index: source.sourceIndex, encoding },
            [...conditions, ...item.conditions],
            inner,
            chain,
          );
          break;
        }
        case 'rule':
        case 'definition':
          this.applied(item, source, conditions, layers);
      }
    }
  }

  private applied(
    compiled: CompiledRule | CompiledDefinition,
    source: RuleSource,
    outer: readonly Condition[],
    outerLayers: readonly string[],
  ): void {
    const layerPath = outerLayers.length === 0 ? compiled.layers : [...outerLayers, ...compiled.layers];
    const conditions = outer.length === 0 ? compiled.conditions : [...outer, ...compiled.conditions];
    if (layerPath.length > 0) this.layers.declare(layerPath, orderingKey(conditions));
    const shared = { source, conditionKey: conditionKey(conditions), layerPath };
    if (compiled.kind === 'rule')
      this.rules.push({ compiled, conditions, ...shared, unreadBefore: this.unreadDeciding });
    else this.definitions.push({ compiled, ...shared, unreadBefore: this.unread.length });
  }
}

/** What must hold for a layer to take its place in the order; a container's size does not count. */
const orderingKey = (conditions: readonly Condition[]): string =>
  conditionKey(conditions.filter(({ kind }) => kind !== 'container'));

/** The block's text as the browser reads it. In SVG, where CDATA and entities are parsed, and where it starts in the page. */
function embeddedText(source: EmbeddedSource, page: string): { readonly start: number; readonly text: string } {
  const { start, end } = source.contents;
  const raw = page.slice(start, end);
  if (!source.foreign) return { start, text: withMarkAsLetter(raw) };
  const text = textContent(source.element);
  const inside = text === '' ? 0 : raw.indexOf(text);
  return { start: start + Math.max(inside, 0), text: withMarkAsLetter(text) };
}

function sourceConditions(source: LinkedSource | EmbeddedSource, preferred: string | undefined): readonly Condition[] {
  const conditions: Condition[] = [];
  const alternate = source.kind === 'linked' && source.alternate;
  if (source.title !== '' || alternate)
    conditions.push({ kind: 'sheet-set', text: source.title, preferred: source.title === preferred });
  if (!isAllMedia(source.media)) conditions.push({ kind: 'media', text: mediaText(source.media) });
  return conditions;
}
