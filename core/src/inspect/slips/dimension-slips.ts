import { type Expression, walk } from '../../formula/expression.ts';
import { type Method, type MethodStatement, valuesOf } from '../../method/method.ts';
import type { Span } from '../../text/place.ts';
import type { LinearForm } from '../form/form.ts';
import type { LinearMethod } from '../form/linear-method.ts';
import { type Deficit, deficitsOf } from '../order/step-series.ts';
import type { Slip } from './slip.ts';

/** Whether a place is that of a statement, or inside of one of its formulas. */
function holds(statement: MethodStatement, { from, to }: Span): boolean {
  const spans = [statement.at, ...valuesOf(statement).map((value) => value.at)];
  return spans.some((span) => span.from <= from && to <= span.to);
}

/** Nodes of a statement that represent a stage: its name, or the evaluation itself. */
function nodesOf(method: Method, at: Span, is: (node: Expression) => boolean): readonly Expression[] {
  const found: Expression[] = [];
  for (const statement of method.statements)
    if (holds(statement, at))
      for (const value of valuesOf(statement))
        walk(value, (node) => {
          if (is(node)) found.push(node);
        });
  return found;
}

/** How a stage is called in a sentence: by its name, or as it is written. */
function nameOf({ stages }: LinearMethod, { basis }: Deficit): string {
  if (basis.kind === 'kept') return basis.back === 0 ? basis.variable : `${basis.variable}[n-${basis.back}]`;
  const stage = basis.kind === 'stage' ? stages[basis.stage] : undefined;
  if (stage?.name != null) return stage.name;
  const letter = stage !== undefined && 'y' in stage.at ? 'f' : 'a';
  return `${letter}${"'".repeat(stage?.primes ?? 0)}`;
}

function isNodeOf(linear: LinearMethod, deficit: Deficit): (node: Expression) => boolean {
  const name = nameOf(linear, deficit);
  const stage = deficit.basis.kind === 'stage' ? linear.stages[deficit.basis.stage] : undefined;
  const primes = stage?.primes ?? 0;
  return (node) => {
    if (node.kind === 'name') return node.name === name && node.primes === 0;
    // an evaluation with a name is meant by its name
    if (stage?.name != null) return false;
    if (node.kind === 'call') return ['f', 'a'].includes(node.name) && node.primes === primes;
    return node.kind === 'indexed' && (node.name === 'f' || node.name === 'a');
  };
}

function power(n: number): string {
  return n === 0 ? 'no h' : n === 1 ? 'h' : `h^${n}`;
}

function sentence(linear: LinearMethod, deficit: Deficit, needed: number, what: string): string {
  const name = nameOf(linear, deficit);
  const lacking = deficit.deficit - needed;
  const { basis } = deficit;
  const stage = basis.kind === 'stage' ? linear.stages[basis.stage] : undefined;
  if (stage?.primes === 0 && lacking === 1)
    return `${name} is a slope and is used without h in ${what}; did you mean h*${name}?`;
  if (stage !== undefined && lacking < 0)
    return `${name} has ${power(-lacking)} too many in ${what}: the factor h appears twice`;
  return `${name} is missing the factor ${power(lacking)} in ${what}`;
}

/** Terms with a wrong power of h: a slope beside a value, a derivative with the power of another. */
export function dimensionSlips(method: Method, linear: LinearMethod): readonly Slip[] {
  const slips: Slip[] = [];
  const inspectForm = (form: LinearForm, needed: number, at: Span, what: string): void => {
    for (const deficit of deficitsOf(form, linear)) {
      if (deficit.deficit === needed) continue;
      const [node] = nodesOf(method, at, isNodeOf(linear, deficit));
      const place = node?.at ?? at;
      if (slips.some((slip) => slip.at.from === place.from)) continue;
      slips.push({
        kind: 'dimension',
        message: sentence(linear, deficit, needed, what),
        at: place,
        repairs: [],
      });
    }
  };
  for (const { at, span, name } of linear.stages) {
    const place = name === null ? 'the argument of this evaluation' : `the argument of ${name}`;
    if ('y' in at) inspectForm(at.y, 0, span, place);
    else {
      inspectForm(at.x, 0, span, place);
      inspectForm(at.v, 1, span, place);
    }
  }
  for (const { name, form, span } of linear.lines) {
    if (name === 'y[n+1]' || name === 'x[n+1]') inspectForm(form, 0, span, name);
    if (name === 'v[n+1]') inspectForm(form, 1, span, name);
  }
  return slips;
}
