import { useState } from 'react';
import type { PageBandsReply } from '@syndeton/contract';
import { Act } from '../../ui/Act.tsx';
import { Mark } from '../../ui/Mark.tsx';
import { coloursIn, Swatch } from '../../ui/Swatch.tsx';
import { count, kB } from '../../ui/format.ts';
import { summaryOf } from '../../ui/summaryOf.ts';

type Band = PageBandsReply['bands'][number];
type Rule = Band['rules'][number];

/** A rule by its band's and its own number: `2.5`. */
export const ruleKey = (band: number, rule: number): string => `${band}.${rule}`;

interface Props {
  readonly bands: readonly Band[];
  /** On how many pages a family stands. */
  readonly pagesOf: ReadonlyMap<string, number>;
  readonly chosen: string | undefined;
  readonly onChoose: (key: string) => void;
  readonly onSheet: (path: string) => void;
}

/** The page's sources in document order, each with what its rules do and where else they stand. */
export function BandList(props: Props) {
  return (
    <div className="grid gap-4 min-w-0">
      <div className={bandLook}>
        <div className={bandHeadLook}>
          <Mark kind="default" />
          <b>browser default</b> <span>always there</span>
        </div>
      </div>
      {props.bands.map((band, index) => (
        <OneBand key={`${band.kind} ${band.name} ${band.line} ${index}`} band={band} index={index} {...props} />
      ))}
    </div>
  );
}

const bandLook = 'relative min-w-0 pl-5 text-table/5 before:absolute before:inset-y-0.75 before:left-px before:w-2.25';

/** The edge of a band, in the shape and colour of its source. */
const edgeLook: Readonly<Record<string, string>> = {
  linked: 'before:bg-area-linked',
  imported: 'before:inset-ring-2 before:inset-ring-area-linked',
  embedded: 'before:lozenge before:bg-area-embed',
  attribute: 'before:triangles before:bg-area-style',
  presentational: 'before:left-1 before:w-0.75 before:bg-area-pres',
};

const bandHeadLook =
  'flex min-h-6 items-baseline gap-2.5 overflow-hidden whitespace-nowrap [&_b]:font-bold [&_span]:truncate [&_span]:text-note/[inherit] [&_span]:text-ink-3 [&_svg]:absolute [&_svg]:top-1.75 [&_svg]:left-0';

const ruleLook =
  'grid min-h-5 w-full grid-cols-[174px_minmax(0,1fr)_auto] gap-2 text-left whitespace-nowrap text-ink-2';

const few: Readonly<Record<string, number>> = { linked: 0, imported: 0, embedded: 7, attribute: 2, presentational: 3 };

function OneBand({
  band,
  index,
  pagesOf,
  chosen,
  onChoose,
  onSheet,
}: Props & { readonly band: Band; readonly index: number }) {
  const [all, setAll] = useState(false);
  const shared = band.kind === 'linked' || band.kind === 'imported';
  const rules = band.rules.map((rule, r) => ({ rule, key: ruleKey(index, r) }));
  // of a sheet, what loses here is worth seeing first
  const first = shared ? rules.filter(({ rule }) => rule.loses > 0).slice(0, 3) : rules.slice(0, few[band.kind]);
  const matching = rules.filter(({ rule }) => rule.elements > 0);
  const shown = all ? (shared ? matching : rules) : rules.filter((one) => first.includes(one) || one.key === chosen);
  const rest = (shared ? matching.length : rules.length) - shown.length;
  return (
    <section
      className={`${bandLook} ${edgeLook[band.kind]}`}
      aria-label={`${nameOf(band)}, ${band.kind === 'embedded' ? `lines ${band.line}–${band.endLine}` : `line ${band.line}`}`}
    >
      <div className={bandHeadLook} data-tie-from={`b${index}`} data-kind={band.kind}>
        {shared && band.problem === null ? (
          <button type="button" className="name font-bold" onClick={() => onSheet(band.name)}>
            {band.name}
          </button>
        ) : (
          <b className={shared || band.kind === 'embedded' ? 'm' : ''}>{nameOf(band)}</b>
        )}
        <span>{aboutOf(band)}</span>
      </div>
      {shown.map(({ rule, key }) => (
        <BandRule
          key={key}
          rule={rule}
          kind={band.kind}
          tie={key}
          pages={rule.family === null ? undefined : pagesOf.get(rule.family)}
          chosen={chosen === key}
          onChoose={() => onChoose(key)}
        />
      ))}
      {rest > 0 && (
        <div className={ruleLook}>
          <Act className="col-span-full justify-self-start" onClick={() => setAll(true)}>
            {shared
              ? shown.length > 0
                ? `${rest} more of its ${count(rules.length, 'rule')} match here`
                : `${rest} of its ${count(rules.length, 'rule')} match here`
              : restOf(
                  band,
                  rest,
                  shown.map((s) => s.rule),
                )}
          </Act>
        </div>
      )}
      {shared && band.problem === null && matching.length === 0 && (
        <div className={`${ruleLook} text-note text-ink-3`}>none of its {count(rules.length, 'rule')} matches here</div>
      )}
    </section>
  );
}

function BandRule({
  rule,
  kind,
  tie,
  pages,
  chosen,
  onChoose,
}: {
  readonly rule: Rule;
  readonly kind: string;
  readonly tie: string;
  readonly pages: number | undefined;
  readonly chosen: boolean;
  readonly onChoose: () => void;
}) {
  const unused = kind === 'embedded' && rule.elements === 0;
  return (
    <button
      type="button"
      className={`${ruleLook} hover:bg-ground ${chosen ? '-ml-1.5 w-[calc(100%+var(--spacing)*1.5)] rounded-l-sm bg-picked! pl-1.5' : ''}`}
      aria-pressed={chosen}
      onClick={onChoose}
      {...(chosen && rule.spans.length > 0 ? { 'data-tie-from': `r${tie}`, 'data-kind': kind } : {})}
    >
      <span className={`m truncate ${unused ? 'text-ink-3' : 'text-ink'} ${chosen ? 'font-bold' : ''}`}>
        {rule.label}
      </span>
      <span className="truncate [&_.sw]:mr-0.75">
        {unused ? (
          'nothing here has it'
        ) : kind === 'presentational' ? (
          rule.declarations.map((d) => d.property).join(', ')
        ) : (
          <>
            {[...new Set(rule.declarations.flatMap((d) => coloursIn(d.value)))].slice(0, 2).map((colour) => (
              <Swatch key={colour} colour={colour} />
            ))}
            {summaryOf(rule.declarations)}
          </>
        )}
      </span>
      <span className="text-note/[inherit] text-ink-3">{whereElse(rule, kind, pages)}</span>
    </button>
  );
}

function whereElse(rule: Rule, kind: string, pages: number | undefined): string {
  if (kind === 'attribute' || kind === 'presentational') return rule.elements === 1 ? 'once' : `${rule.elements} times`;
  if (kind !== 'embedded')
    return rule.loses > 0 ? `loses ${rule.loses}` : rule.elements === 1 ? '1 element' : `${rule.elements} elements`;
  if (pages === 1) return 'only here';
  return pages === undefined ? '' : `on ${pages} pages`;
}

function nameOf({ kind, name }: Band): string {
  switch (kind) {
    case 'embedded':
      return '<style>';
    case 'attribute':
      return 'style attributes';
    case 'presentational':
      return 'presentational attributes';
    default:
      return name;
  }
}

const problems: Readonly<Record<string, string>> = {
  missing: 'there is no such file',
  remote: 'on another server, not read',
  type: 'its type is not text/css, so nothing is read',
  disabled: 'switched off',
  'no-reference': 'names no sheet',
  'untitled-alternate': 'an alternate without a title',
  policy: 'forbidden by the page’s Content-Security-Policy',
};

function aboutOf(band: Band): string {
  const media = band.media === '' || band.media === 'all' ? '' : `, for ${band.media}`;
  const problem = band.problem === null ? '' : `; ${problems[band.problem] ?? band.problem}`;
  const elements = band.rules.reduce((sum, rule) => sum + rule.elements, 0);
  switch (band.kind) {
    case 'linked':
      return `linked, line ${band.line}${media}${problem}`;
    case 'imported':
      return `imported, line ${band.line}${media}${problem}`;
    case 'embedded':
      return `embedded, lines ${band.line}–${band.endLine}; ${count(band.rules.length, 'rule')}, ${kB(band.bytes)}${media}${problem}`;
    default:
      return `on ${count(elements, 'element')}, ${kB(band.bytes)}`;
  }
}

function restOf(band: Band, rest: number, shown: readonly Rule[]): string {
  if (band.kind === 'embedded') return `${rest} more ${rest === 1 ? 'rule' : 'rules'}`;
  const labels = [
    ...new Set(band.rules.filter((rule) => !shown.includes(rule)).flatMap((rule) => rule.label.split(', '))),
  ];
  return `${rest} more on ${labels.slice(0, 4).join(', ')}`;
}
