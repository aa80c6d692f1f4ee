import type { FluidKey } from '../../reference/fluids';
import { chosen } from '../../schema/known';
import { EMPTY_FIT, hardestFor, LINE_PRACTICE, SURGE_COMPARTMENT_M3 } from '../defaults';
import { CURRENT_VERSION, FORMAT, type SystemDocument } from '../schema';
import { DUTIES, SLOPES } from './needs';

/** What every plan begins with, before there is a tank in it: slopes, habits and conditions usual for its vehicle. */
export function emptySystem(name: string, vehicle: SystemDocument['vehicle']['kind'], fluid: FluidKey): SystemDocument {
  const [pitch, roll] = SLOPES[vehicle];
  return {
    format: FORMAT,
    version: CURRENT_VERSION,
    name,
    description: '',
    vehicle: { kind: vehicle },
    rulebook: vehicle === 'boat' ? (fluid === 'petrol' ? 'petrol-boat' : 'small-craft') : 'none',
    constraints: { nothingCut: false, noHoleBelowLiquid: false, partsOnHand: false, noHotWork: false },
    practice: {
      vent: 'vent-line',
      outlet: 'top-tube',
      fill: '95-percent',
      pickup: 'off-floor',
      strainer: 'outside',
      heaterPickup: 'higher',
      ports: 'new',
      sender: 'new',
      ...LINE_PRACTICE,
    },
    limits: { surgeCompartment_m3: chosen(SURGE_COMPARTMENT_M3) },
    wishes: { reserve_ratio: chosen(0.2) },
    envelope: {
      noseUp_deg: chosen(pitch),
      noseDown_deg: chosen(pitch),
      portDown_deg: chosen(roll),
      starboardDown_deg: chosen(roll),
      ...hardestFor(vehicle),
    },
    conditions: {
      pitch_deg: 0,
      roll_deg: 0,
      accelerationForward_mPerS2: 0,
      accelerationPort_mPerS2: 0,
      accelerationUp_mPerS2: 0,
      fuelTemperature_K: 293.15,
      altitude_m: 0,
      duty_ratio: DUTIES[vehicle],
      pumpVoltage_V: 13,
      fills: [],
    },
    fluids: [{ id: 'fuel', fluid }],
    tanks: [],
    components: [],
    lines: [],
    consumers: [],
    prices: [],
    records: [],
    mounts: [],
    fit: EMPTY_FIT,
  };
}
