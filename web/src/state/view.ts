import { DRAWN_AS, type DrawnAs } from '@schritt/core/document';
import { rounded } from '@schritt/core/text';
import { isDrawable, type Zoom } from '../plots/zoom.ts';

/** How deep one looks: at the whole ladder, at the run of one step size, at one step of it. */
export type Depth = 'study' | 'run' | 'step';

/** What a plot shows. */
export type PlotPanelName =
  'order' | 'cost' | 'solution' | 'error' | 'phase' | 'profile' | 'conserved' | 'slopes' | 'stability';

export const PLOT_PANELS: readonly { readonly name: PlotPanelName; readonly label: string }[] = [
  { name: 'order', label: 'Order' },
  { name: 'cost', label: 'Work' },
  { name: 'solution', label: 'Solution' },
  { name: 'error', label: 'Error' },
  { name: 'phase', label: 'Phase' },
  { name: 'profile', label: 'Profile' },
  { name: 'conserved', label: 'Invariants' },
  { name: 'slopes', label: 'Direction field' },
  { name: 'stability', label: 'Stability' },
];

/** The large plot and the one beside it, unless others are chosen. */
export const USUAL: Readonly<
  Record<Depth, { readonly large: PlotPanelName; readonly beside: PlotPanelName }>
> = {
  study: { large: 'order', beside: 'solution' },
  run: { large: 'solution', beside: 'error' },
  step: { large: 'slopes', beside: 'solution' },
};

/** The two places that hold a plot. */
export type Area = 'large' | 'beside';

/** What is on the page for the presentation view beside the large plot. */
export type Panel = 'beside' | 'table' | 'words';

export const PANELS: readonly { readonly name: Panel; readonly label: string; readonly key: string }[] = [
  { name: 'beside', label: 'second plot', key: 'p' },
  { name: 'table', label: 'table', key: 'r' },
  { name: 'words', label: 'findings', key: 'w' },
];

/** The panels for the presentation view, unless others are chosen. */
export const USUAL_PANELS: Readonly<Record<Depth, readonly Panel[]>> = {
  study: ['table'],
  run: ['table'],
  step: ['words'],
};

/** What the stability panel can show. */
export const STABILITY_VIEWS = ['region', 'all regions', 'order star'] as const;

export type StabilityView = (typeof STABILITY_VIEWS)[number];

/** What of a study the page shows; it is in the address. */
export interface View {
  readonly depth: Depth;
  /** Null for the usual one of the depth. */
  readonly large: PlotPanelName | null;
  readonly beside: PlotPanelName | null;
  /** A rung of the ladder, or a number of steps between the rungs. */
  readonly rung: number;
  readonly steps: number | null;
  /** Further rungs whose runs are drawn together with that of the chosen one, of one method. */
  readonly ticked: readonly number[];
  /** The step from grid point n to n + 1. */
  readonly n: number;
  /** Place of the method whose step is computed. */
  readonly method: number;
  readonly component: number;
  /** Whether the solution is shown with all components together. */
  readonly together: boolean;
  /** How the points of a solution are drawn; null for what suits their number. */
  readonly drawn: DrawnAs | null;
  readonly stability: StabilityView;
  /** Where a person has zoomed to; null for a plot as it was made. */
  readonly zooms: Readonly<Record<Area, Zoom | null>>;
  /** Whether the statement is folded away. */
  readonly folded: boolean;
  /** For the last row of a lecture hall: large type, few panels, no statement. */
  readonly inClass: boolean;
  /** What is there; null for the usual panels of the depth. */
  readonly panels: readonly Panel[] | null;
}

export const FIRST_VIEW: View = {
  depth: 'study',
  large: null,
  beside: null,
  rung: 2,
  steps: null,
  ticked: [],
  n: 0,
  method: 0,
  component: 0,
  together: false,
  drawn: null,
  stability: 'region',
  zooms: { large: null, beside: null },
  folded: false,
  inClass: false,
  panels: null,
};

function whole(text: string | null): number | null {
  if (text === null || !/^\d{1,9}$/.test(text)) return null;
  return Number(text);
}

function panelsOf(text: string | null): readonly Panel[] | null {
  if (text === null) return null;
  return PANELS.flatMap(({ name }) => (text.split(' ').includes(name) ? [name] : []));
}

function panelName(text: string | null): PlotPanelName | null {
  return PLOT_PANELS.find(({ name }) => name === text)?.name ?? null;
}

/** Most rungs that are drawn together. */
const MAX_TICKED = 12;

function wholes(text: string | null): readonly number[] {
  const found = (text ?? '').split(' ').flatMap((part) => whole(part) ?? []);
  return [...new Set(found)].sort((a, b) => a - b).slice(0, MAX_TICKED);
}

/** A zoom as four numbers: the ends of the horizontal axis, then of the vertical one. */
function zoomOf(text: string | null): Zoom | null {
  const [x1 = NaN, x2 = NaN, y1 = NaN, y2 = NaN] = (text ?? '').split(' ').map(Number);
  const zoom: Zoom = { x: [x1, x2], y: [y1, y2] };
  return isDrawable(zoom) ? zoom : null;
}

/** Enough digits for a plot, few enough for an address. */
function zoomText(zoom: Zoom | null): string | null {
  return zoom && [...zoom.x, ...zoom.y].map((end) => String(rounded(end, 6))).join(' ');
}

/** The view that an address asks for; what it does not say is as at first. */
export function readView(address: URLSearchParams): View {
  const depth = address.get('depth');
  return {
    depth: depth === 'run' || depth === 'step' ? depth : 'study',
    large: panelName(address.get('large')),
    beside: panelName(address.get('beside')),
    rung: whole(address.get('rung')) ?? FIRST_VIEW.rung,
    steps: whole(address.get('N')) || null,
    ticked: wholes(address.get('rungs')),
    n: whole(address.get('n')) ?? 0,
    method: whole(address.get('method')) ?? 0,
    component: whole(address.get('component')) ?? 0,
    together: address.get('components') === 'all',
    drawn: DRAWN_AS.find((one) => one === address.get('drawn')) ?? null,
    stability: STABILITY_VIEWS.find((one) => one === address.get('stability')) ?? FIRST_VIEW.stability,
    zooms: { large: zoomOf(address.get('zoom')), beside: zoomOf(address.get('zoom2')) },
    folded: address.get('statement') === 'folded',
    inClass: address.get('view') === 'class',
    panels: panelsOf(address.get('panels')),
  };
}

/** A view after a change: a plot that shows something else is not zoomed, and neither is one of another depth. */
export function changedView(view: View, change: Partial<View>): View {
  const { large, beside } = view.zooms;
  const isOther = change.depth !== undefined && change.depth !== view.depth;
  const zooms = {
    large: isOther || (change.large !== undefined && change.large !== view.large) ? null : large,
    beside: isOther || (change.beside !== undefined && change.beside !== view.beside) ? null : beside,
  };
  const isZoomed = zooms.large !== large || zooms.beside !== beside;
  return { ...view, ...(isZoomed ? { zooms } : {}), ...change };
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
  put('rungs', view.ticked.length === 0 ? null : view.ticked.join(' '), null);
  put('n', view.n, 0);
  put('method', view.method, 0);
  put('component', view.component, 0);
  put('components', view.together ? 'all' : null, null);
  put('drawn', view.drawn, null);
  put('stability', view.stability, FIRST_VIEW.stability);
  put('zoom', zoomText(view.zooms.large), null);
  put('zoom2', zoomText(view.zooms.beside), null);
  put('statement', view.folded ? 'folded' : null, null);
  put('view', view.inClass ? 'class' : null, null);
  put('panels', view.panels && view.panels.join(' '), null);
  return address;
}
