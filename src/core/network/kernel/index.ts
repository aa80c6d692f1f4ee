import { KERNEL } from './bytes';

/** The arrays of reals and of whole numbers that the kernel keeps for a network. */
export type RealArray = 'terms' | 'rough' | 'flow' | 'loss' | 'slope' | 'outflow' | 'given' | 'potential';
export type WholeArray = 'from' | 'to' | 'entryOf' | 'starts' | 'rows' | 'targets';

/** What `newton.kernel.ts` and `friction.kernel.ts` give out. */
export type Kernel = Readonly<
  Record<
    RealArray | WholeArray | 'energy' | 'worst' | 'energyMost' | 'mass' | 'worstPlace' | 'massMost' | 'frictionSlope',
    WebAssembly.Global
  >
> & {
  readonly memory: WebAssembly.Memory;
  readonly layOut: (links: number, places: number, free: number, entries: number, targets: number) => number;
  readonly settle: (near: boolean) => number;
  readonly colebrookRoot: (reynolds: number, relativeRoughness: number) => number;
  readonly friction: (reynolds: number, relativeRoughness: number, bridgeEnd: number, bridgeSlope: number) => number;
};

let loaded: Kernel | undefined;
/** Counts the kernels: what was laid out in one is not there in another. */
let turn = 0;
/** How often the kernel has been taken hold of: what was laid out for an earlier turn is gone. */
export const kernelTurn = (): number => turn;
let law: (link: number, flow_m3PerS: number) => void = () => undefined;

/** Whom the kernel asks for loss and slope of a link that is no line. */
export const answerForLaws = (answer: typeof law): void => {
  law = answer;
};

/** Answers with loss and slope of a link that is no line, for a kernel of another make. */
export const lawFor = (link: number, flow_m3PerS: number): void => law(link, flow_m3PerS);

/** Another kernel in its place, for tests and benchmarks; the compiled one again where none is given. */
export function runKernel(other: Kernel | undefined): void {
  loaded = other;
  turn++;
}

/** The compiled kernel; compiled for this machine when it is first asked for, within a millisecond or so. */
export function kernel(): Kernel {
  loaded ??= new WebAssembly.Instance(
    new WebAssembly.Module(Uint8Array.from(atob(KERNEL), (each) => each.charCodeAt(0))),
    { door: { law: (link: number, flow: number) => law(link, flow) } },
  ).exports as unknown as Kernel;
  return loaded;
}
