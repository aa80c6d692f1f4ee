export const radians = (degrees: number): number => (degrees * Math.PI) / 180;
export const degrees = (angle_rad: number): number => (angle_rad * 180) / Math.PI;
