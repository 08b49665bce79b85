import { runKey, type StudyDocument } from '@schritt/core/document';
import { componentNames } from '@schritt/core/notation';
import { Refusal } from '@schritt/core/text';
import type { Study } from '@schritt/core/study';
import type { RowsWindow, SideRow, SideRows, SideRequest } from './messages.ts';
import { rowsWindow } from './rows.ts';

/** The places among the stage columns of a run of those that belong to some components, and of numbers. */
function stagePlaces(window: RowsWindow, components: readonly string[]): readonly number[] {
  const all = window.components;
  return window.stages.flatMap((heading, k) => {
    const of = /\[(.+)\]$/.exec(heading)?.[1];
    return of === undefined || !all.includes(of) || components.includes(of) ? [k] : [];
  });
}

/** Rows of all methods of a study at one step size, side by side: components of each, with exact values and stages. */
export function sideRows(study: Study, document: StudyDocument, window: SideRequest): SideRows {
  const { components, stages: withStages, ...rows } = window;
  const all = componentNames(study.problem);
  const names = components.map((c) => all[c] ?? '');
  const found = study.methods.map((_, method) => {
    try {
      return rowsWindow(study, { ...rows, method }, runKey(document, method));
    } catch (thrown) {
      if (thrown instanceof Refusal) return null;
      throw thrown;
    }
  });
  const places = found.map((one) => (one === null || !withStages ? [] : stagePlaces(one, names)));
  const byN = new Map<number, SideRow>();
  const nothing = study.methods.map(() => []);
  found.forEach((one, i) => {
    for (const row of one?.rows ?? []) {
      const known = byN.get(row.n) ?? {
        n: row.n,
        t: row.t,
        exact: components.map((c) => row.exact[c] ?? null),
        values: nothing,
        digits: study.methods.map(() => null),
        stages: nothing,
        conserved: study.methods.map(() => null),
      };
      const flat = row.stages?.flat() ?? [];
      const own = components.map((c) => row.values[c] ?? null);
      const ownStages = (places[i] ?? []).map((k) => flat[k] ?? null);
      const flatDigits = row.digits?.stages?.flat() ?? [];
      const ownDigits = row.digits && {
        values: components.map((c) => row.digits?.values[c] ?? null),
        stages: (places[i] ?? []).map((k) => flatDigits[k] ?? null),
        errors: components.map((c) => row.digits?.errors[c] ?? null),
      };
      byN.set(row.n, {
        ...known,
        values: known.values.map((value, k) => (k === i ? own : value)),
        digits: known.digits.map((value, k) => (k === i ? ownDigits : value)),
        stages: known.stages.map((value, k) => (k === i ? ownStages : value)),
        conserved: known.conserved.map((value, k) => (k === i ? (row.conserved[0] ?? null) : value)),
      });
    }
  });
  const first = found.find((one) => one !== null);
  return {
    components: names,
    truths: components.map((c) => first?.truths[c] ?? null),
    stages: found.map((one, i) => (places[i] ?? []).map((k) => one?.stages[k] ?? '')),
    rows: [...byN.values()].sort((a, b) => a.n - b.n),
    steps: Math.max(0, ...found.map((one) => one?.steps ?? 0)),
    stopped: found.map((one) => one?.stopped ?? null),
  };
}
