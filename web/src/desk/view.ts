/** How deep one looks: at the whole ladder, at the run of one step size, at one step of it. */
export type Depth = 'study' | 'run' | 'step';

/** What a picture shows. */
export type LensName = 'order' | 'solution' | 'error' | 'phase' | 'conserved' | 'slopes';

export const LENSES: readonly { readonly name: LensName; readonly label: string }[] = [
  { name: 'order', label: 'Order' },
  { name: 'solution', label: 'Solution' },
  { name: 'error', label: 'Error' },
  { name: 'phase', label: 'Phase' },
  { name: 'conserved', label: 'Conserved' },
  { name: 'slopes', label: 'Slopes' },
];

/** The large picture and the one beside it, unless others are chosen. */
export const USUAL: Readonly<Record<Depth, { readonly large: LensName; readonly beside: LensName }>> = {
  study: { large: 'order', beside: 'solution' },
  run: { large: 'solution', beside: 'error' },
  step: { large: 'slopes', beside: 'solution' },
};

/** What of a study the page shows; it stands in the address. */
export interface View {
  readonly depth: Depth;
  /** Null for the usual one of the depth. */
  readonly large: LensName | null;
  readonly beside: LensName | null;
  /** A rung of the ladder, or a number of steps between the rungs. */
  readonly rung: number;
  readonly steps: number | null;
  /** The step from grid point n to n + 1. */
  readonly n: number;
  /** Place of the method whose step is worked out. */
  readonly method: number;
  readonly component: number;
  /** For the last row of a lecture hall: large type, few panels, no statement. */
  readonly inClass: boolean;
}

export const FIRST_VIEW: View = {
  depth: 'study',
  large: null,
  beside: null,
  rung: 2,
  steps: null,
  n: 0,
  method: 0,
  component: 0,
  inClass: false,
};

function whole(text: string | null): number | null {
  if (text === null || !/^\d{1,9}$/.test(text)) return null;
  return Number(text);
}

function lens(text: string | null): LensName | null {
  return LENSES.find(({ name }) => name === text)?.name ?? null;
}

/** The view that an address asks for; what it does not say is as at first. */
export function readView(address: URLSearchParams): View {
  const depth = address.get('depth');
  return {
    depth: depth === 'run' || depth === 'step' ? depth : 'study',
    large: lens(address.get('large')),
    beside: lens(address.get('beside')),
    rung: whole(address.get('rung')) ?? FIRST_VIEW.rung,
    steps: whole(address.get('N')) || null,
    n: whole(address.get('n')) ?? 0,
    method: whole(address.get('method')) ?? 0,
    component: whole(address.get('component')) ?? 0,
    inClass: address.get('view') === 'class',
  };
}

/** The address of a view: only what is not as at first. */
export function writeView(view: View): URLSearchParams {
  const address = new URLSearchParams();
  const put = (name: string, value: string | number | null, first: string | number | null): void => {
    if (value !== null && value !== first) address.set(name, String(value));
  };
  put('depth', view.depth, 'study');
  put('large', view.large, null);
  put('beside', view.beside, null);
  if (view.steps === null) put('rung', view.rung, FIRST_VIEW.rung);
  put('N', view.steps, null);
  if (view.depth === 'step') put('n', view.n, 0);
  put('method', view.method, 0);
  put('component', view.component, 0);
  put('view', view.inClass ? 'class' : null, null);
  return address;
}
