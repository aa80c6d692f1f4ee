/**
 * Things by number, joined into sets.
 * @source R. Tarjan's union and find, paths halved
 */
export class DisjointSets {
  private readonly parent: Uint32Array;

  constructor(count: number) {
    this.parent = Uint32Array.from({ length: count }, (_, i) => i);
  }

  /** The one that stands for a thing's set. */
  root(thing: number): number {
    const { parent } = this;
    let at = thing;
    while (parent[at] !== at) at = parent[at] = parent[parent[at]!]!;
    return at;
  }

  /** Makes two sets one, of which the first's root stays the root. */
  join(first: number, second: number): void {
    this.parent[this.root(second)] = this.root(first);
  }
}
