import {
  acceptCompletion,
  autocompletion,
  closeCompletion,
  type Completion,
  type CompletionContext,
  type CompletionResult,
  moveCompletionSelection,
  startCompletion,
} from '@codemirror/autocomplete';
import { type Extension, Prec } from '@codemirror/state';
import { hoverTooltip, keymap } from '@codemirror/view';
import type { Hint } from '@schritt/core/notation';

/** What a name is made of, primes left out. */
const NAME = /[A-Za-z\u0370-\u03ff][\w\u0370-\u03ff]*/;
const NAME_BEFORE = new RegExp(`${NAME.source}$`);
const ORDER: Readonly<Record<Hint['kind'], number>> = { name: 3, word: 2, statement: 1, function: 0 };

function completion({ text, kind, says }: Hint): Completion {
  return { label: text, detail: says, boost: ORDER[kind], type: kind };
}

/** What can be at a place: whole statements at the beginning of a line, names and functions anywhere. */
export function completionsAt(
  hints: readonly Hint[],
  before: string,
  isAsked: boolean,
): { readonly from: number; readonly options: readonly Hint[] } | null {
  if (before.includes('#')) return null;
  const word = NAME_BEFORE.exec(before)?.[0] ?? '';
  const isFirst = before.slice(0, before.length - word.length).trim() === '';
  if (word.length < (isFirst ? 1 : 2) && !isAsked) return null;
  const options = hints.filter(({ kind }) =>
    kind === 'statement' ? isFirst : !isFirst || isAsked || kind !== 'function',
  );
  return { from: before.length - word.length, options };
}

/** The hint of the name at a place of a line; null where there is none. */
export function hintAt(
  hints: readonly Hint[],
  line: string,
  at: number,
): { readonly from: number; readonly to: number; readonly hint: Hint } | null {
  const comment = line.indexOf('#');
  if (comment >= 0 && at >= comment) return null;
  for (const found of line.matchAll(new RegExp(NAME, 'g'))) {
    const [text] = found;
    const to = found.index + text.length;
    if (at < found.index || at > to) continue;
    const hint = hints.find((one) => one.text === text && one.kind !== 'statement');
    return hint === undefined ? null : { from: found.index, to, hint };
  }
  return null;
}

/**
 * Completion and hover for a text. Tab takes what is offered, Enter stays a new line.
 *
 * @param hintsOf what can be typed, by the last good reading
 */
export function hints(hintsOf: () => readonly Hint[]): Extension {
  const source = (context: CompletionContext): CompletionResult | null => {
    const line = context.state.doc.lineAt(context.pos);
    const found = completionsAt(hintsOf(), line.text.slice(0, context.pos - line.from), context.explicit);
    return found === null
      ? null
      : { from: line.from + found.from, options: found.options.map(completion), validFor: /^\w*$/ };
  };
  return [
    autocompletion({
      override: [source],
      icons: false,
      maxRenderedOptions: 60,
      defaultKeymap: false,
      // Tab is pressed for nothing else
      interactionDelay: 0,
    }),
    Prec.highest(
      keymap.of([
        { key: 'Tab', run: acceptCompletion },
        { key: 'Ctrl-Space', run: startCompletion },
        { key: 'Escape', run: closeCompletion },
        { key: 'ArrowDown', run: moveCompletionSelection(true) },
        { key: 'ArrowUp', run: moveCompletionSelection(false) },
      ]),
    ),
    hoverTooltip((view, at) => {
      const line = view.state.doc.lineAt(at);
      const found = hintAt(hintsOf(), line.text, at - line.from);
      if (found === null) return null;
      return {
        pos: line.from + found.from,
        end: line.from + found.to,
        above: true,
        create: () => {
          const dom = document.createElement('div');
          dom.className = 'hint';
          dom.textContent = found.hint.says;
          return { dom };
        },
      };
    }),
  ];
}
