/** Less is not told from level [rad]. */
const LEVEL_RAD = (0.05 * Math.PI) / 180;
export const isLevel = (angle: number): boolean => Math.abs(angle) < LEVEL_RAD;
