import { useCallback, useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { ProofReply } from '@syndeton/contract';
import { outlineLook, paperLook, setupLook, threadLook, turnLook, wellLook } from '../../ui/looks.ts';
import { Act } from '../../ui/Act.tsx';
import { holdStill } from '../../ui/holdStill.ts';
import { showMedium, type Medium } from '../../ui/frameMedium.ts';
import { showState, type HeldState } from '../../ui/frameState.ts';
import { useKeys } from '../../ui/useKeys.ts';
import { MediumMenu, StateMenu, WidthMenu } from '../../ui/ViewMenus.tsx';
import { outlinesIn, type Outline } from './outlinesIn.ts';

interface Props {
  readonly before: string;
  readonly after: string;
  readonly beforeName: string;
  readonly afterName: string;
  readonly page: string;
  readonly causes: ProofReply['pages'][number]['causes'];
}

/** A page before and after in two frames that scroll together, under one edge that can be dragged or moved by arrow keys; T turns it. */
export function SlidingEdge({ before, after, beforeName, afterName, page, causes }: Props) {
  const [at, setAt] = useState(50);
  const [level, setLevel] = useState(false);
  const [outlines, setOutlines] = useState<readonly Outline[]>([]);
  const paper = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(700);
  const [medium, setMedium] = useState<Medium>('screen');
  const [state, setState] = useState<HeldState>('at rest');
  const [loads, setLoads] = useState(0);
  const [scale, setScale] = useState(1);
  const frames = [useRef<HTMLIFrameElement>(null), useRef<HTMLIFrameElement>(null)] as const;
  const [first, second] = frames;
  const measure = useCallback(
    () => setOutlines(outlinesIn(first.current?.contentDocument ?? null, causes)),
    [causes, first],
  );
  useEffect(measure, [measure, scale]);
  useEffect(() => {
    const observer = new ResizeObserver(([entry]) => setScale(Math.min(1, entry!.contentRect.width / width)));
    observer.observe(paper.current!);
    return () => observer.disconnect();
  }, [width]);
  useEffect(() => {
    for (const { current } of [first, second])
      if (current?.contentDocument) {
        showMedium(current.contentDocument, medium);
        showState(current.contentDocument, state);
      }
    measure();
  }, [medium, state, loads, first, second, measure]);
  useKeys({ t: () => setLevel((now) => !now) });

  const onLoad = (): void => {
    for (const { current } of [first, second]) if (current?.contentDocument) holdStill(current.contentDocument);
    const windows = [first.current?.contentWindow, second.current?.contentWindow];
    windows.forEach((from, i) => {
      if (!from) return;
      from.onscroll = () => {
        const to = windows[1 - i];
        if (to && (to.scrollX !== from.scrollX || to.scrollY !== from.scrollY)) to.scrollTo(from.scrollX, from.scrollY);
        measure();
      };
    });
    setLoads((n) => n + 1);
  };
  const drag = (event: PointerEvent): void => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
    const box = paper.current!.getBoundingClientRect();
    const share = level ? (event.clientY - box.top) / box.height : (event.clientX - box.left) / box.width;
    setAt(Math.max(0, Math.min(100, share * 100)));
  };
  const onKey = (event: KeyboardEvent): void => {
    const step = { ArrowLeft: -2, ArrowUp: -2, ArrowRight: 2, ArrowDown: 2, Home: -100, End: 100 }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    setAt((now) => Math.max(0, Math.min(100, now + step)));
  };
  const clip = level ? `inset(${at}% 0 0 0)` : `inset(0 0 0 ${at}%)`;
  const share = `${100 / scale}%`;
  const size = { width: share, height: share, transform: `scale(${scale})`, transformOrigin: '0 0' };
  return (
    <div className={wellLook}>
      <div className={setupLook}>
        <span className="whitespace-nowrap">
          <b>before</b>, {beforeName}
        </span>
        <span className="flex gap-x-4 gap-y-0 max-[1100px]:gap-x-2.5">
          <WidthMenu width={width} onWidth={setWidth} />
          <MediumMenu medium={medium} onMedium={setMedium} />
          <StateMenu state={state} onState={setState} />
          <Act title="Turn the edge (T)" onClick={() => setLevel(!level)}>
            turn
          </Act>
        </span>
        <span className="whitespace-nowrap">
          <b>after</b>, {afterName}
        </span>
      </div>
      <div className={paperLook} ref={paper}>
        <div className="absolute inset-0">
          <iframe
            ref={first}
            src={before}
            title={`${page} before`}
            sandbox="allow-same-origin"
            onLoad={onLoad}
            style={size}
          />
        </div>
        <div className="absolute inset-0" style={{ clipPath: clip }}>
          <iframe
            ref={second}
            src={after}
            title={`${page} after`}
            sandbox="allow-same-origin"
            onLoad={onLoad}
            style={size}
          />
        </div>
        {outlines.map(({ key, number, box }) => (
          <div
            key={key}
            className={outlineLook}
            style={{
              left: box.left * scale - 4,
              top: box.top * scale - 3,
              width: box.width * scale + 8,
              height: box.height * scale + 6,
            }}
            aria-hidden="true"
          >
            <span>{number}</span>
          </div>
        ))}
        <div
          className="absolute top-0 bottom-0 w-[2.6px] bg-thread ml-[-1.3px] z-3 pointer-events-none"
          style={
            level
              ? { left: 0, right: 0, top: `${at}%`, width: '100%', height: 2.6, margin: '-1.3px 0' }
              : { left: `${at}%` }
          }
          aria-hidden="true"
        />
        <div
          className="absolute z-4 bottom-4.5 w-8.5 h-6.5 -ml-4.25 bg-raised rounded-[13px] shadow-[0_0_0_1px_var(--line-2),var(--float)] flex items-center justify-center cursor-ew-resize touch-none"
          style={level ? { left: '50%', top: `${at}%`, bottom: 'auto', marginTop: -13 } : { left: `${at}%` }}
          role="slider"
          tabIndex={0}
          aria-label="Edge between before and after"
          aria-orientation={level ? 'vertical' : 'horizontal'}
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={Math.round(at)}
          onKeyDown={onKey}
          onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
          onPointerMove={drag}
        >
          <svg width="22" height="14" aria-hidden="true">
            <path className={threadLook} d="M1 7H21" />
            {[-1, 0, 1].map((i) => (
              <path
                key={i}
                className={turnLook}
                d={`M${11 + i * 4.4 - 1.4} 11L${11 + i * 4.4 + 1.4} 3`}
                style={{ strokeWidth: 3 }}
              />
            ))}
          </svg>
        </div>
      </div>
    </div>
  );
}
