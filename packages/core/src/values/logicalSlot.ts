/** How text runs on an element: decides which physical side a flow-relative longhand lands on. */
export interface Flow {
  readonly vertical: boolean;
  /** The physical sides of block-start, block-end, inline-start, inline-end. */
  readonly sides: readonly [blockStart: Side, blockEnd: Side, inlineStart: Side, inlineEnd: Side];
}

type Side = 'top' | 'right' | 'bottom' | 'left';

/** CSS Writing Modes 4, "Abstract-to-Physical Mappings". */
export function flowOf(writingMode: string, direction: string): Flow {
  const rtl = direction === 'rtl';
  if (/^(vertical-rl|sideways-rl|tb-rl|tb)$/.test(writingMode))
    return flow(true, ['right', 'left'], rtl ? ['bottom', 'top'] : ['top', 'bottom']);
  if (writingMode === 'vertical-lr') return flow(true, ['left', 'right'], rtl ? ['bottom', 'top'] : ['top', 'bottom']);
  if (writingMode === 'sideways-lr') return flow(true, ['left', 'right'], rtl ? ['top', 'bottom'] : ['bottom', 'top']);
  return flow(false, ['top', 'bottom'], rtl ? ['right', 'left'] : ['left', 'right']);
}

const flow = (vertical: boolean, block: readonly [Side, Side], inline: readonly [Side, Side]): Flow => ({
  vertical,
  sides: [...block, ...inline],
});

/**
 * The physical longhand that shares a slot with this one on an element with such flow; the name itself when it is physical.
 *
 * CSS Logical Properties and Values 1, "Flow-Relative Box Model Properties": the two share one place in the cascade.
 */
export function slotOf(longhand: string, { vertical, sides }: Flow): string {
  const key = `${vertical ? 'v' : 'h'}${sides[0]}${sides[2]} ${longhand}`;
  let known = memo.get(key);
  if (known === undefined) memo.set(key, (known = findSlot(longhand, vertical, sides)));
  return known;
}

const memo = new Map<string, string>();

function findSlot(name: string, vertical: boolean, sides: Flow['sides']): string {
  const size = /^(.*?)(block|inline)-size$/.exec(name);
  if (size && (size[1] === '' || /^(min|max|contain-intrinsic)-$/.test(size[1]!)))
    return `${size[1]!}${(size[2] === 'inline') === vertical ? 'height' : 'width'}`;
  const axis = /^(overflow|overscroll-behavior)-(block|inline)$/.exec(name);
  if (axis) return `${axis[1]!}-${(axis[2] === 'inline') === vertical ? 'y' : 'x'}`;
  const side = (which: string, end: string): Side => sides[(which === 'block' ? 0 : 2) + (end === 'end' ? 1 : 0)]!;
  const corner = /^(border|corner)-(start|end)-(start|end)-(radius|shape)$/.exec(name);
  if (corner) {
    const pair = [side('block', corner[2]!), side('inline', corner[3]!)];
    const upDown = pair.find((s) => s === 'top' || s === 'bottom')!;
    return `${corner[1]!}-${upDown}-${pair.find((s) => s === 'left' || s === 'right')!}-${corner[4]!}`;
  }
  const edge = /^(inset|margin|padding|border|scroll-margin|scroll-padding)-(block|inline)-(start|end)(-\w+)?$/.exec(
    name,
  );
  if (!edge) return name;
  const physical = side(edge[2]!, edge[3]!);
  return edge[1] === 'inset' ? physical : `${edge[1]!}-${physical}${edge[4] ?? ''}`;
}
