import type { FlowInputs } from '../../model/networkParts';
import { jointsOf, linesList, type Joint, type LinesList } from './joints';
import { mixUpsOf, type MixUp } from './mixUps';
import { primingsOf, type Priming } from './priming';
import { profilesOf, type RunProfile, type Solved } from './profile';
import { endsApart, placedPaths, routesOf, type EndsApart, type PlacedPath, type RouteResult } from './routing';
import { breakSpills, jointSpills, type BreakSpill, type JointSpill } from './spills';
import { ventEndsOf, type VentEnd } from './ventEnds';
import { wrongFuelsOf, type WrongFuel } from './wrongFuel';
import { circuitsOf, type CircuitsResult } from './transfers';

/** All that is worked out of the lines with every full evaluation. */
export type LineAnswers = {
  readonly joints: readonly Joint[];
  readonly list: LinesList;
  readonly profiles: readonly RunProfile[];
  readonly jointSpills: readonly JointSpill[];
  readonly breakSpills: readonly BreakSpill[];
  readonly circuits: CircuitsResult;
  readonly routes: readonly RouteResult[];
  readonly apart: readonly EndsApart[];
  readonly primings: readonly Priming[];
  readonly mixUps: readonly MixUp[];
  readonly wrongFuels: readonly WrongFuel[];
  readonly ventEnds: readonly VentEnd[];
  /** Of lines whose two ends have places. */ readonly paths: readonly PlacedPath[];
};

/** @param solutions of the consumers that have one, in their order */
export function lineAnswers(inputs: FlowInputs, solutions: readonly Solved[]): LineAnswers {
  const joints = jointsOf(inputs.system);
  const paths = placedPaths(inputs);
  return {
    joints,
    list: linesList(inputs.system, joints),
    profiles: profilesOf(inputs, solutions),
    jointSpills: jointSpills(inputs),
    breakSpills: breakSpills(inputs),
    circuits: circuitsOf(inputs),
    routes: routesOf(inputs.system),
    apart: endsApart(inputs.system, paths),
    primings: primingsOf(inputs),
    mixUps: mixUpsOf(inputs.system, joints),
    wrongFuels: wrongFuelsOf(inputs.system),
    ventEnds: ventEndsOf(inputs),
    paths,
  };
}
