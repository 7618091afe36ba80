import { compareSpecificity, type Specificity } from '../../selectors/selector.ts';

/**
 * The plainest selector for a class that is as strong as asked: `.name`, with the element's type, the class repeated, or with an
 * ID that no element has. With `strictly` it must be stronger, since something of equal strength comes later.
 *
 * Selectors 4, "Calculating a selector's specificity": `:not(#x)` counts as its argument.
 */
export function raisedSelector(name: string, tag: string | undefined, needed: Specificity, strictly: boolean): string {
  const enough = (has: Specificity): boolean => {
    const by = compareSpecificity(has, needed);
    return strictly ? by > 0 : by >= 0;
  };
  for (let ids = 0; ids <= needed[0] + 1; ids++)
    for (let classes = 1; classes <= 4; classes++)
      for (const types of tag === undefined ? [0] : [0, 1]) {
        if (enough([ids, classes, types]))
          return `${types === 1 ? tag! : ''}${`.${name}`.repeat(classes)}${':not(#_)'.repeat(ids)}`;
      }
  return `.${name}${':not(#_)'.repeat(needed[0] + 2)}`;
}

/** The same for an element's own ID. */
export function raisedId(id: string, needed: Specificity, strictly: boolean): string {
  let more = 0;
  const short = (): boolean => {
    const by = compareSpecificity([1 + more, 0, 0], needed);
    return strictly ? by <= 0 : by < 0;
  };
  while (short()) more++;
  return `#${id}${':not(#_)'.repeat(more)}`;
}
