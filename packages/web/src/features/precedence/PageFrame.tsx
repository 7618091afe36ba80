import { useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { ElementTableReply } from '@syndeton/contract';
import { setupLook, wellLook } from '../../ui/looks.ts';
import { Act } from '../../ui/Act.tsx';
import { Field } from '../../ui/Field.tsx';
import { viewOf } from '../../ui/pageDom.ts';
import { showMedium, type Medium } from '../../ui/frameMedium.ts';
import { elementAtPath, pathOfElement } from '../../ui/elementPath.ts';
import { Menu, MenuItem } from '../../ui/Menu.tsx';
import { PlaceBox, placeOf, ScaledPage, type Place } from '../../ui/ScaledPage.tsx';
import { MediumMenu, WidthMenu } from '../../ui/ViewMenus.tsx';
import { findElements, Peeling } from './frameDocument.ts';

interface Props {
  readonly src: string;
  readonly page: string;
  readonly element: string;
  readonly table: ElementTableReply | undefined;
  readonly peeled: readonly string[];
  readonly width: number;
  readonly medium: Medium;
  readonly states: readonly string[];
  readonly onPick: (path: string) => void;
  /** Values as this browser computes them for the picked element, by property. */
  readonly onComputed: (values: Readonly<Record<string, string>>) => void;
  /** Where the picked element's right edge is in the window; undefined when it is scrolled away. */
  readonly onPlace: (point: Point | undefined) => void;
  readonly onWidth: (width: number) => void;
  readonly onMedium: (medium: Medium) => void;
  readonly onStates: (states: readonly string[]) => void;
}

export interface Point {
  readonly x: number;
  readonly y: number;
}

const states = ['hover', 'focus', 'active', 'visited', 'checked', 'disabled'];

/** The page as this browser renders it; a click picks an element, and what is peeled is switched off in it. */
export function PageFrame(props: Props) {
  const { src, page, element, table, peeled, width, medium, onPick, onComputed } = props;
  const frame = useRef<HTMLIFrameElement>(null);
  const paper = useRef<HTMLDivElement>(null);
  const peeling = useRef(new Peeling());
  const [scale, setScale] = useState(1);
  const [loads, setLoads] = useState(0);
  const [place, setPlace] = useState<Place | undefined>(undefined);
  const [hovered, setHovered] = useState<Place | undefined>(undefined);
  const [asked, setAsked] = useState('');
  const [missed, setMissed] = useState(false);
  const pending = useRef(false);

  const look = useCallback(() => {
    const document = frame.current?.contentDocument;
    const picked = elementAtPath(document, element);
    setPlace(picked ? placeOf(picked) : undefined);
  }, [element]);

  useLayoutEffect(() => {
    const document = frame.current?.contentDocument;
    if (loads === 0 || !document?.body) return;
    const picked = elementAtPath(document, element);
    peeling.current.apply(document, picked, table, peeled);
    showMedium(document, medium);
    look();
    if (!picked || !table) return;
    const style = viewOf(document)!.getComputedStyle(picked);
    onComputed(
      Object.fromEntries(
        table.rows
          .flatMap(({ property, longhands }) => [property, ...longhands.slice(0, 4)])
          .map((name) => [name, style.getPropertyValue(name)]),
      ),
    );
  }, [loads, element, table, peeled, medium, look, onComputed, scale]);

  const { onPlace } = props;
  useEffect(() => {
    const box = paper.current!.getBoundingClientRect();
    const x = place && Math.min(box.right, box.left + (place.left + place.width) * scale + 3);
    const y = place && box.top + (place.top + place.height / 2) * scale;
    onPlace(x === undefined || y === undefined || y < box.top || y > box.bottom ? undefined : { x, y });
  }, [place, scale, onPlace]);

  const onLoad = (): void => {
    const document = frame.current?.contentDocument;
    if (!document) return;
    peeling.current = new Peeling();
    elementAtPath(document, element)?.scrollIntoView({ block: 'center' });
    setLoads((n) => n + 1);
  };

  const find = (): void => {
    const document = frame.current?.contentDocument;
    if (asked.trim() === '') return;
    // asked before the page is there: looked for once it is
    pending.current = loads === 0;
    if (loads === 0 || !document?.body) return;
    const found = findElements(document, asked);
    const next = found[(found.findIndex((one) => pathOfElement(one) === element) + 1) % found.length];
    setMissed(!next);
    if (!next) return;
    next.scrollIntoView({ block: 'center' });
    onPick(pathOfElement(next));
  };
  useEffect(() => {
    if (loads > 0 && pending.current) find();
  });
  return (
    <div className={wellLook}>
      <div className={`${setupLook} h-auto! min-h-9.5 flex-wrap gap-x-3 gap-y-1 whitespace-nowrap`}>
        <MediumMenu medium={props.medium} onMedium={props.onMedium} />
        <WidthMenu width={width} onWidth={props.onWidth} />
        <Menu
          label="States held on, in the table"
          trigger={<Act>state {props.states.length === 0 ? 'none' : props.states.join(', ')}</Act>}
        >
          {states.map((one) => (
            <MenuItem
              key={one}
              onSelect={() =>
                props.onStates(
                  props.states.includes(one) ? props.states.filter((s) => s !== one) : [...props.states, one],
                )
              }
            >
              {props.states.includes(one) ? `${one}, on` : one}
            </MenuItem>
          ))}
        </Menu>
        <form
          className="min-w-27.5 flex-1"
          onSubmit={(event) => {
            event.preventDefault();
            find();
          }}
        >
          <Field
            aria-label="Find an element by selector or text"
            aria-invalid={missed}
            placeholder="selector or text"
            value={asked}
            onChange={(event) => {
              setAsked(event.target.value);
              setMissed(false);
            }}
          />
        </form>
        <span className="text-note text-ink-3">{Math.round(scale * 100)} %</span>
      </div>
      <ScaledPage
        src={src}
        title={`${page}, click an element`}
        label={`${page} as it looks: click an element to pick it, arrow keys scroll`}
        width={width}
        scale={scale}
        frame={frame}
        paper={paper}
        onScale={setScale}
        onLoad={onLoad}
        onPick={(target) => onPick(pathOfElement(target))}
        onHover={(target) => setHovered(target && placeOf(target))}
        onScrolled={() => {
          setHovered(undefined);
          look();
        }}
      >
        {hovered && (
          <PlaceBox
            place={hovered}
            scale={scale}
            outside={3}
            className="absolute pointer-events-none rounded-sm z-2 shadow-[0_0_0_1px_var(--tick)]"
          />
        )}
        {place && (
          <PlaceBox
            place={place}
            scale={scale}
            outside={3}
            className="absolute pointer-events-none rounded-sm z-2 shadow-[0_0_0_1.5px_var(--thread)]"
          />
        )}
      </ScaledPage>
    </div>
  );
}
