import type { RootedTree } from './trees.ts';

/** A vertex of a drawn tree: its place, in units of the distance between two levels, the root at (0, 0) below. */
export interface DrawnVertex {
  readonly x: number;
  readonly y: number;
  readonly root: RootedTree['root'];
  /** Place of the vertex below in the list; null for the root. */
  readonly below: number | null;
}

/**
 * A tree as it is drawn: leaves side by side, every vertex above the middle of nothing but its own.
 *
 * @example treePicture(inspection.order!.failing[0]!.tree!).length // 3
 */
export function treePicture(tree: RootedTree): readonly DrawnVertex[] {
  const drawn: DrawnVertex[] = [];
  const widthOf = (one: RootedTree): number =>
    Math.max(
      1,
      one.children.reduce((sum, child) => sum + widthOf(child), 0),
    );
  const place = (one: RootedTree, left: number, level: number, below: number | null): void => {
    const own = drawn.length;
    drawn.push({ x: left + widthOf(one) / 2, y: level, root: one.root, below });
    let from = left + (widthOf(one) - one.children.reduce((sum, child) => sum + widthOf(child), 0)) / 2;
    for (const child of one.children) {
      place(child, from, level + 1, own);
      from += widthOf(child);
    }
  };
  place(tree, -widthOf(tree) / 2, 0, null);
  return drawn;
}
