import { countOfStages, effectiveProof, inspectMethod, type Inspection } from '@schritt/core/inspect';
import { isImplicit, type Method, parseMethod } from '@schritt/core/notation';

/** What a list of methods tells of one, proved from its text; null where it is not known. */
export interface MethodFacts {
  readonly family: string;
  readonly order: number | null;
  readonly stages: number | null;
  readonly isImplicit: boolean;
  /** `A`, `L` or `A(73°)`; '' for none of them. */
  readonly stability: string;
}

const FAMILIES: { readonly [K in NonNullable<Inspection['kind']>]: string } = {
  'explicit Runge-Kutta': 'Runge-Kutta',
  'diagonally implicit Runge-Kutta': 'Runge-Kutta',
  'implicit Runge-Kutta': 'Runge-Kutta',
  Rosenbrock: 'Rosenbrock',
  'explicit linear multistep': 'Multistep',
  'implicit linear multistep': 'Multistep',
  'predictor-corrector': 'Predictor-corrector',
  Taylor: 'Taylor',
  'with derivatives of f': 'Taylor',
  Nystrom: "x'' = a",
  'multistep for second order': "x'' = a",
};

function stabilityOf({ stability }: Inspection): string {
  if (stability === null) return '';
  if (stability.lStable) return 'L';
  if (stability.aStable) return 'A';
  return stability.alpha === null || stability.alpha === 0 ? '' : `A(${Math.floor(stability.alpha)}°)`;
}

function factsOf(method: Method): MethodFacts {
  const inspection = inspectMethod(method);
  const { kind, linear } = inspection;
  const proof = effectiveProof(inspection);
  return {
    family: kind === null ? 'Other' : FAMILIES[kind],
    order: proof === null || proof.zero?.stable === false ? null : proof.order,
    stages: linear && countOfStages(linear),
    isImplicit: isImplicit(method) || linear?.implicit === true,
    stability: stabilityOf(inspection),
  };
}

/** The facts of each text; null of one that cannot be read. */
export function methodFacts(texts: readonly string[]): readonly (MethodFacts | null)[] {
  return texts.map((text) => {
    const reading = parseMethod(text);
    return reading.ok ? factsOf(reading.value) : null;
  });
}
