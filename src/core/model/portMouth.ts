import type { Vec3 } from '../geometry';
import type { PortModel } from './compileTank';

/** Where a line that leads into a tank lets out there: at its port, or below it where a pipe hangs down. */
export const mouthPoint = ({ document, point_m }: PortModel): Vec3 => [
  point_m[0],
  point_m[1],
  point_m[2] - (document.drop_m?.value ?? 0),
];
