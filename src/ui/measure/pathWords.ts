import { valueAt, type Path, type SystemDocument } from '@/core/document';
import type { Role } from '@/core/units';
import type { Stage } from '@/core/rules';

type Words = { readonly label: string; readonly role: Role };

/** What the last key of a path means to a builder. */
const KEY_WORDS: Readonly<Record<string, Words>> = {
  length_m: { label: 'length', role: 'run' },
  diameter_m: { label: 'diameter', role: 'tape' },
  shell_m: { label: 'straight shell', role: 'tape' },
  profileSpread_m: { label: 'corners of its profile', role: 'tape' },
  nearDiameter_m: { label: 'near diameter', role: 'tape' },
  farDiameter_m: { label: 'far diameter', role: 'tape' },
  width_m: { label: 'width', role: 'tape' },
  height_m: { label: 'height', role: 'tape' },
  bore_m: { label: 'bore', role: 'bore' },
  rise_m: { label: 'rise', role: 'run' },
  forward_m: { label: 'run forward', role: 'run' },
  toPort_m: { label: 'run to port', role: 'run' },
  x_m: { label: 'distance from aft', role: 'tape' },
  y_m: { label: 'distance from starboard', role: 'tape' },
  z_m: { label: 'height', role: 'tape' },
  thickness_m: { label: 'sheet thickness', role: 'thickness' },
  fillLimit_ratio: { label: 'fill limit', role: 'share' },
  heightOffFloor_m: { label: 'height off the floor', role: 'tape' },
  submergence_m: { label: 'liquid needed over the inlet', role: 'tape' },
  pivotDepth_m: { label: 'pivot below the lid', role: 'tape' },
  armLength_m: { label: 'arm length', role: 'tape' },
  floatDiameter_m: { label: 'float diameter', role: 'tape' },
  lowStop_deg: { label: 'low stop', role: 'slope' },
  highStop_deg: { label: 'high stop', role: 'slope' },
  empty_ohm: { label: 'ohms at empty', role: 'resistance' },
  half_ohm: { label: 'ohms at half', role: 'resistance' },
  full_ohm: { label: 'ohms at full', role: 'resistance' },
  empty_V: { label: 'volts at empty', role: 'voltage' },
  full_V: { label: 'volts at full', role: 'voltage' },
  tolerance_ratio: { label: 'needle tolerance', role: 'share' },
  lamp_ratio: { label: 'needle where the lamp lights', role: 'share' },
  immersion_ratio: { label: 'float under the surface', role: 'share' },
  angle_deg: { label: 'bend of the arm', role: 'slope' },
  lowDead_m: { label: 'dead at its foot', role: 'tape' },
  highDead_m: { label: 'dead at its head', role: 'tape' },
  tubeDiameter_m: { label: 'width of the tube', role: 'tape' },
  step_m: { label: 'between its contacts', role: 'tape' },
  lower_m: { label: 'lower boss', role: 'tape' },
  upper_m: { label: 'upper boss', role: 'tape' },
  markEvery_m3: { label: 'volume from mark to mark', role: 'tankVolume' },
  hole_m: { label: 'hole to be cut', role: 'tape' },
  circle_m: { label: 'circle of its screws', role: 'tape' },
  clock_deg: { label: 'first screw from upward', role: 'slope' },
  seat_m: { label: 'seat over the lid', role: 'tape' },
  opens_Pa: { label: 'pressure at which it opens', role: 'pressure' },
  set_Pa: { label: 'pressure that it holds', role: 'pressure' },
  relief_Pa: { label: 'pressure at which it lets go', role: 'pressure' },
  closesAt_ratio: { label: 'filling at which it shuts', role: 'share' },
  ratedDensity_kgPerM3: { label: 'density of the rating', role: 'density' },
  spill_m3: { label: 'spilled when it is parted', role: 'smallVolume' },
  discharge_ratio: { label: 'discharge coefficient', role: 'share' },
  freeCurrent_A: { label: 'current when it moves freely', role: 'current' },
  shutOffCurrent_A: { label: 'current against a shut line', role: 'current' },
  battery_Ah: { label: 'battery', role: 'charge' },
  bend_m: { label: 'tightest bend', role: 'tape' },
  held_m: { label: 'furthest between its holders', role: 'run' },
  drop_m: { label: 'tube that leads it down', role: 'tape' },
  moves_m3: { label: 'to be moved at one go', role: 'tankVolume' },
  power_W: { label: 'power', role: 'power' },
  specific_kgPerJ: { label: 'fuel for the work done', role: 'consumption' },
  injectorFlow_m3PerS: { label: 'flow of an injector', role: 'burn' },
  injectorDuty_ratio: { label: 'most of the time that injectors may be open', role: 'share' },
  ratedFlow_m3PerS: { label: 'rated flow', role: 'burn' },
  ratedDrop_Pa: { label: 'pressure drop at rated flow', role: 'pressure' },
  ratedViscosity_PaS: { label: 'viscosity of the rating', role: 'count' },
  dirt_ratio: { label: 'dirty over clean', role: 'count' },
  ratedVoltage_V: { label: 'rated voltage', role: 'voltage' },
  selfPrimingLift_m: { label: 'self-priming lift', role: 'run' },
  output_ratio: { label: 'real output, as a share of its curve', role: 'share' },
  neededFlow_m3PerS: { label: 'needed flow', role: 'burn' },
  neededPressure_Pa: { label: 'needed pressure', role: 'pressure' },
  burnIdle_m3PerS: { label: 'burn at idle', role: 'burn' },
  burnFull_m3PerS: { label: 'burn at full load', role: 'burn' },
  speed_mPerS: { label: 'speed', role: 'roadSpeed' },
  pitch_deg: { label: 'mounted pitch', role: 'slope' },
  roll_deg: { label: 'mounted roll', role: 'slope' },
  yaw_deg: { label: 'mounted yaw', role: 'slope' },
  density15_kgPerM3: { label: 'density at 15 °C', role: 'density' },
  holds_m3: { label: 'wanted volume', role: 'tankVolume' },
  endurance_s: { label: 'wanted running time', role: 'duration' },
  reserve_ratio: { label: 'reserve', role: 'share' },
  noseUp_deg: { label: 'nose up', role: 'slope' },
  noseDown_deg: { label: 'nose down', role: 'slope' },
  at_m: { label: 'place', role: 'tape' },
  from_m: { label: 'begins at', role: 'tape' },
  to_m: { label: 'ends at', role: 'tape' },
  cornerCut_m: { label: 'lower corners cut', role: 'tape' },
  topGap_m: { label: 'air gap above', role: 'tape' },
  leak_ratio: { label: 'leak of the shut flap', role: 'share' },
  foam_ratio: { label: 'taken by foam', role: 'share' },
  surgeBay_m3: { label: 'most that may surge in one bay', role: 'tankVolume' },
  braking_mPerS2: { label: 'hardest braking', role: 'acceleration' },
  driving_mPerS2: { label: 'hardest pulling away', role: 'acceleration' },
  cornering_mPerS2: { label: 'hardest cornering', role: 'acceleration' },
  clearance_m: { label: 'clearance asked for', role: 'tape' },
  keep_m: { label: 'distance to keep', role: 'tape' },
  across_m: { label: 'place across', role: 'tape' },
  up_m: { label: 'height', role: 'tape' },
  along_m: { label: 'place along the straight edge', role: 'tape' },
  behind_m: { label: 'behind the straight edge', role: 'tape' },
  from_deg: { label: 'swings from', role: 'slope' },
  to_deg: { label: 'swings to', role: 'slope' },
  reach_m: { label: 'hose end reaches', role: 'tape' },
  acrossFlats_m: { label: 'across its flats', role: 'tape' },
  measured: { label: 'as built', role: 'tape' },
  portDown_deg: { label: 'port side down', role: 'slope' },
  starboardDown_deg: { label: 'starboard side down', role: 'slope' },
};

/** A path in a builder's words, the role of its value, and the stage where it stands. */
export function pathWords(
  system: SystemDocument,
  path: Path,
): Words & { readonly owner: string; readonly stage: Stage } {
  const key = String(path.at(-1));
  const words = KEY_WORDS[key] ?? { label: key, role: 'count' };
  const named = [...path.keys()]
    .map((end) => valueAt(system, path.slice(0, end + 1)))
    .findLast((value) => typeof value === 'object' && value !== null && 'name' in value) as
    { name: string } | undefined;
  const inTank = path[0] === 'tanks' && path.includes('shape');
  const inPlate = path.includes('plates');
  return {
    ...words,
    ...(inPlate && key === 'thickness_m' ? { label: 'thickness' } : {}),
    ...(inPlate && path.includes('holes')
      ? { label: key === 'diameter_m' ? 'hole diameter' : 'height of its holes' }
      : {}),
    ...(inPlate && path.includes('flap') && key !== 'leak_ratio'
      ? { label: key === 'width_m' ? 'flap width' : 'flap height' }
      : {}),
    ...(path.includes('slices') && key === 'width_m' ? { label: 'width taken out' } : {}),
    ...((inTank || path[0] === 'fit') && key === 'length_m' ? { role: 'tape' as const } : {}),
    ...(path[2] === 'shape'
      ? { label: `${valueAt(system, [...path.slice(0, 2), 'dimensions']) as string} ${words.label}` }
      : {}),
    ...(path.includes('ports') && key === 'length_m' ? { label: 'length behind it' } : {}),
    ...(path.includes('bolts') && key === 'diameter_m' ? { label: 'holes of its screws' } : {}),
    ...(path.includes('senders') && key === 'length_m' ? { label: 'length under the lid', role: 'tape' as const } : {}),
    ...(path.includes('bend') && key === 'at_m' ? { label: 'bend from the pivot' } : {}),
    ...(path.includes('senders') && key === 'tolerance_ratio' && !path.includes('gauge')
      ? { label: 'sender tolerance' }
      : {}),
    ...(path.includes('sightTubes') && key === 'along_m' ? { label: 'place along its side' } : {}),
    ...(path[0] === 'vehicle' && system.vehicle.kind === 'boat' ? { role: 'seaSpeed' as const } : {}),
    owner: named?.name ?? 'System',
    stage: stageOf(path, system),
  };
}

function stageOf(path: Path, system: SystemDocument): Stage {
  if (path[0] === 'fit' || path[0] === 'constraints' || path.includes('built')) return 'fit';
  if (path[0] === 'lines' || path[0] === 'components') return 'lines';
  if (path[0] === 'consumers') return String(path[2]).startsWith('burn') ? 'range' : 'lines';
  if (path.includes('senders') || path.includes('sightTubes') || path.includes('dipsticks')) return 'gauge';
  if (path.includes('pickups')) return 'ports';
  if (path.includes('ports')) {
    const port = valueAt(system, path.slice(0, 4)) as { role?: string } | undefined;
    return port?.role === 'vent' || port?.role === 'filler' ? 'vents' : 'ports';
  }
  return path[0] === 'tanks' || path[0] === 'fluids' || path[0] === 'envelope' || path[0] === 'limits'
    ? 'tank'
    : 'range';
}
