import { describe, expect, it } from 'vitest';
import { chosen, draftSystem, toPath, withoutEntry, withValue, type SystemDocument } from '../document';
import { evaluateSystem } from '../evaluate';
import { unwrap } from '../outcome';
import { messageText } from '../units';
import { findingsOf, RULES } from '.';

type Changes = readonly (readonly [string, unknown])[];
const applied = (system: SystemDocument, changes: Changes): SystemDocument => changes.reduce((at, [path, value]) => withValue(at, toPath(path), value), system);

/** A small tank on a nearly level bench that nothing is wrong with. */
const SOUND = applied(draftSystem({ name: 'Sound', vehicle: 'road', consumer: 'diesel-engine', power_W: 20e3, holds_m3: 0.015, length_m: 0.3, width_m: 0.25, height_m: 0.22 }), [
  ['wishes.holds_m3', chosen(0.015)],
  ['envelope', { noseUp_deg: chosen(2), noseDown_deg: chosen(2), portDown_deg: chosen(2), starboardDown_deg: chosen(2) }],
  ['tanks[0].pickups[0].heightOffFloor_m', chosen(0.02)],
  ['tanks[0].senders[0].armLength_m', chosen(0.125)], ['tanks[0].senders[0].floatDiameter_m', chosen(0.03)], ['tanks[0].senders[0].pivotDepth_m', chosen(0.11)],
  ['tanks[0].senders[0].lowStop_deg', chosen(-48)], ['tanks[0].senders[0].highStop_deg', chosen(48)],
  ['tanks[0].ports[3].x_m', chosen(0.1)], ['components[1].output_ratio', chosen(1)],
]);

const T = 'tanks[0].';
/** What raises each rule, starting from the sound system. */
const RAISED_BY: Readonly<Record<string, Changes | ((system: SystemDocument) => SystemDocument)>> = {
  'tank.filled-past-limit': [['conditions.fills[0].fill_ratio', 0.97]],
  'tank.no-head-room': [[`${T}fillLimit_ratio`, chosen(0.99)]],
  'tank.smaller-than-wished': [['wishes.holds_m3', chosen(0.05)]],
  'tank.thin-sheet': [[`${T}material.thickness_m`, chosen(0.001)], [`${T}shape.length_m`, chosen(0.9)]],
  'tank.cracks-at-bends': [[`${T}material.alloy`, 'al-6061']],
  'tank.heavy-lift': [[`${T}shape.length_m`, chosen(0.9)]],
  'tank.petrol-aboard': [['vehicle.kind', 'boat'], ['fluids[0].fluid', 'petrol']],
  'tank.hole-below-liquid': [['constraints.noHoleBelowLiquid', true], [`${T}ports[2]`, { ...SOUND.tanks[0]!.ports[2]!, face: 'aft', x_m: undefined, z_m: chosen(0.05) }]],
  'tank.part-outside': [[`${T}ports[1].x_m`, chosen(0.5)]],
  'pickup.too-high': [[`${T}pickups[0].heightOffFloor_m`, chosen(0.05)]],
  'pickup.in-the-dirt': [[`${T}pickups[0].heightOffFloor_m`, chosen(0.004)]],
  'pickup.loses-on-slope': [['envelope.noseDown_deg', chosen(25)]],
  'pickup.draws-air-now': [['conditions.fills[0].fill_ratio', 0.02]],
  'pickup.bottom-outlet': [[`${T}pickups[0].kind`, 'bottom-outlet'], [`${T}ports[2].face`, 'floor']],
  'line.cannot-deliver': [['lines[2].bore_m', chosen(0.0015)]],
  'line.no-flow': (system) => withoutEntry(system, ['lines'], 1),
  'line.vapour-lock': [['fluids[0].fluid', 'petrol'], ['conditions.fuelTemperature_K', 325], ['conditions.altitude_m', 2500]],
  'line.lift-too-high': [['components[1].selfPrimingLift_m', chosen(0)]],
  'line.fast-suction': [['lines[0].bore_m', chosen(0.002)]],
  'line.no-filter': (system) => applied(withoutEntry(system, ['lines'], 1), [['lines[0].to.item', 'pump']]),
  'line.low-voltage': [['conditions.pumpVoltage_V', 9]],
  'line.not-in-flow': [['lines[3]', undefined], ['lines', [...SOUND.lines, { ...SOUND.lines[0]!, id: 'return-line', name: 'Return line', from: { item: 'consumer', end: 'out' }, to: { item: 'vent', end: 'in' } }]]],
  'line.properties-stretched': [['conditions.fuelTemperature_K', 240]],
  'vent.too-small-for-draw': [[`${T}ports[1].bore_m`, chosen(0.0004)]],
  'vent.too-small-for-fill': [[`${T}ports[1].bore_m`, chosen(0.004)]],
  'vent.flooded': [['envelope.starboardDown_deg', chosen(25)]],
  'vent.missing': [[`${T}ports[1].role`, 'spare']],
  'vent.filler-narrow': [[`${T}ports[0].bore_m`, chosen(0.015)]],
  'gauge.float-hits-floor': [[`${T}senders[0].lowStop_deg`, chosen(-75)]],
  'gauge.float-hits-lid': [[`${T}senders[0].highStop_deg`, chosen(75)]],
  'gauge.cannot-swing': [[`${T}senders[0].armLength_m`, chosen(1.5)]],
  'gauge.lies': [[`${T}senders[0].pivotDepth_m`, chosen(0.06)]],
  'gauge.range-mismatch': [[`${T}senders[0].emptyResistance_ohm`, chosen(10)], [`${T}senders[0].fullResistance_ohm`, chosen(180)]],
  'range.shorter-than-wished': [['wishes.endurance_s', chosen(1e6)]],
  'range.no-reserve': [['wishes.reserve_ratio', chosen(0.02)]],
};

const idsOf = (system: SystemDocument): string[] => findingsOf(system, unwrap(evaluateSystem(system))).map((finding) => finding.id);

describe('every rule', () => {
  it('is silent on a sound system', () => {
    expect(idsOf(SOUND)).toEqual([]);
  });

  it.each(RULES.map((rule) => rule.id))('%s is raised by what it is for', (id) => {
    const cause = RAISED_BY[id];
    if (!cause) throw new Error(`no case raises ${id}`);
    const system = typeof cause === 'function' ? cause(SOUND) : applied(SOUND, cause);
    expect(idsOf(system)).toContain(id);
  });

  it('has an id of its own, a why, a mend and a source', () => {
    expect(new Set(RULES.map((rule) => rule.id)).size).toBe(RULES.length);
    for (const rule of RULES) {
      for (const text of [rule.title, rule.why, rule.mend, rule.source]) expect(text.length, rule.id).toBeGreaterThan(3);
    }
  });
});

describe('findings', () => {
  it('stand gravest first', () => {
    const system = applied(SOUND, [['conditions.fills[0].fill_ratio', 0.02], ['wishes.reserve_ratio', chosen(0.02)], [`${T}ports[0].bore_m`, chosen(0.015)]]);
    const ranks = findingsOf(system, unwrap(evaluateSystem(system))).map((finding) => ['stop', 'warn', 'note'].indexOf(finding.severity));
    expect(ranks).toEqual([...ranks].sort((a, b) => a - b));
    expect(ranks[0]).toBe(0);
  });

  it('speak in the reader’s units and leave no brace open', () => {
    for (const cause of Object.values(RAISED_BY)) {
      const system = typeof cause === 'function' ? cause(SOUND) : applied(SOUND, cause);
      for (const finding of findingsOf(system, unwrap(evaluateSystem(system)))) {
        expect(messageText(finding.what, 'us')).not.toMatch(/[{}]|NaN|undefined/);
      }
    }
  });

  it('a bottom outlet that was chosen as a school is a note, not a warning', () => {
    const cause = RAISED_BY['pickup.bottom-outlet'] as Changes;
    const severity = (system: SystemDocument) => findingsOf(system, unwrap(evaluateSystem(system))).find((finding) => finding.id === 'pickup.bottom-outlet')!.severity;
    expect(severity(applied(SOUND, cause))).toBe('warn');
    expect(severity(applied(SOUND, [...cause, ['practice.outlet', 'bottom-outlet']]))).toBe('note');
  });
});
