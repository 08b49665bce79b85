import { LONGEST_FORMULA, MOST_FORMULAS, recent, typesetOptions } from '@schritt/core/notation';
import { answerOf, server } from '../api/client.ts';

/** A formula as TeX, in a line of its own or not. */
export interface TexFormula {
  readonly tex: string;
  readonly block: boolean;
}

/** Sets formulas for a page; what is set is remembered. */
export interface Typesetter {
  /** A formula as HTML; null while it is not set yet. */
  readonly html: (formula: TexFormula) => string | null;
  /** Has a formula set; those that are wished for together go together. */
  readonly wish: (formula: TexFormula) => void;
  /** Calls a function whenever formulas were set, until the returned one is called. */
  readonly watch: (tell: () => void) => () => void;
  /** Fetches what sets formulas; from then on they are set at once. */
  readonly fetch: () => Promise<void>;
}

/** How often a page asks the server; one that is worked with gets what sets its formulas. */
const MOST_ASKED = 4;
/** Set formulas that are remembered. */
const MOST_KEPT = 2000;

function keyOf({ tex, block }: TexFormula): string {
  return `${block} ${tex}`;
}

/**
 * What sets formulas is larger than all else of a page. So the server sets those of a page that was just opened; it is
 * fetched where a page is worked with, or the server does not set them.
 *
 * @param ask has the server set formulas
 * @param load fetches what sets them here
 */
export function typesetterBy(
  ask: (formulas: readonly TexFormula[]) => Promise<readonly string[]>,
  load: () => Promise<(formula: TexFormula) => string>,
): Typesetter {
  const known = recent<string>(MOST_KEPT);
  const waiting = new Map<string, TexFormula>();
  const watching = new Set<() => void>();
  let set: ((formula: TexFormula) => string) | null = null;
  let coming: Promise<void> | null = null;
  let asked = 0;
  const changed = (): void => {
    for (const tell of watching) tell();
  };
  const fetch = (): Promise<void> => {
    coming ??= load()
      .then((made) => {
        set = made;
        changed();
      })
      .catch(() => {
        // a server that is gone may be there for the next formula
        coming = null;
      });
    return coming;
  };
  const askServer = async (formulas: readonly TexFormula[]): Promise<void> => {
    asked += 1;
    const html = await ask(formulas);
    if (html.length !== formulas.length) throw new Error('not as many formulas as were asked for');
    formulas.forEach((formula, i) => known.set(keyOf(formula), html[i] ?? ''));
    changed();
  };
  const setWaiting = (): void => {
    const formulas = [...waiting.values()];
    waiting.clear();
    const isForServer =
      coming === null &&
      asked < MOST_ASKED &&
      formulas.length <= MOST_FORMULAS &&
      formulas.every(({ tex }) => tex.length <= LONGEST_FORMULA);
    if (isForServer) askServer(formulas).catch(fetch);
    else void fetch();
  };
  return {
    html: (formula) => {
      const key = keyOf(formula);
      const ready = known.get(key);
      if (ready !== undefined) return ready;
      if (set === null) return null;
      const html = set(formula);
      known.set(key, html);
      return html;
    },
    wish: (formula) => {
      if (waiting.size === 0) queueMicrotask(setWaiting);
      waiting.set(keyOf(formula), formula);
    },
    watch: (tell) => {
      watching.add(tell);
      return () => watching.delete(tell);
    },
    fetch,
  };
}

/** Sets the formulas of this page. */
export const typesetter = typesetterBy(
  async (formulas) => {
    const answer = await answerOf(server.POST('/api/typeset', { body: { formulas: [...formulas] } }));
    return answer === undefined ? [] : Array.from(answer.html);
  },
  async () => {
    const { default: katex } = await import('katex');
    return ({ tex, block }) => katex.renderToString(tex, typesetOptions(block, 'htmlAndMathml'));
  },
);
