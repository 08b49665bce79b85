/** Source of a loop over steps, from one of the generators. */
export interface GeneratedLoop {
  /** `function (S, origin, h, first, count)`: advances the state S in place. */
  readonly advance: string;
  /** The same with a further input OUT that takes the stages of every step, row after row. */
  readonly trace: string;
  /** Stage values of one step. */
  readonly stageWidth: number;
}
