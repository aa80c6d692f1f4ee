/**
 * What goes on in time: a state stepped on by its rates of change.
 *
 * `rosenbrock.ts` has the method; where something happens within a step is found by `within` and the step taken anew.
 */
export { Stepper, within, type Dynamics, type Step } from './rosenbrock';
export { factored, squareOf } from './dense';
