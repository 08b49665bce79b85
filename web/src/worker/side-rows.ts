import { runKey, type StudyDocument } from '@schritt/core/document';
import { componentNames } from '@schritt/core/notation';
import { Refusal } from '@schritt/core/text';
import type { Study } from '@schritt/core/study';
import type { SideRow, SideRows, SideRequest } from './messages.ts';
import { rowsWindow } from './rows.ts';

/** Rows of all methods of a study at one step size, side by side: one component of each, with the exact value. */
export function sideRows(study: Study, document: StudyDocument, window: SideRequest): SideRows {
  const { component, ...rows } = window;
  const found = study.methods.map((_, method) => {
    try {
      return rowsWindow(study, { ...rows, method }, runKey(document, method));
    } catch (thrown) {
      if (thrown instanceof Refusal) return null;
      throw thrown;
    }
  });
  const byN = new Map<number, SideRow>();
  found.forEach((one, i) => {
    for (const row of one?.rows ?? []) {
      const known = byN.get(row.n) ?? {
        n: row.n,
        t: row.t,
        exact: row.exact[component] ?? null,
        values: study.methods.map(() => null),
        conserved: study.methods.map(() => null),
      };
      const values = known.values.map((value, k) => (k === i ? (row.values[component] ?? null) : value));
      const conserved = known.conserved.map((value, k) => (k === i ? (row.conserved[0] ?? null) : value));
      byN.set(row.n, { ...known, values, conserved });
    }
  });
  return {
    component: componentNames(study.problem)[component] ?? '',
    truth: found.find((one) => one !== null)?.truths[component] ?? null,
    rows: [...byN.values()].sort((a, b) => a.n - b.n),
    steps: Math.max(0, ...found.map((one) => one?.steps ?? 0)),
    stopped: found.map((one) => one?.stopped ?? null),
  };
}
