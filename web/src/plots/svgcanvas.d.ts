declare module 'svgcanvas' {
  /** A context that records what is drawn as SVG. */
  interface Recorder {
    /** @param named whether named entities are replaced by their numbers */
    readonly getSerializedSvg: (named: boolean) => string;
  }
  /** A canvas that records. */
  export class Element {
    constructor(size: { readonly width: number; readonly height: number });
    getContext(kind: '2d'): Recorder;
  }
}
