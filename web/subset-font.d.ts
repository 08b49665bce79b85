/** What of the package is used here; it comes without types. */
declare module 'subset-font' {
  interface Options {
    readonly targetFormat: 'woff2';
    /** Tags of the layout features that stay. */
    readonly keepFeatures: readonly string[];
  }
  /** A font that holds the glyphs of a text alone. */
  export default function subsetFont(font: Buffer, text: string, options: Options): Promise<Buffer>;
}
