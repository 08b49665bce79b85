import { type Inspection, type LeadingTerm, leadingTermTex } from '@schritt/core/inspect';
import { significant } from '@schritt/core/text';
import { Descriptions } from 'antd';
import { memo, type ReactNode } from 'react';
import { Tex } from '../math/tex.tsx';

/** What is known of a method beside its order: a name and what it is. */
interface Property {
  readonly label: string;
  readonly value: ReactNode;
}

function number(value: number | null, write: (value: number) => string): string | null {
  return value === null ? null : write(value);
}

/** The error at equal work of a method of order p with some evaluations per step: principal error times their power p. */
function atEqualWork(principal: number, cost: number, order: number): string {
  return significant(principal * cost ** order, 3);
}

function propertiesOf(
  { ordersOn, properties, withinDigits, order, stability, embedded }: Inspection,
  cost: number,
): readonly Property[] {
  const proof = withinDigits?.proof ?? order;
  const general = proof?.order ?? null;
  const second = embedded === null ? null : (embedded.order?.order ?? null);
  const { stageOrder, principalError, symplectic, symmetric, ssp, oscillation } = properties;
  const yesNo = (value: boolean | null): string | null => (value === null ? null : value ? 'yes' : 'no');
  const phase = stability?.phase ?? null;
  const term = (one: LeadingTerm | null): ReactNode => one && <Tex tex={`${leadingTermTex(one)} + \\dots`} />;
  const rows: readonly (readonly [string, ReactNode])[] = [
    ["Order on y' = f(y)", number(ordersOn.autonomous === general ? null : ordersOn.autonomous, String)],
    ["Order on y' = Ay", number(ordersOn.linear === general ? null : ordersOn.linear, String)],
    ['Order with any matrix for the Jacobian', number(ordersOn.anyJacobian, String)],
    ['Order of the embedded formula', embedded && (second === null ? 'not proved' : String(second))],
    ['Stage order', number(stageOrder, String)],
    ['Principal error', number(principalError, (value) => significant(value, 3))],
    [
      'Principal error at equal work',
      number(general === null ? null : principalError, (value) => atEqualWork(value, cost, general ?? 0)),
    ],
    [
      "Stable on x'' = −ω²x for hω",
      number(oscillation, (value) =>
        value === Infinity ? 'without bound' : `up to ${significant(value, 6)}`,
      ),
    ],
    ['Dissipation, |R(ix)| − 1', phase && (term(phase.dissipation) ?? '0')],
    ['Dispersion, arg R(ix) − x', phase && term(phase.dispersion)],
    ['Symplectic', yesNo(symplectic)],
    ['Symmetric', yesNo(symmetric)],
    ['SSP coefficient', number(ssp, (value) => (value === Infinity ? 'no limit' : significant(value, 3)))],
  ];
  return rows.flatMap(([label, value]) => (value === null ? [] : [{ label, value }]));
}

/** Properties of a method that follow from its text. */
export const MethodProperties = memo(function MethodProperties({
  inspection,
  cost,
}: {
  readonly inspection: Inspection;
  /** Evaluations of f per step. */
  readonly cost: number;
}): ReactNode {
  const properties = propertiesOf(inspection, cost);
  if (properties.length === 0) return null;
  return (
    <section aria-label="Properties" className="method-properties">
      <h2 className="label">Properties</h2>
      <Descriptions
        size="small"
        column={1}
        items={properties.map(({ label, value }) => ({ key: label, label, children: value }))}
      />
    </section>
  );
});
