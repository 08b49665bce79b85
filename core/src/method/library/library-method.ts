/** A method of the library: a text like any other, with where it comes from. */
export interface LibraryMethod {
  readonly title: string;
  readonly text: string;
  /** The order of convergence that its source proves. */
  readonly order: number;
  readonly source: string;
}
