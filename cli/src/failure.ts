/** A fault of the input: its lines go to standard error and the exit code is 1. */
export class Failure extends Error {
  readonly lines: readonly string[];
  constructor(lines: readonly string[]) {
    super(lines.join('\n'));
    this.lines = lines;
  }
}
