import { useEffect, useRef, type MouseEvent, type ReactNode, type RefObject } from 'react';
import { paperLook } from './looks.ts';
import { boxOf, elementAt } from './pageDom.ts';

/** Widths of windows to look at a page in, in CSS pixels. */
export const windowWidths = [320, 480, 700, 1024, 1280, 1600];

interface Props {
  readonly src: string;
  readonly title: string;
  /** What can be done with the page. */
  readonly label: string;
  /** How wide it is laid out, in CSS pixels; it is shown smaller where there is less room. */
  readonly width: number;
  readonly scale: number;
  readonly frame: RefObject<HTMLIFrameElement | null>;
  readonly paper: RefObject<HTMLDivElement | null>;
  /** Not reached by keyboard. */
  readonly away?: boolean;
  readonly onScale: (scale: number) => void;
  readonly onLoad: () => void;
  readonly onPick: (element: Element) => void;
  readonly onHover?: (element: Element | undefined) => void;
  readonly onScrolled: () => void;
  /** What lies over the page. */
  readonly children: ReactNode;
}

/** A page as this browser renders it, which can run nothing: pointer and keys are read above it. */
export function ScaledPage({ src, title, label, width, scale, frame, paper, away = false, children, ...on }: Props) {
  const { onScale } = on;
  const tell = useRef(onScale);
  useEffect(() => {
    tell.current = onScale;
  });
  useEffect(() => {
    const observer = new ResizeObserver(([entry]) => {
      if (entry!.contentRect.width > 0) tell.current(Math.min(1, entry!.contentRect.width / width));
    });
    observer.observe(paper.current!);
    return () => observer.disconnect();
  }, [width, paper]);
  const under = (event: MouseEvent): Element | null | undefined => {
    const box = paper.current!.getBoundingClientRect();
    const shown = frame.current?.contentDocument;
    return shown && elementAt(shown, (event.clientX - box.left) / scale, (event.clientY - box.top) / scale);
  };
  const scroll = (by: number): void => {
    frame.current?.contentWindow?.scrollBy(0, by);
    on.onScrolled();
  };
  const share = `${100 / scale}%`;
  return (
    <div className={paperLook} ref={paper}>
      <iframe
        key={src}
        ref={frame}
        src={src}
        title={title}
        sandbox="allow-same-origin"
        onLoad={on.onLoad}
        tabIndex={away ? -1 : undefined}
        style={{ width: share, height: share, transform: `scale(${scale})`, transformOrigin: '0 0' }}
      />
      {/* oxlint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- a picture of a page: it scrolls by keys, and lists beside it choose its elements */}
      <div
        className="absolute inset-0 z-3 cursor-crosshair"
        role="group"
        tabIndex={away ? -1 : 0}
        aria-label={label}
        onClick={(event) => {
          const target = under(event);
          if (target) on.onPick(target);
        }}
        onMouseMove={(event) => on.onHover?.(under(event) ?? undefined)}
        onMouseLeave={() => on.onHover?.(undefined)}
        onWheel={(event) => scroll(event.deltaY / scale)}
        onKeyDown={(event) => {
          const step = { ArrowDown: 60, ArrowUp: -60, PageDown: 500, PageUp: -500, Home: -1e6, End: 1e6 }[event.key];
          if (step === undefined) return;
          event.preventDefault();
          scroll(step);
        }}
      />
      {children}
    </div>
  );
}

/** Where an element stands in its window. */
export interface Place {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

export function placeOf(element: Element): Place {
  const { left, top, width, height } = boxOf(element);
  return { left, top, width, height };
}

/** A box around a place of a scaled page, so many pixels outside of it. */
export function PlaceBox({
  place,
  scale,
  outside,
  className,
}: {
  readonly place: Place;
  readonly scale: number;
  readonly outside: number;
  readonly className: string;
}) {
  const style = {
    left: place.left * scale - outside,
    top: place.top * scale - outside,
    width: place.width * scale + 2 * outside,
    height: place.height * scale + 2 * outside,
  };
  return <div className={className} style={style} aria-hidden="true" />;
}
