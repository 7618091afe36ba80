import { useCallback, useLayoutEffect, useRef, useState } from 'react';
import { setupLook } from '../../ui/looks.ts';
import { Act } from '../../ui/Act.tsx';
import { pageName } from '../../ui/format.ts';
import { elementAtPath, pathOfElement } from '../../ui/elementPath.ts';
import { showMedium, type Medium } from '../../ui/frameMedium.ts';
import { PlaceBox, placeOf, ScaledPage, type Place } from '../../ui/ScaledPage.tsx';
import { MediumMenu, WidthMenu } from '../../ui/ViewMenus.tsx';
import { reached, replaceRules, sheetsAt, textLook, type TextLook } from './liveDocument.ts';

interface Props {
  readonly siteId: string;
  readonly page: string;
  /** Changes when the draft does: the page is loaded anew. */
  readonly version: number;
  readonly sheet: string;
  /** The rules of the sheet as they are typed now; undefined where nothing is. */
  readonly rules: readonly string[] | undefined;
  /** Of the rule at the cursor. */
  readonly selector: string | undefined;
  /** An element that changes, on this page. */
  readonly sample: string | undefined;
  /** Elements picked for something, on this page. */
  readonly chosen: readonly string[];
  /** Pages to walk through: those the rule at the cursor reaches, or that change. */
  readonly pages: readonly string[];
  readonly hidden: boolean;
  readonly onPage: (page: string) => void;
  readonly onPick: (element: string) => void;
  /** How the first element of the rule looks, before and with what is typed. */
  readonly onLooks: (looks: { readonly now: TextLook; readonly then: TextLook } | undefined) => void;
}

const mostOutlines = 200;

const boxLook = 'pointer-events-none absolute z-2 border-[1.5px] border-ink';

/** A page with the edit in hand applied, the elements of the rule at the cursor outlined. */
export function LivePage(props: Props) {
  const { siteId, page, version, sheet, rules, selector, sample, chosen, pages, hidden, onPage, onPick, onLooks } =
    props;
  const frame = useRef<HTMLIFrameElement>(null);
  const paper = useRef<HTMLDivElement>(null);
  const saved = useRef<readonly string[] | undefined>(undefined);
  const [width, setWidth] = useState(1024);
  const [medium, setMedium] = useState<Medium>('screen');
  const [scale, setScale] = useState(0.5);
  const [loads, setLoads] = useState(0);
  const [outlines, setOutlines] = useState<readonly Place[]>([]);
  const [picked, setPicked] = useState<readonly Place[]>([]);
  const src = `/preview/${siteId}/draft/${page.split('/').map(encodeURIComponent).join('/')}?v=${version}`;

  const outline = useCallback(() => {
    const document = frame.current?.contentDocument;
    const found = document?.body && selector !== undefined ? reached(document, selector).slice(0, mostOutlines) : [];
    setOutlines(found.map(placeOf).filter(({ width: w, height: h }) => w > 0 && h > 0));
    setPicked(chosen.flatMap((path) => elementAtPath(document, path) ?? []).map(placeOf));
  }, [selector, chosen]);

  useLayoutEffect(() => {
    const document = frame.current?.contentDocument;
    if (loads === 0 || !document?.body) return;
    const element = elementAtPath(document, sample ?? '') ?? reached(document, selector ?? '')[0];
    const own = sheetsAt(document, sheet);
    saved.current ??= own[0] && [...own[0].cssRules].map((rule) => rule.cssText);
    if (rules && saved.current) for (const one of own) replaceRules(one, saved.current);
    showMedium(document, medium);
    const now = element && textLook(element);
    if (rules) for (const one of own) replaceRules(one, rules);
    showMedium(document, medium);
    const then = element && textLook(element);
    onLooks(now && then ? { now, then } : undefined);
    outline();
  }, [loads, rules, selector, sample, sheet, medium, onLooks, outline, scale]);

  const onLoad = (): void => {
    const document = frame.current?.contentDocument;
    if (!document) return;
    saved.current = undefined;
    if (selector !== undefined) reached(document, selector)[0]?.scrollIntoView({ block: 'center' });
    setLoads((n) => n + 1);
  };
  const at = pages.indexOf(page);
  const step = (by: number): void => onPage(pages[(at + by + pages.length) % pages.length]!);
  return (
    <div
      className={`grid grid-rows-[auto_minmax(0,1fr)] ${hidden ? 'invisible absolute -left-1000 h-150 w-120' : 'h-[calc(100%-74px)]'}`}
      aria-hidden={hidden}
    >
      <div className={setupLook}>
        <b className="m">{pageName(page)}</b>
        {pages.length > 1 && (
          <>
            <Act onClick={() => step(-1)}>Previous</Act>
            <Act onClick={() => step(1)}>Next</Act>
          </>
        )}
        <WidthMenu width={width} onWidth={setWidth} />
        <MediumMenu medium={medium} onMedium={setMedium} />
        <span className="text-note text-ink-3">
          {at < 0 ? 'the rule is not on this page' : `${at + 1} of ${pages.length}`}, {Math.round(scale * 100)} %
        </span>
      </div>
      <ScaledPage
        src={src}
        title={`${page} with what is typed`}
        label={`${page} as it looks with what is typed: click an element to go to its rule, arrow keys scroll`}
        width={width}
        scale={scale}
        frame={frame}
        paper={paper}
        away={hidden}
        onScale={setScale}
        onLoad={onLoad}
        onPick={(target) => onPick(pathOfElement(target))}
        onScrolled={outline}
      >
        {outlines.map((place, i) => (
          <PlaceBox key={i} place={place} scale={scale} outside={1} className={boxLook} />
        ))}
        {picked.map((place, i) => (
          <PlaceBox
            key={i}
            place={place}
            scale={scale}
            outside={1}
            className={`${boxLook} border-dashed border-thread!`}
          />
        ))}
      </ScaledPage>
    </div>
  );
}
