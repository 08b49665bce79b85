/**
 * A rooted tree: an elementary differential of the solution. Vertices are `y`, the right-hand side of a first-order
 * system; for x'' = a(t, x, v) they are `x`, whose right-hand side is v itself and so has one child at most, and `v`,
 * whose right-hand side is a. A leaf `t` is a derivative by the time; a vertex `j` is a matrix in place of the Jacobian,
 * applied to its one child.
 *
 * Source: J. C. Butcher, Numerical Methods for Ordinary Differential Equations (3rd ed., 2016), chapter 3; E. Hairer,
 * S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), sections II.2, II.14.
 */
export interface RootedTree {
  readonly id: number;
  readonly root: 'y' | 'x' | 'v' | 't' | 'j';
  /** Number of vertices. */
  readonly order: number;
  /** In the order of their ids; equal ones beside one another. */
  readonly children: readonly RootedTree[];
  /** The density: order times the densities of the children. */
  readonly density: bigint;
  /** The number of ways in which the tree is laid onto itself. */
  readonly symmetry: bigint;
}

/** Which trees there are. */
export interface TreeKind {
  readonly form: 'first' | 'second';
  /** Whether derivatives by the time are reported apart from others. */
  readonly withTime: boolean;
  /** Whether a depends on v. */
  readonly withVelocity: boolean;
  /** Whether Jacobians of the text may be any matrices. */
  readonly anyJacobian: boolean;
}

/** Whether a tree holds a matrix in place of the Jacobian, which the exact solution does not. */
export function holdsMatrix({ root, children }: RootedTree): boolean {
  return root === 'j' || children.some(holdsMatrix);
}

/**
 * What elementary differentials of a single equation are equal: how many children by y and by t each vertex has, whatever
 * their order.
 */
export function derivativesIn(tree: RootedTree): string {
  const own: string[] = [];
  const look = ({ children, root }: RootedTree): void => {
    if (root === 't') return;
    const byTime = children.filter((child) => child.root === 't').length;
    own.push(root === 'j' ? root : `${children.length - byTime},${byTime}`);
    children.forEach(look);
  };
  look(tree);
  return own.sort().join(' ');
}

/** All trees of a kind up to an order, the smaller ones first. */
export class Forest {
  readonly trees: RootedTree[] = [];
  readonly kind: TreeKind;
  #order = 0;

  constructor(kind: TreeKind) {
    this.kind = kind;
  }

  /** The trees of one order. */
  ofOrder(order: number): readonly RootedTree[] {
    while (this.#order < order) this.#grow();
    return this.trees.filter((tree) => tree.order === order);
  }

  #grow(): void {
    const order = (this.#order += 1);
    const { form, withTime, anyJacobian } = this.kind;
    if (order === 1 && withTime) this.#add('t', []);
    for (const root of form === 'first' ? (['y'] as const) : (['x', 'v'] as const))
      for (const children of this.#childrenOf(root, order - 1)) this.#add(root, children);
    if (!anyJacobian) return;
    const below = this.trees.filter((tree) => tree.order === order - 1 && tree.root !== 't');
    for (const child of below) this.#add('j', [child]);
  }

  #add(root: RootedTree['root'], children: readonly RootedTree[]): void {
    const order = children.reduce((sum, child) => sum + child.order, 1);
    let density = BigInt(order);
    let symmetry = 1n;
    let same = 0;
    children.forEach((child, i) => {
      same = children[i - 1] === child ? same + 1 : 1;
      density *= child.density;
      symmetry *= child.symmetry * BigInt(same);
    });
    this.trees.push({ id: this.trees.length, root, order, children, density, symmetry });
  }

  /** Every choice of children with that many vertices in all. */
  #childrenOf(root: 'y' | 'x' | 'v', vertices: number): readonly (readonly RootedTree[])[] {
    const { withVelocity } = this.kind;
    const allowed = this.trees.filter((tree) => {
      if (root === 'x') return tree.root === 'v';
      return root === 'y' || withVelocity || tree.root !== 'v';
    });
    const most = root === 'x' ? 1 : Infinity;
    const found: (readonly RootedTree[])[] = [];
    const choose = (left: number, from: number, chosen: readonly RootedTree[]): void => {
      if (left === 0) {
        found.push(chosen);
        return;
      }
      if (chosen.length >= most) return;
      for (let i = from; i < allowed.length; i += 1) {
        const tree = allowed[i]!;
        if (tree.order <= left) choose(left - tree.order, i, [...chosen, tree]);
      }
    };
    choose(vertices, 0, []);
    return found;
  }
}
