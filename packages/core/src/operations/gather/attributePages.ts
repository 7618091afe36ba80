import type { FileEdits } from '../../source/changeSet.ts';
import type { SiteFile } from '../../source/site.ts';
import type { Edit } from '../../source/span.ts';
import type { PageReading } from '../../survey/pageReading.ts';
import { shiftedReading } from '../../survey/shiftedReading.ts';
import { forgetSkeleton } from '../../survey/skeleton.ts';
import { addedLink } from '../links/addedLink.ts';
import type { ReadingMakers } from '../readings.ts';

/** A page whose style attributes went. */
export interface EditedPage {
  readonly reading: PageReading;
  /** The classes it has now. */
  readonly names: readonly string[];
  readonly edits: readonly Edit[];
  readonly link: Edit | undefined;
}

export const editsOf = ({ reading, edits, link }: EditedPage): FileEdits => ({
  path: reading.path,
  hash: reading.file.hash,
  edits: link ? [...edits, link] : edits,
});

/** What is known of these pages afterwards; not where the tag of the body itself was edited. */
export const readingsOf = (pages: readonly EditedPage[], sheet: string): ReadingMakers =>
  new Map(
    pages.flatMap(({ reading, names, edits, link }) => {
      const { body } = reading;
      if (body && edits.some(({ span }) => span.start < body.startTagEnd && span.end > body.start)) return [];
      const classes = names.map((name) => `.${name.toLowerCase()}`);
      const make = (now: SiteFile): PageReading => {
        const next = shiftedReading(reading, now, link ? [...edits, link] : edits, {
          gone: new Set(),
          left: new Set(),
          link: link && addedLink(reading, link, sheet),
        });
        forgetSkeleton(now);
        return { ...next, names: next.names.with(classes) };
      };
      return [[reading.path, make] as const];
    }),
  );
