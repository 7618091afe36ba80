/**
 * The cascade layers of one page, ordered by first appearance over all its sheets, nested ones inside their parents.
 *
 * CSS Cascading and Inheritance Level 5, "Layer Ordering": what a layer holds itself is stronger than its sub-layers, what is
 * in no layer is stronger than all; layers under a condition take their place while it holds.
 */
export class LayerOrder {
  private readonly root: Layer = makeLayer();
  private readonly underConditions: string[] = [];
  private ranked = false;

  /** `condition`: what must hold for it to be declared here; empty when it always is. */
  declare(path: readonly string[], condition = ''): void {
    let at = this.root;
    for (const name of path) {
      let child = at.children.get(name);
      if (!child) {
        at.children.set(name, (child = makeLayer()));
        this.ranked = false;
      }
      at = child;
    }
    if (at.always || at.when.has(condition)) return;
    if (condition === '') at.always = true;
    else at.when.add(condition);
    this.underConditions.push(`${JSON.stringify(path)} if ${condition}`);
  }

  /** The rank of a declared layer, weakest 0, all conditions taken to hold; the empty path (no layer) has the highest. */
  rank(path: readonly string[]): number {
    if (!this.ranked) {
      assignRanks(this.root, { next: 0 });
      this.ranked = true;
    }
    let at = this.root;
    for (const name of path) at = at.children.get(name) ?? at;
    return at.rank;
  }

  get hasLayers(): boolean {
    return this.root.children.size > 0;
  }

  /** Where the order hangs on conditions: equal for pages whose layers are in the same order whatever holds. */
  get hangsOn(): string {
    return this.underConditions.some((one) => !one.endsWith(' if ')) ? this.underConditions.join('\n') : '';
  }
}

interface Layer {
  readonly children: Map<string, Layer>;
  rank: number;
  always: boolean;
  readonly when: Set<string>;
}

const makeLayer = (): Layer => ({ children: new Map(), rank: 0, always: false, when: new Set() });

function assignRanks(layer: Layer, counter: { next: number }): void {
  for (const child of layer.children.values()) assignRanks(child, counter);
  layer.rank = counter.next++;
}
