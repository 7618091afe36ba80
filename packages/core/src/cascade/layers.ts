/**
 * The cascade layers of one page, ordered by first appearance over all its sheets, nested ones inside their parents.
 *
 * CSS Cascading and Inheritance Level 5, "Layer Ordering": what a layer holds itself is stronger than its sub-layers, what is
 * in no layer is stronger than all.
 */
export class LayerOrder {
  private readonly root: Layer = { children: new Map(), rank: 0 };
  private ranked = false;

  declare(path: readonly string[]): void {
    let at = this.root;
    for (const name of path) {
      let child = at.children.get(name);
      if (!child) at.children.set(name, (child = { children: new Map(), rank: 0 }));
      at = child;
    }
    this.ranked = false;
  }

  /** The rank of a declared layer, weakest 0; the empty path (no layer) has the highest. */
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
}

interface Layer {
  readonly children: Map<string, Layer>;
  rank: number;
}

function assignRanks(layer: Layer, counter: { next: number }): void {
  for (const child of layer.children.values()) assignRanks(child, counter);
  layer.rank = counter.next++;
}
