/**
 * The model: what a plan comes to in bodies, openings and circuits, as
 * solvers take it. Nothing in it changes in use; what does is in `state/`.
 *
 * Read `model.ts` first: `compile` makes a model of a plan. `compileTank.ts`
 * makes a tank's space, bays, ports, pickups and senders,`compileBody.ts` its body, `compileFit.ts` the scene that it
 * stands in, `compileNetwork.ts` the network that its lines make.
 */
export { shapeMesh, shapeSpan, type ShapeCode } from './compileShape';
export { compile, tankModel, type Model, type ModelCode } from './model';
export { tankBody, type TankBody } from './compileBody';
export { asBuilt, standsOn } from './compileFit';
export { holeOf_m } from './portSeat';
export { bossPort, type BossEnd } from './sightBosses';
export type { FlowState } from './networkParts';
