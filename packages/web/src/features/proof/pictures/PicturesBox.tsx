import { useEffect, useRef, useState } from 'react';
import { outlineLook } from '../../../ui/looks.ts';
import { Act } from '../../../ui/Act.tsx';
import { Box } from '../../../ui/Box.tsx';
import { count, pageName } from '../../../ui/format.ts';
import { WidthMenu } from '../../../ui/ViewMenus.tsx';
import { comparePictures } from './comparePictures.ts';
import { drawPage, mostHeight, type Drawn } from './drawPage.ts';
import type { Compared } from './pictureRegions.ts';

interface Props {
  readonly page: string;
  /** Addresses of the page in both states, and what these are called. */
  readonly before: string;
  readonly after: string;
  readonly beforeName: string;
  readonly afterName: string;
  readonly onClose: () => void;
}

interface Pictures extends Compared {
  readonly before: Drawn;
  readonly after: Drawn;
}

/** Both states drawn by this browser, side by side; where pixels differ is outlined and numbered on both. */
export function PicturesBox({ page, before, after, beforeName, afterName, onClose }: Props) {
  const [width, setWidth] = useState(1280);
  const [drawn, setDrawn] = useState<Pictures | undefined>(undefined);
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const [at, setAt] = useState(-1);
  useEffect(() => {
    let isOver = false;
    void picturesOf(before, after, width).then(
      (pictures) => {
        if (isOver) return;
        setDrawn(pictures);
        setAt(-1);
      },
      (error: unknown) => !isOver && setProblem(error instanceof Error ? error.message : 'They could not be drawn.'),
    );
    return () => {
      isOver = true;
    };
  }, [before, after, width]);
  const regions = drawn?.regions ?? [];
  const go = (step: number): void =>
    setAt((now) => (Math.max(now, step < 0 ? 0 : -1) + step + regions.length) % regions.length);
  return (
    <Box open wide onClose={onClose} title={`${pageName(page)}, drawn in both states`}>
      <div className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)] gap-3">
        <div className="flex flex-wrap items-center gap-x-5 gap-y-1 text-table">
          <span role="status">
            {problem !== undefined ? (
              <span className="font-medium text-error">{problem}</span>
            ) : drawn ? (
              <Found drawn={drawn} />
            ) : (
              'Drawing both states …'
            )}
          </span>
          <WidthMenu
            width={width}
            onWidth={(next) => {
              setDrawn(undefined);
              setProblem(undefined);
              setWidth(next);
            }}
          />
          {regions.length > 0 && (
            <span className="flex gap-4">
              <Act onClick={() => go(-1)}>Previous</Act>
              <Act onClick={() => go(1)}>Next</Act>
            </span>
          )}
          <Act className="ml-auto" onClick={onClose}>
            Close
          </Act>
        </div>
        {drawn && (
          <div className="grid min-h-0 grid-cols-2 gap-4 overflow-auto">
            <Side drawn={drawn.before} name={`before, ${beforeName}`} regions={regions} at={at} />
            <Side drawn={drawn.after} name={`after, ${afterName}`} regions={regions} at={at} />
          </div>
        )}
      </div>
    </Box>
  );
}

async function picturesOf(before: string, after: string, width: number): Promise<Pictures> {
  const [one, other] = [await drawPage(before, width), await drawPage(after, width)];
  return { ...(await comparePictures(one.canvas, other.canvas)), before: one, after: other };
}

function Found({ drawn: { pixels, regions, before, after } }: { readonly drawn: Pictures }) {
  const cut =
    before.isCut || after.isCut
      ? ` Only the first ${mostHeight.toLocaleString('en')} pixels of its height are drawn.`
      : '';
  if (pixels === 0)
    return (
      <>
        <b>Equal, pixel for pixel.</b>
        {cut}
      </>
    );
  return (
    <>
      <b>{count(regions.length, 'region')}</b> {regions.length === 1 ? 'differs' : 'differ'}, {count(pixels, 'pixel')}.
      {cut}
    </>
  );
}

interface SideProps {
  readonly drawn: Drawn;
  readonly name: string;
  readonly regions: Compared['regions'];
  /** The region looked at; none below 0. */
  readonly at: number;
}

function Side({ drawn: { canvas }, name, regions, at }: SideProps) {
  const paper = useRef<HTMLDivElement>(null);
  const picture = useRef<HTMLCanvasElement>(null);
  const shown = useRef<HTMLDivElement>(null);
  const [scale, setScale] = useState(1);
  useEffect(() => {
    picture.current!.getContext('2d')!.drawImage(canvas, 0, 0);
    const observer = new ResizeObserver(([entry]) => setScale(entry!.contentRect.width / canvas.width));
    observer.observe(paper.current!);
    return () => observer.disconnect();
  }, [canvas]);
  useEffect(() => {
    shown.current?.scrollIntoView({ block: 'center' });
  }, [at]);
  return (
    <figure className="min-w-0">
      <figcaption className="pb-1 text-note text-ink-2">{name}</figcaption>
      <div ref={paper} className="relative border border-line">
        <canvas ref={picture} width={canvas.width} height={canvas.height} aria-label={name} className="block w-full" />
        {regions.map((region, i) => (
          <div
            key={i}
            ref={i === at ? shown : undefined}
            data-now={i === at || undefined}
            className={`${outlineLook} ${i === at ? 'border-thread [&_span]:bg-thread [&_span]:text-on-thread' : ''}`}
            style={{
              left: region.left * scale,
              top: region.top * scale,
              width: region.width * scale,
              height: region.height * scale,
            }}
            aria-hidden="true"
          >
            <span>{i + 1}</span>
          </div>
        ))}
      </div>
    </figure>
  );
}
