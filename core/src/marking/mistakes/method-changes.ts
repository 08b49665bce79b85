import { binary, type Expression, name, number } from '../../formula/expression.ts';
import { plainText } from '../../formula/plain-text.ts';
import {
  asCalled,
  givenAsCalled,
  givenBy,
  type Method,
  type MethodStatement,
  stepsBack,
  valuesOf,
  withValues,
} from '../../method/method.ts';
import { lineStarts, placeOf } from '../../text/place.ts';
import type { Trial } from '../trial-run.ts';
import type { Change, ChangedLine } from './change.ts';
import {
  exchanged,
  frequentOf,
  integerQuotients,
  type NodeChange,
  nodeChanges,
  nodesIn,
  type PlacedNode,
} from './node-changes.ts';

/** A method with nodes of one statement exchanged; null where one of them is not there any more. */
function exchangedIn(method: Method, index: number, changes: readonly NodeChange[]): Method | null {
  const statement = method.statements[index];
  const values = statement === undefined ? null : exchanged(valuesOf(statement), changes);
  if (statement === undefined || values === null) return null;
  return { ...method, statements: method.statements.with(index, withValues(statement, values)) };
}

/** A statement in the names of its text. */
function statementText(method: Method, statement: MethodStatement): string {
  const { called } = method;
  const given = givenBy(statement).map((one) =>
    one.kind === 'next' ? `${givenAsCalled(one, called)}[n+1]` : givenAsCalled(one, called),
  );
  const values = valuesOf(statement).map((value) => plainText(asCalled(value, called)));
  return `${statement.kind === 'solve' ? 'solve ' : ''}${given.join(', ')} = ${values.join(', ')}`;
}

function isName(node: Expression, text: string): boolean {
  return node.kind === 'name' && node.name === text && node.primes === 0;
}

/** h left out, squared, halved, doubled. */
function ofStepSize({ node, parent }: PlacedNode): readonly NodeChange[] {
  const change = frequentOf(node);
  if (
    node.kind === 'binary' &&
    node.operator === '/' &&
    isName(node.left, 'h') &&
    node.right.kind === 'number'
  )
    return [change('power of h', node.left, `h is written for h/${node.right.value}`)];
  if (!isName(node, 'h')) return [];
  const { at } = node;
  const found = [
    change('power of h', binary('^', node, number(2), at), 'h is squared'),
    change('power of h', binary('/', node, number(2), at), 'h/2 is written for h'),
    change('power of h', binary('*', number(2), node, at), '2*h is written for h'),
  ];
  if (parent?.kind !== 'binary' || parent.operator === '+' || parent.operator === '-') return found;
  if (parent.operator === '*') {
    const rest = parent.left === node ? parent.right : parent.left;
    return [frequentOf(parent)('missing h', rest, 'h is missing'), ...found];
  }
  return parent.operator === '/' && parent.left === node
    ? [change('missing h', number(1, at), 'h is missing'), ...found]
    : found;
}

/** The time at which f is evaluated. */
function ofTime({ node }: PlacedNode): readonly NodeChange[] {
  if (node.kind !== 'call' || !/^[fa]$/.test(node.name)) return [];
  const [time] = node.inputs;
  if (time === undefined) return [];
  const others = [
    name('t'),
    binary('+', name('t'), name('h')),
    binary('+', name('t'), binary('/', name('h'), number(2))),
  ];
  const own = plainText(time);
  return others
    .filter((other) => plainText(other) !== own)
    .map((other) => ({
      kind: 'time of a stage',
      node: time,
      other,
      says: `f is evaluated at ${plainText(other)} instead of ${own}`,
      isFrequent: true,
    }));
}

/** A value or slope of another grid point, as far back as the method reaches. */
function ofIndex({ node }: PlacedNode, depth: number): readonly NodeChange[] {
  const back = stepsBack(node);
  if (node.kind !== 'indexed' || back === null) return [];
  return [back - 1, back + 1]
    .filter((other) => other >= 0 && other <= depth)
    .map((other) => {
      const index = other === 0 ? name('n') : binary('-', name('n'), number(other));
      const changed: Expression = other === 0 && node.name !== 'f' ? name(node.name) : { ...node, index };
      return {
        kind: 'index',
        node,
        other: changed,
        says: `${plainText(changed)} is written for ${plainText(node)}`,
        isFrequent: true,
      };
    });
}

/** A value of the present grid point for one of the next that is computed already, as x[n+1] = x + h*v[n+1] needs it. */
function ofNext({ node }: PlacedNode): readonly NodeChange[] {
  if (node.kind !== 'indexed' || stepsBack(node) !== -1 || !/^[xv]$/.test(node.name)) return [];
  const says = `${node.name} is written for ${plainText(node)}: both are updated together`;
  return [frequentOf(node)('together', name(node.name), says)];
}

/** Another stage in the place of one. */
function ofStage({ node }: PlacedNode, known: readonly string[]): readonly NodeChange[] {
  if (node.kind !== 'name' || !known.includes(node.name)) return [];
  return known
    .filter((other) => other !== node.name)
    .map((other) => ({
      kind: 'stage',
      node,
      other: { ...node, name: other },
      says: `${other} is written for ${node.name}`,
      isFrequent: true,
    }));
}

/** All changes of one formula that are of one node. */
function singleChanges(value: Expression, method: Method, known: readonly string[]): readonly NodeChange[] {
  const nodes = nodesIn(value);
  return [
    // what has a name of its own comes first: a missing h is a missing factor, too
    ...nodes.flatMap((placed) => [
      ...ofStepSize(placed),
      ...ofTime(placed),
      ...ofStage(placed, known),
      ...ofNext(placed),
      ...ofIndex(placed, method.depth),
    ]),
    ...nodes.flatMap(nodeChanges),
  ];
}

/** Terms of a sum, with the number in front of each; null where there is none. */
function weightedTerms(sum: Expression): readonly {
  readonly term: Expression;
  readonly weight: number | null;
  readonly rest: Expression;
}[] {
  if (sum.kind === 'binary' && (sum.operator === '+' || sum.operator === '-'))
    return [...weightedTerms(sum.left), ...weightedTerms(sum.right)];
  if (sum.kind === 'binary' && sum.operator === '*' && sum.left.kind === 'number')
    return [{ term: sum, weight: sum.left.value, rest: sum.right }];
  return [{ term: sum, weight: null, rest: sum }];
}

/** Two numbers of a formula exchanged, and two stages exchanged everywhere in it. */
function swaps(value: Expression, known: readonly string[]): readonly (readonly NodeChange[])[] {
  const nodes = nodesIn(value).map(({ node }) => node);
  const numbers = nodes.filter((node) => node.kind === 'number');
  const ofNumbers = numbers.flatMap((one, i) =>
    numbers.slice(i + 1).flatMap((other) => {
      if (one.value === other.value) return [];
      const says = `${one.value} and ${other.value} are swapped`;
      return [
        [
          frequentOf(one)('weights', number(other.value, one.at), says),
          frequentOf(other)('weights', number(one.value, other.at), says),
        ],
      ];
    }),
  );
  // a weight of 1 is not written
  const ofTerms = nodes.flatMap((node) => {
    if (node.kind !== 'binary' || (node.operator !== '+' && node.operator !== '-')) return [];
    const terms = weightedTerms(node);
    return terms.flatMap((one) =>
      terms.flatMap((other) => {
        if (one.weight === null || other.weight !== null) return [];
        const says = `the weights ${one.weight} and 1 are swapped`;
        return [
          [
            frequentOf(one.term)('weights', one.rest, says),
            frequentOf(other.term)('weights', binary('*', number(one.weight), other.rest), says),
          ],
        ];
      }),
    );
  });
  const ofStages = known.flatMap((one, i) =>
    known.slice(i + 1).flatMap((other) => {
      const exchanged = nodes.flatMap((node) =>
        node.kind === 'name' && (node.name === one || node.name === other)
          ? [
              frequentOf(node)(
                'exchanged',
                { ...node, name: node.name === one ? other : one },
                `${one} and ${other} are exchanged`,
              ),
            ]
          : [],
      );
      return exchanged.length > 1 ? [exchanged] : [];
    }),
  );
  return [...ofNumbers, ...ofTerms, ...ofStages];
}

/** Names of vectors that are known before a statement. */
function knownBefore(method: Method, index: number): readonly string[] {
  return method.statements
    .slice(0, index)
    .flatMap((statement) =>
      statement.kind === 'let' && statement.shape !== 'vector' ? [] : givenBy(statement),
    )
    .flatMap((given) => (given.kind === 'name' ? [given.name] : []));
}

/** Every mistake in the lines of a method. */
export function methodChanges(method: Method): readonly Change[] {
  const starts = lineStarts(method.text);
  const made: Change[] = [];
  const seen = new Set<string>();
  method.statements.forEach((statement, index) => {
    if (statement.kind === 'function') return;
    const right = statementText(method, statement);
    const { line } = placeOf(starts, statement.at.from);
    const add = (changes: readonly NodeChange[]): void => {
      const [first] = changes;
      const changed = exchangedIn(method, index, changes);
      const after = changed?.statements[index];
      if (first === undefined || changed === null || after === undefined) return;
      const given = statementText(method, after);
      if (given === right || seen.has(given)) return;
      seen.add(given);
      const changedLine: ChangedLine = { of: 'method', line, given, right };
      made.push({
        kind: first.kind,
        says: first.says,
        line: changedLine,
        isFrequent: first.isFrequent,
        place: `method ${index} ${first.node.at.from}-${first.node.at.to}`,
        shift: 0,
        // of the right method it is there already
        apply: (trial) =>
          withMethod(trial, (own) => (own === method ? changed : exchangedIn(own, index, changes))),
      });
    };
    const known = knownBefore(method, index);
    for (const value of valuesOf(statement)) {
      for (const change of singleChanges(value, method, known)) add([change]);
      for (const swap of swaps(value, known)) add(swap);
      if (givenBy(statement).some(({ kind }) => kind === 'next'))
        for (const stage of known)
          add([
            {
              kind: 'corrector',
              node: value,
              other: name(stage, 0, value.at),
              says: `the value of ${stage} is taken for the new value`,
              isFrequent: true,
            },
          ]);
    }
  });
  return [...made, ...integerDivision(method), ...orderOfLines(method)];
}

function withMethod(trial: Trial, change: (method: Method) => Method | null): Trial | null {
  const [method, ...starters] = trial.methods;
  const changed = method === undefined ? null : change(method);
  return changed && { ...trial, methods: [changed, ...starters] };
}

/** All quotients of integers of a method without their remainders. */
function integerDivision(method: Method): readonly Change[] {
  const all = method.statements.map((statement) => valuesOf(statement).flatMap(integerQuotients));
  if (all.every((quotients) => quotients.length === 0)) return [];
  return [
    {
      kind: 'integer division',
      says: 'Quotients of integers in the method are taken without their remainders',
      line: null,
      isFrequent: true,
      place: 'integer division of the method',
      shift: 0,
      apply: (trial) =>
        withMethod(trial, (own) =>
          all.reduce<Method | null>(
            (now, quotients, index) =>
              now === null || quotients.length === 0 ? now : exchangedIn(now, index, quotients),
            own,
          ),
        ),
    },
  ];
}

/** Two lines of a method done in each other's place. */
function orderOfLines({ statements }: Method): readonly Change[] {
  const names = statements.flatMap((statement) =>
    statement.kind === 'let' && statement.given.kind === 'name' && statement.shape === 'vector'
      ? [statement.given.name]
      : [],
  );
  return names.slice(1).map((other, i): Change => {
    const one = names[i] ?? '';
    return {
      kind: 'order of lines',
      says: `${other} is computed before ${one}, with the ${one} of the step before`,
      line: null,
      isFrequent: false,
      place: 'order of lines',
      shift: 0,
      apply: (trial) => ({ ...trial, exchanged: [one, other] }),
    };
  });
}
