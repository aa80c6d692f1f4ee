export { OUTWARD } from '../geometry';
