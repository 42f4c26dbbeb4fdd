/** Nodes by name, in disjoint sets: what is wired together is one set. */
export class Joined {
  readonly #parent = new Map<string, string>();

  /** The node that represents the set of this one. */
  find(node: string): string {
    let root = node;
    for (let up = this.#parent.get(root); up !== undefined; up = this.#parent.get(root)) root = up;
    if (root !== node) this.#parent.set(node, root);
    return root;
  }

  /** Makes one set of the sets of two nodes; represented by that of the first. */
  join(a: string, b: string): void {
    const [rootA, rootB] = [this.find(a), this.find(b)];
    if (rootA !== rootB) this.#parent.set(rootB, rootA);
  }
}
