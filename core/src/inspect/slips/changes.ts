import { type Expression, partsOf, walk } from '../../formula/expression.ts';
import { givenBy, type Method, type MethodStatement, valuesOf } from '../../method/method.ts';
import type { Span } from '../../text/place.ts';
import { amountText, isZero } from '../form/amount.ts';
import type { LinearMethod } from '../form/linear-method.ts';
import { shiftsOf } from '../order/step-series.ts';

/** One change of a text that may mend it. */
export interface Change {
  readonly at: Span;
  readonly text: string;
  /** Of changes that do equally well the one with the lowest rank is the likeliest. */
  readonly rank: number;
}

function source(method: Method, { from, to }: Span): string {
  return method.text.slice(from, to);
}

/** Every node of a formula with the node that it is part of. */
function nodesIn(
  formula: Expression,
): readonly { readonly node: Expression; readonly parent: Expression | null }[] {
  const found: { readonly node: Expression; readonly parent: Expression | null }[] = [];
  const look = (node: Expression, parent: Expression | null): void => {
    found.push({ node, parent });
    for (const part of partsOf(node)) look(part, node);
  };
  look(formula, null);
  return found;
}

function isName(node: Expression, name: string): boolean {
  return node.kind === 'name' && node.name === name && node.primes === 0;
}

function holdsName(formula: Expression, name: string): boolean {
  let found = false;
  walk(formula, (node) => {
    found ||= isName(node, name);
  });
  return found;
}

/** A call of f, of a, or of a derivative of f. */
function isEvaluation(node: Expression): boolean {
  return (
    (node.kind === 'call' && /^[fa](_|$)/.test(node.name)) || (node.kind === 'indexed' && node.name === 'f')
  );
}

/** Names of vectors that lines of a text give. */
export function vectorNames(method: Method): ReadonlySet<string> {
  return new Set(
    method.statements.flatMap((statement) =>
      statement.kind === 'let' && statement.shape !== 'vector'
        ? []
        : givenBy(statement).flatMap((given) => (given.kind === 'name' ? [given.name] : [])),
    ),
  );
}

/** The terms of a sum from left to right; the formula itself where it is none. */
function termsOf(formula: Expression): readonly Expression[] {
  if (formula.kind !== 'binary' || (formula.operator !== '+' && formula.operator !== '-')) return [formula];
  return [...termsOf(formula.left), formula.right];
}

/**
 * Whether the stages of a text are defined as h times a slope: most of them are, or as many as are not where the last line has
 * no h.
 */
function definesWithStep(method: Method): boolean {
  const definitions = method.statements.flatMap((statement) =>
    statement.kind === 'let' && statement.given.kind === 'name' ? [statement.value] : [],
  );
  const withStepIn = definitions.filter(
    (value) =>
      value.kind === 'binary' &&
      value.operator === '*' &&
      isName(value.left, 'h') &&
      isEvaluation(value.right),
  ).length;
  const without = definitions.filter(isEvaluation).length;
  if (withStepIn !== without) return withStepIn > without;
  const last = method.statements.at(-1);
  return withStepIn > 0 && last !== undefined && !valuesOf(last).some((value) => holdsName(value, 'h'));
}

/** h put in before something that may lack it: a slope, a bracket, a definition. */
function withStep(method: Method, statement: MethodStatement): readonly Change[] {
  const names = vectorNames(method);
  const definition = definesWithStep(method) ? 0 : 3;
  return valuesOf(statement).flatMap((formula) =>
    nodesIn(formula).flatMap(({ node, parent }): readonly Change[] => {
      const { at } = node;
      const written = source(method, at);
      const isSlope =
        isEvaluation(node) || /^v(\[.*\])?$/.test(written) || (node.kind === 'name' && names.has(node.name));
      const isBracket = node.kind === 'binary' && '+-'.includes(node.operator) && written.startsWith('(');
      const isWhole = parent === null && isEvaluation(node);
      const isDivisor = parent?.kind === 'binary' && parent.operator === '/' && parent.right === node;
      if ((!isSlope && !isBracket) || isDivisor) return [];
      return ['h', 'h^2'].map((factor, i) => ({
        at,
        text: `${factor}*${written}`,
        rank: (isWhole ? definition : 1) + 2 * i,
      }));
    }),
  );
}

/** h taken out, or with another power. */
function otherPower(method: Method, statement: MethodStatement): readonly Change[] {
  const isDefinedWithStep = definesWithStep(method);
  return valuesOf(statement).flatMap((formula) =>
    nodesIn(formula).flatMap(({ node, parent }): readonly Change[] => {
      if (
        node.kind === 'binary' &&
        node.operator === '^' &&
        isName(node.left, 'h') &&
        node.right.kind === 'number'
      ) {
        const own = node.right.value;
        return [own - 1, own + 1, own - 2, own + 2]
          .filter((power) => power > 0)
          .map((power, i) => ({ at: node.at, text: power === 1 ? 'h' : `h^${power}`, rank: 1 + i }));
      }
      if (!isName(node, 'h') || (parent?.kind === 'binary' && parent.operator === '^')) return [];
      const powers = [2, 3].map((power) => ({ at: node.at, text: `h^${power}`, rank: power }));
      if (parent?.kind !== 'binary') return powers;
      const { left, right, operator, at } = parent;
      const without = left === node ? right : left;
      if (operator === '*') {
        const rank = isEvaluation(without) === isDefinedWithStep ? 3 : 1;
        return [{ at, text: source(method, without.at), rank }, ...powers];
      }
      return operator === '/' && left === node ? [{ at: node.at, text: '1', rank: 1 }, ...powers] : powers;
    }),
  );
}

/** A bracket around what stands behind a factor with h, to the end of the sum. */
function withBracket(method: Method, statement: MethodStatement): readonly Change[] {
  return valuesOf(statement).flatMap((formula) =>
    nodesIn(formula).flatMap(({ node, parent }): readonly Change[] => {
      const isSum = node.kind === 'binary' && '+-'.includes(node.operator);
      const isInner = parent?.kind === 'binary' && '+-'.includes(parent.operator) && parent.left === node;
      if (!isSum || isInner) return [];
      const terms = termsOf(node);
      const last = terms.at(-1);
      return terms.flatMap((term, i): readonly Change[] => {
        if (term.kind !== 'binary' || term.operator !== '*' || last === undefined || i === terms.length - 1)
          return [];
        if (!holdsName(term.left, 'h')) return [];
        const at = { from: term.right.at.from, to: last.at.to };
        return [{ at, text: `(${source(method, at)})`, rank: 1 }];
      });
    }),
  );
}

/** Changes of where h is and of its power: for a text whose terms are not all measured alike. */
export function stepChanges(method: Method): readonly Change[] {
  return method.statements.flatMap((statement) => [
    ...withStep(method, statement),
    ...otherPower(method, statement),
    ...withBracket(method, statement),
  ]);
}

/** `t + h/2`, and `t` for no shift. */
function timeText(shift: string): string {
  if (shift === '0') return 't';
  const size = shift.replace(/^-/, '');
  const multiple = size === '1' ? 'h' : /^1\/\d+$/.test(size) ? `h${size.slice(1)}` : `${size}*h`;
  return `t ${shift.startsWith('-') ? '-' : '+'} ${multiple}`;
}

/** Another time for an evaluation: that of the value beside it. */
function timeChanges(method: Method, linear: LinearMethod): readonly Change[] {
  const shifts = shiftsOf(linear).filter(({ stage }) => stage.partial === null);
  return method.statements.flatMap((statement) =>
    valuesOf(statement).flatMap((formula) =>
      nodesIn(formula).flatMap(({ node }): readonly Change[] => {
        if (node.kind !== 'call' || !/^[fa]$/.test(node.name)) return [];
        const [time] = node.inputs;
        const found = shifts.find(
          ({ stage }) => stage.span.from <= node.at.from && node.at.to <= stage.span.to,
        );
        if (time === undefined || found === undefined) return [];
        const moved = amountText(found.moved);
        const text = isZero(found.moved) ? 't' : timeText(moved);
        return [{ at: time.at, text, rank: 0 }];
      }),
    ),
  );
}

/** Another index into the history, a step or two away. */
function indexChanges(method: Method): readonly Change[] {
  return method.statements.flatMap((statement) =>
    valuesOf(statement).flatMap((formula) =>
      nodesIn(formula).flatMap(({ node }): readonly Change[] => {
        const written = source(method, node.at);
        const found = /^([a-z]+)\[n(?:-(\d+))?\]$/.exec(written);
        const isBare = node.kind === 'name' && ['y', 'x', 'v'].includes(node.name) && node.primes === 0;
        if (node.kind !== 'indexed' && !isBare) return [];
        const name = found?.[1] ?? (isBare ? written : null);
        if (name === null || (isBare && method.depth === 0)) return [];
        const back = Number(found?.[2] ?? 0);
        return [back - 1, back + 1, back - 2, back + 2]
          .filter((other) => other >= 0 && other <= method.depth + 1)
          .map((other, i) => ({
            at: node.at,
            text: other === 0 ? `${name}[n]` : `${name}[n-${other}]`,
            rank: i < 2 ? 1 : 2,
          }));
      }),
    ),
  );
}

/** Two weights of slopes in a line exchanged: two neighbouring numbers that multiply. */
function swappedNumbers(method: Method): readonly Change[] {
  return method.statements.flatMap((statement) =>
    valuesOf(statement).flatMap((formula) => {
      const numbers = nodesIn(formula)
        .flatMap(({ node, parent }) =>
          node.kind === 'number' && parent?.kind === 'binary' && '*/'.includes(parent.operator) ? [node] : [],
        )
        .sort((a, b) => a.at.from - b.at.from);
      return numbers.slice(1).flatMap((other, i): readonly Change[] => {
        const one = numbers[i]!;
        if (one.value === other.value) return [];
        const between = method.text.slice(one.at.to, other.at.from);
        const text = `${source(method, other.at)}${between}${source(method, one.at)}`;
        return [{ at: { from: one.at.from, to: other.at.to }, text, rank: 1 }];
      });
    }),
  );
}

/** Two names of slopes in a line exchanged, which exchanges their weights. */
function swaps(method: Method): readonly Change[] {
  const names = vectorNames(method);
  return method.statements.flatMap((statement) =>
    valuesOf(statement).flatMap((formula) => {
      const nodes = nodesIn(formula)
        .map(({ node }) => node)
        .filter(
          (node) =>
            (node.kind === 'name' && names.has(node.name)) || (node.kind === 'indexed' && node.name === 'f'),
        )
        .sort((a, b) => a.at.from - b.at.from);
      return nodes.flatMap((one, i) =>
        nodes.slice(i + 1).flatMap((other): readonly Change[] => {
          const [a, b] = [source(method, one.at), source(method, other.at)];
          if (a === b) return [];
          const between = method.text.slice(one.at.to, other.at.from);
          return [{ at: { from: one.at.from, to: other.at.to }, text: `${b}${between}${a}`, rank: 2 }];
        }),
      );
    }),
  );
}

/** Another sign between two terms. */
function signChanges(method: Method): readonly Change[] {
  return method.statements.flatMap((statement) =>
    valuesOf(statement).flatMap((formula) =>
      nodesIn(formula).flatMap(({ node }): readonly Change[] => {
        if (node.kind !== 'binary' || !'+-'.includes(node.operator)) return [];
        const at = { from: node.left.at.to, to: node.right.at.to };
        const other = node.operator === '+' ? '-' : '+';
        return [{ at, text: source(method, at).replace(node.operator, other), rank: 1 }];
      }),
    ),
  );
}

/** The derivative by the time beside that by y. */
function timeDerivatives(method: Method): readonly Change[] {
  return method.statements.flatMap((statement) =>
    valuesOf(statement).flatMap((formula) =>
      nodesIn(formula).flatMap(({ node }): readonly Change[] => {
        if (node.kind !== 'binary' || node.operator !== '*') return [];
        const { left } = node;
        if (left.kind !== 'call' || left.name !== 'f_y') return [];
        const [own, places] = [source(method, node.at), left.inputs.map(({ at }) => source(method, at))];
        return [{ at: node.at, text: `(f_t(${places.join(', ')}) + ${own})`, rank: 0 }];
      }),
    ),
  );
}

/** Changes of a text whose terms are all measured alike, but for numbers: times, indices, order, signs. */
export function structuralChanges(method: Method, linear: LinearMethod): readonly Change[] {
  return [
    ...timeChanges(method, linear),
    ...timeDerivatives(method),
    ...indexChanges(method),
    ...swappedNumbers(method),
    ...swaps(method),
    ...signChanges(method),
  ];
}

/** Sums of slopes of a text, with the names of slopes that they hold, to which one may have been forgotten. */
export function sumsOf(
  method: Method,
): readonly { readonly sum: Expression; readonly held: ReadonlySet<string>; readonly line: number }[] {
  const names = vectorNames(method);
  return method.statements.flatMap((statement, line) =>
    valuesOf(statement).flatMap((formula) =>
      nodesIn(formula).flatMap(({ node, parent }) => {
        const isInner = parent?.kind === 'binary' && '+-'.includes(parent.operator) && parent.left === node;
        if (isInner) return [];
        const terms = termsOf(node);
        const held = new Set<string>();
        for (const term of terms)
          walk(term, (one) => {
            if ((one.kind === 'name' && names.has(one.name)) || (one.kind === 'indexed' && one.name === 'f'))
              held.add(source(method, one.at));
          });
        const isSum = node.kind === 'binary' && '+-'.includes(node.operator);
        const isBracket = source(method, node.at).startsWith('(');
        return held.size > 0 && (isSum || isBracket) ? [{ sum: node, held, line }] : [];
      }),
    ),
  );
}
