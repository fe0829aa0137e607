/** In: things by their number, and which of them belong together. Out: one number for each set (union-find with path halving). */
export class DisjointSets {
  private readonly parent: Int32Array;

  constructor(count: number) {
    this.parent = Int32Array.from({ length: count }, (_, k) => k);
  }

  /** The number that stands for the set of `k`. */
  root(k: number): number {
    const { parent } = this;
    let at = k;
    while (parent[at] !== at) at = parent[at] = parent[parent[at] as number] as number;
    return at;
  }

  /** Puts both sets together; that of `a` stands for it. */
  unite(a: number, b: number): void {
    this.parent[this.root(b)] = this.root(a);
  }
}
