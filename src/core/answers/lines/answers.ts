import type { FlowInputs } from '../../model/compileNetwork';
import { jointsOf, linesList, type Joint, type LinesList } from './joints';
import { profilesOf, type RunProfile, type Solved } from './profile';
import { endsApart, routesOf, type EndsApart, type RouteResult } from './routing';
import { breakSpills, jointSpills, type BreakSpill, type JointSpill } from './spills';
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
};

/** @param solutions of the consumers that have one, in their order */
export function lineAnswers(inputs: FlowInputs, solutions: readonly Solved[]): LineAnswers {
  const joints = jointsOf(inputs.system);
  return {
    joints,
    list: linesList(inputs.system, joints),
    profiles: profilesOf(inputs, solutions),
    jointSpills: jointSpills(inputs),
    breakSpills: breakSpills(inputs),
    circuits: circuitsOf(inputs),
    routes: routesOf(inputs.system),
    apart: endsApart(inputs),
  };
}
