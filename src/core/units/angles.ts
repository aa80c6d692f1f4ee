/** Degrees as radians. */
export const radians = (angle_deg: number): number => (angle_deg * Math.PI) / 180;
/** Radians as degrees. */
export const degrees = (angle_rad: number): number => (angle_rad * 180) / Math.PI;
