import { conditionTex, type Inspection, principalTex, treePicture } from '@schritt/core/inspect';
import { counted, powerText } from '@schritt/core/text';
import { Collapse } from 'antd';
import { memo, type ReactNode } from 'react';
import { Tex } from '../math/tex.tsx';

type Failing = NonNullable<Inspection['order']>['failing'][number];

/** Trees that are drawn, at most. */
const MAX_TREES = 60;

/** Pixels between two levels of a tree, and its margin. */
const LEVEL = 17;
const EDGE = 6;

/** A rooted tree as it is drawn in books, its root below. */
export function DrawnTree({ tree }: { readonly tree: NonNullable<Failing['tree']> }): ReactNode {
  const vertices = treePicture(tree);
  const xs = vertices.map(({ x }) => x);
  const height = Math.max(...vertices.map(({ y }) => y)) * LEVEL + 2 * EDGE;
  const left = Math.min(...xs);
  const width = (Math.max(...xs) - left) * LEVEL + 2 * EDGE;
  const at = (i: number | null): { x: number; y: number } => {
    const vertex = vertices[i ?? 0];
    return {
      x: EDGE + ((vertex?.x ?? 0) - left) * LEVEL,
      y: height - EDGE - (vertex?.y ?? 0) * LEVEL,
    };
  };
  return (
    <svg
      className="drawn-tree"
      width={width}
      height={height}
      role="img"
      aria-label="The tree of this condition"
    >
      {vertices.map(({ below }, i) =>
        below === null ? null : (
          <line
            key={`line ${i}`}
            x1={at(i).x}
            y1={at(i).y}
            x2={at(below).x}
            y2={at(below).y}
            stroke="currentColor"
          />
        ),
      )}
      {vertices.map(({ root }, i) => (
        <circle
          key={`vertex ${i}`}
          cx={at(i).x}
          cy={at(i).y}
          r={3.4}
          fill={root === 'x' || root === 't' ? 'var(--paper)' : 'currentColor'}
          stroke="currentColor"
        />
      ))}
    </svg>
  );
}

/** The first condition of the next order that fails, typeset, with its tree; how many others fail with it. */
export const OrderProof = memo(function OrderProof({
  inspection,
}: {
  readonly inspection: Inspection;
}): ReactNode {
  const { orderWithoutVelocity, tableau, withinDigits } = inspection;
  const order = withinDigits?.proof ?? inspection.order;
  if (order === null)
    return (
      <p>
        No order can be proved
        {inspection.kind === null
          ? `: the formula is not in a recognised form (${inspection.why?.why ?? ''}). Use the convergence tests.`
          : ': a term has the wrong power of h.'}
      </p>
    );
  const [first, ...others] = order.failing;
  return (
    <>
      <p className="proved-order">
        <b>
          {order.zero?.stable === false
            ? 'Does not converge.'
            : `Order ${Math.max(0, order.order)}${order.atLeast ? ' or more' : ''}`}
        </b>
        {withinDigits === null
          ? ''
          : ` within the ${counted(withinDigits.digits, 'digit')} of its coefficients`}
        {orderWithoutVelocity !== null && orderWithoutVelocity.order !== order.order
          ? `, and ${orderWithoutVelocity.order} where a does not depend on the velocity`
          : ''}
        {order.zero?.stable === false ? '' : ', proved from the text: '}
        {order.zero?.stable === false
          ? ` The formula has order ${order.order}, but it is not zero-stable: errors grow from step to step for every h.`
          : `${order.looked} conditions checked.`}
      </p>
      {withinDigits !== null && (
        <p>
          Taken exactly,{' '}
          {withinDigits.exact.order < 1 ? 'it is not consistent' : `the order is ${withinDigits.exact.order}`}
          : a condition is off by {powerText(withinDigits.defect)}.
        </p>
      )}
      {order.failing.length > 1 && order.failing.every(({ tree }) => tree !== null) && (
        <Collapse
          ghost
          size="small"
          items={[
            {
              key: 'principal',
              label: `principal error: ${order.failing.length} trees of order ${first?.order}`,
              children: (
                <ul className="principal">
                  {order.failing.slice(0, MAX_TREES).map((condition, i) => (
                    <li key={i}>
                      {condition.tree !== null && <DrawnTree tree={condition.tree} />}
                      <Tex tex={principalTex(condition)} />
                    </li>
                  ))}
                </ul>
              ),
            },
          ]}
        />
      )}
      {first !== undefined && (
        <div className="failing">
          {first.tree !== null && <DrawnTree tree={first.tree} />}
          <div>
            <span className="quiet">
              {order.order < 0
                ? 'Unsatisfied condition'
                : `First unsatisfied condition of order ${first.order}`}
              {others.length > 0 ? ` (1 of ${order.failing.length})` : ''}:{' '}
            </span>
            <Tex tex={conditionTex(first, tableau !== null)} />
          </div>
        </div>
      )}
    </>
  );
});
