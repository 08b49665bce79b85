import { type Bytes, section, text, unsigned, vector } from './encode.ts';
import type { Kernel } from './kernel.ts';

/** The little of WebAssembly that is used here; every place where the core runs has it. */
declare const WebAssembly: {
  readonly Memory: new (size: { readonly initial: number }) => { readonly buffer: ArrayBuffer };
  readonly Module: new (bytes: Uint8Array) => object;
  readonly Instance: new (
    module: object,
    imports: Readonly<Record<string, Readonly<Record<string, unknown>>>>,
  ) => { readonly exports: Readonly<Record<string, unknown>> };
};

const PAGE = 65_536;

/** Kernels with the memory in which their arrays lie. */
export interface KernelModule {
  readonly buffer: ArrayBuffer;
  readonly kernels: readonly unknown[];
}

function moduleBytes(kernels: readonly Kernel[]): Uint8Array {
  const bytes: Bytes = [
    ...[0x00, 0x61, 0x73, 0x6d, 0x01, 0x00, 0x00, 0x00],
    ...section(1, vector(kernels.map(({ type }) => type))),
    ...section(2, vector([[...text('m'), ...text('m'), 0x02, 0x00, ...unsigned(1)]])),
    ...section(3, vector(kernels.map((_, k) => unsigned(k)))),
    ...section(7, vector(kernels.map((_, k) => [...text(`k${k}`), 0x00, ...unsigned(k)]))),
    ...section(10, vector(kernels.map(({ code }) => code))),
  ];
  return Uint8Array.from(bytes);
}

/** Builds the module of some kernels, with room for so many doubles. */
export function kernelModule(kernels: readonly Kernel[], doubles: number): KernelModule {
  const memory = new WebAssembly.Memory({ initial: Math.ceil((8 * doubles) / PAGE) + 1 });
  const module = new WebAssembly.Module(moduleBytes(kernels));
  const { exports } = new WebAssembly.Instance(module, { m: { m: memory } });
  return { buffer: memory.buffer, kernels: kernels.map((_, k) => exports[`k${k}`]) };
}
