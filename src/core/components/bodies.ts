import type { FittingKey } from '../reference/losses';

/** Bodies that a valve or selector can have. */
export const VALVE_BODIES: readonly FittingKey[] = ['ball-valve', 'gate-valve', 'globe-valve', 'needle-valve'];
