/** Times that work is done again. */
const TURNS = 12;
/** Milliseconds without a question before the first of them: the page is still being made. */
const FIRST_PAUSE = 800;
/** The same before each of the others. */
const PAUSE = 60;

/**
 * Does a piece of work again and again while nothing is asked, so that an engine has compiled what it takes when a
 * person types the first digit. Engines interpret code that ran once or twice, ten times as slow.
 */
export class Rehearsal {
  #again: ((turn: number) => void) | null = null;
  #turn = 0;
  #timer: ReturnType<typeof setTimeout> | undefined;

  /** Begins with a piece of work, unless there is one already. */
  begin(again: (turn: number) => void): void {
    if (this.#again !== null) return;
    this.#again = again;
    this.rest();
  }

  /** Waits anew: something was asked. */
  rest(): void {
    clearTimeout(this.#timer);
    if (this.#again !== null && this.#turn < TURNS)
      this.#timer = setTimeout(() => this.#next(), this.#turn === 0 ? FIRST_PAUSE : PAUSE);
  }

  #next(): void {
    this.#turn += 1;
    try {
      this.#again?.(this.#turn);
    } catch {
      // a person who asks gets the reason; here nobody has asked
      this.#turn = TURNS;
    }
    this.rest();
  }
}
