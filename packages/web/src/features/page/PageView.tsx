import { useEffect, useMemo, useRef, useState } from 'react';
import type { FindingReply, PageBandsReply } from '@syndeton/contract';
import { sayLook } from '../../ui/looks.ts';
import { Button } from '../../ui/Button.tsx';
import { Act } from '../../ui/Act.tsx';
import { count, kB } from '../../ui/format.ts';
import { BandList, ruleKey } from './BandList.tsx';
import { sourceLines } from './sourceLines.ts';
import { SourceText } from './SourceText.tsx';
import { Strands } from './Strands.tsx';

interface Props {
  readonly page: PageBandsReply;
  /** Its number in the order of the rail, from 1. */
  readonly number: number;
  readonly of: number;
  readonly line: number | undefined;
  readonly pagesOf: ReadonlyMap<string, number>;
  readonly override: FindingReply | undefined;
  readonly onAll: () => void;
  readonly onNext: () => void;
  readonly onBack: () => void;
  readonly onSheet: (path: string) => void;
  readonly onPropose: () => void;
}

/** One page opened: its sources as bands, tied to the lit places in its own text. */
export function PageView({
  page,
  number,
  of,
  line,
  pagesOf,
  override,
  onAll,
  onNext,
  onBack,
  onSheet,
  onPropose,
}: Props) {
  const { bands, text, path } = page;
  const box = useRef<HTMLDivElement>(null);
  const [unfolded, setUnfolded] = useState<ReadonlySet<number>>(new Set());
  const [picked, setPicked] = useState<string | undefined>(undefined);
  const asked = useMemo(() => (line === undefined ? undefined : ruleAtLine(bands, line)), [bands, line]);
  const chosen = picked ?? asked;
  const kept = useMemo(() => keptLines(page, chosen, line), [page, chosen, line]);
  const lines = useMemo(() => sourceLines(text, bands, kept, unfolded), [text, bands, kept, unfolded]);
  const local = bands.filter((band) => band.kind !== 'linked' && band.kind !== 'imported');
  const bytes = local.reduce((sum, band) => sum + band.bytes, 0);
  useEffect(() => {
    const target = Math.min(...kept);
    if (Number.isFinite(target)) document.getElementById(`line-${target}`)?.scrollIntoView({ block: 'center' });
    box.current?.querySelector('[aria-pressed=true]')?.scrollIntoView({ block: 'center' });
  }, [kept]);
  return (
    <div className="min-w-190 h-full flex flex-col max-phone:min-w-0 max-phone:h-auto">
      <div className="flex items-start gap-6 px-6 pt-4 pb-1">
        <h1 className={sayLook}>
          <b>{path}</b> takes its look from <b>{count(bands.length, 'source')}</b>
          {bytes > 0 ? (
            <>
              ; <b>{kB(bytes)}</b> stands in the page.
            </>
          ) : (
            '; nothing stands in the page.'
          )}
        </h1>
        {local.some((band) => band.kind === 'embedded') && (
          <Button next className="ml-auto flex-none" onClick={onPropose}>
            Propose for this page <kbd>P</kbd>
          </Button>
        )}
      </div>
      <div className="flex min-h-7.5 items-center gap-4.5 border-b border-line px-6 pb-2 text-table/[inherit] text-ink-2 max-phone:flex-wrap max-phone:gap-y-0.5">
        <Act onClick={onAll}>All {of.toLocaleString('en')} pages</Act>
        <span>
          page {number.toLocaleString('en')} of {of.toLocaleString('en')}
        </span>
        <button type="button" className="text-note text-ink-3" onClick={onNext}>
          next <kbd>J</kbd>
        </button>
        <button type="button" className="text-note text-ink-3" onClick={onBack}>
          back <kbd>K</kbd>
        </button>
        {override && (
          <Override
            finding={override}
            onWhy={() => setPicked(ruleAtLine(bands, override.places.find((p) => p.path === path)?.line ?? 0))}
          />
        )}
      </div>
      <div
        className="relative grid min-h-0 flex-1 grid-cols-[458px_minmax(0,1fr)] gap-x-13.5 overflow-hidden max-phone:block"
        ref={box}
      >
        <Strands box={box} chosen={chosen === undefined ? undefined : `r${chosen}`} stamp={lines} />
        <div className={`${paneLook} pr-2 pl-6`} data-pane>
          <BandList
            bands={bands}
            pagesOf={pagesOf}
            chosen={chosen}
            onChoose={(key) => setPicked(key === chosen ? undefined : key)}
            onSheet={onSheet}
          />
        </div>
        <div className={paneLook} data-pane>
          <SourceText
            lines={lines}
            bands={bands}
            chosen={chosen}
            onUnfold={(from) => setUnfolded(new Set([...unfolded, from]))}
            onChoose={setPicked}
          />
        </div>
      </div>
    </div>
  );
}

const paneLook = 'min-h-0 min-w-0 overflow-auto pt-2.5 pb-6 max-phone:px-4';

function Override({ finding, onWhy }: { readonly finding: FindingReply; readonly onWhy: () => void }) {
  const parts = finding.sentence.split('`');
  return (
    <span className="ml-auto min-w-0 truncate [&_b]:text-ink" title={finding.sentence.replaceAll('`', '')}>
      <code>{parts[1]}</code> <b>wins</b> over <code>{parts[5] ?? ''}</code>
      {parts[7] === undefined ? '' : ` in ${parts[7]}`}
      {/ on \d+ elements?/.exec(finding.sentence)?.[0]}.
      <Act className="ml-2" onClick={onWhy}>
        Where
      </Act>
    </span>
  );
}

/** The rule or attribute that stands on a line of the page. */
function ruleAtLine(bands: PageBandsReply['bands'], line: number): string | undefined {
  for (const [b, band] of bands.entries()) {
    if (band.kind === 'linked' || band.kind === 'imported') continue;
    const r = band.rules.findLastIndex((rule) => rule.line === line);
    if (r >= 0) return ruleKey(b, r);
  }
  return undefined;
}

/** Lines of the chosen rule, and the one asked for, are never folded. */
function keptLines(
  { text, bands }: PageBandsReply,
  chosen: string | undefined,
  line: number | undefined,
): ReadonlySet<number> {
  const kept = new Set<number>(line === undefined ? [] : [line]);
  const [band, rule] = (chosen ?? '').split('.').map(Number);
  const spans = chosen === undefined ? [] : (bands[band!]?.rules[rule!]?.spans ?? []);
  for (const span of spans.slice(0, 1)) {
    const first = text.slice(0, span.start).split(/\r\n|\r|\n/).length;
    const last = first + text.slice(span.start, span.end).split(/\r\n|\r|\n/).length - 1;
    for (let i = first; i <= Math.min(last, first + 40); i++) kept.add(i);
  }
  return kept;
}
