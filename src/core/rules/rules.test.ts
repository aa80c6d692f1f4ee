import { describe, expect, it } from 'vitest';
import { chosen, meshText, withoutEntry, type SystemDocument } from '../plan';
import { answerWork, evaluateSystem, type Evaluation } from '../answers';
import { boxMesh } from '../geometry';
import { success, unwrap } from '../outcome';
import { messageText } from '../units';
import { NEEDS, type Need } from './rule';
import { allSteps, type Steps } from '../steps';
import { findingKeys, findingsOf, judge, judgedBy, RULES, type Judgement } from '.';
import {
  BAFFLE,
  BODY,
  BODY_AT_HOME,
  COOLANT,
  FILLING,
  ofJob,
  withPart,
  RAISED_BY,
  SOUND,
  T,
  AFLOAT,
  OBSTACLE,
  applied,
  inBay,
  type Changes,
  heldDown,
  ON_AXLES,
  ON_TRAILER,
} from '../../../tests/raisedSystems';

const idsOf = (system: SystemDocument): string[] =>
  findingsOf(system, unwrap(evaluateSystem(system))).map((finding) => finding.id);

const WORK = answerWork({ judge, findingKeys });

/** What is said by the one answer that a rule reads, as the interface has it. */
function judgedAt(system: SystemDocument, id: string): Judgement | undefined {
  const { reads } = RULES.find((rule) => rule.id === id)!;
  return judgedBy(reads, system, allSteps((WORK[reads] as (of: SystemDocument) => Steps<unknown>)(system)));
}

/** What is said of what raises a rule, worked out once. */
function raisedBy(id: string): Judgement {
  const known = raisedFindings.get(id);
  if (known) return known;
  const cause = RAISED_BY[id];
  if (!cause) throw new Error(`no case raises ${id}`);
  const judgement = judgedAt(typeof cause === 'function' ? cause(SOUND) : applied(SOUND, cause), id)!;
  raisedFindings.set(id, judgement);
  return judgement;
}
const raisedFindings = new Map<string, Judgement>();

describe('every rule', () => {
  it('is silent on a sound system', () => {
    expect(idsOf(SOUND)).toEqual([]);
  });

  it('is silent on the same tank with a well-cut baffle and a sump', () => {
    expect(
      idsOf(
        applied(SOUND, [
          [`${T}plates`, [BAFFLE]],
          [`${T}parts`, [BODY]],
          [`${T}ports[3].x_m`, chosen(0.02)],
          [`${T}senders[0].swing`, 'port'],
          [`${T}ports[3].y_m`, chosen(0.06)],
        ]),
      ).filter((id) => id.startsWith('inside.')),
    ).toEqual([]);
  });

  it.each(RULES.map((rule) => rule.id))('%s is raised by what it is for', (id) => {
    expect(raisedBy(id).findings.map((finding) => finding.id)).toContain(id);
  });

  it('has an id of its own, a why, a mend and a source', () => {
    expect(new Set(RULES.map((rule) => rule.id)).size).toBe(RULES.length);
    for (const rule of RULES) {
      for (const text of [rule.title, rule.why, rule.mend, rule.source])
        expect(text.length, rule.id).toBeGreaterThan(3);
    }
  });
});

/**
 * The structure of one document with its numbers part of the way from another's: none of it as it was, all of it as it
 * is.
 */
function between(from: unknown, to: unknown, share: number): unknown {
  if (typeof from === 'number' && typeof to === 'number')
    return Number.isInteger(from) && Number.isInteger(to) && share < 1 && Math.abs(to - from) < 1
      ? from
      : from + (to - from) * share;
  if (Array.isArray(to)) return to.map((item, i) => between(Array.isArray(from) ? from[i] : undefined, item, share));
  if (typeof to === 'object' && to !== null)
    return Object.fromEntries(
      Object.entries(to).map(([key, value]) => [
        key,
        between((from as Record<string, unknown> | undefined)?.[key], value, share),
      ]),
    );
  return to;
}

/** Halvings of the way from clear to raised. */
const HALVINGS = 7;

describe('three results', () => {
  const isRaised = (system: SystemDocument, id: string): boolean =>
    judgedAt(system, id)?.findings.some((finding) => finding.id === id) ?? false;
  const byNumbers = RULES.map(({ id }) => id).filter((id) => Array.isArray(RAISED_BY[id]));

  it.each(byNumbers)('%s: raised on one side of its threshold, clear just on the other', (id) => {
    const raised = applied(SOUND, RAISED_BY[id] as Changes);
    const at = (share: number): SystemDocument => between(SOUND, raised, share) as SystemDocument;
    // A choice alone raises it: then the other choice is the other side.
    if (isRaised(at(0), id)) return expect(isRaised(SOUND, id)).toBe(false);
    let [clear, over] = [0, 1];
    for (let i = 0; i < HALVINGS; i++) {
      const middle = (clear + over) / 2;
      if (isRaised(at(middle), id)) over = middle;
      else clear = middle;
    }
    expect(isRaised(at(over), id)).toBe(true);
    const below = judgedAt(at(clear), id);
    // Just under it the rule speaks, and says that all is well; or the shape between makes no sense, and nobody says
    // so.
    if (below) expect(below.clear.includes(id) || below.notJudged.some((rule) => rule.id === id)).toBe(true);
    return undefined;
  });

  /** Evaluations that lack what rules need, by need. */
  const without: Readonly<Record<Need, () => { system: SystemDocument; evaluation: Evaluation }>> = {
    fit: () => evaluated(SOUND, 'with-fit'),
    'fit-tried': () => evaluated(inBay(SOUND, {}), 'without-fit'),
    reach: () => evaluated(SOUND, 'without-fit'),
    sheets: () => evaluated(SOUND, 'without-fit'),
    'mounts-pressed': () => evaluated(SOUND, 'without-fit'),
    'mounts-there': () => evaluated(SOUND, 'with-fit'),
    'mounts-said': () =>
      evaluated(
        heldDown(SOUND, (mounts) => mounts.map(({ made: _, ...mount }) => mount as never)),
        'with-fit',
      ),
    'mounts-solved': () =>
      evaluated(
        heldDown(SOUND, (mounts) => mounts),
        'without-fit',
      ),
    'mount-parts': () =>
      evaluated(
        heldDown(SOUND, (mounts) =>
          mounts.map((mount) =>
            mount.kind === 'strap' && mount.made
              ? { ...mount, made: { ...mount.made, bolts: { ...mount.made.bolts, held: 'rivet-nut', size: 'M16' } } }
              : mount,
          ),
        ),
        'with-fit',
      ),
    'axles-said': () => evaluated({ ...SOUND, vehicle: { ...SOUND.vehicle, kind: 'road' } }, 'with-fit'),
    'axle-ratings': () =>
      evaluated(
        { ...SOUND, stance: { ...ON_AXLES, axles: ON_AXLES.axles!.map(({ rating_kg: _, ...axle }) => axle) } },
        'with-fit',
      ),
    'whole-rating': () => evaluated({ ...SOUND, stance: { ...ON_AXLES, rating_kg: undefined } }, 'with-fit'),
    'hitch-rating': () =>
      evaluated(
        { ...SOUND, vehicle: { ...SOUND.vehicle, kind: 'trailer' }, stance: { ...ON_TRAILER, hitch: undefined } },
        'with-fit',
      ),
    'hull-said': () => evaluated({ ...SOUND, vehicle: { ...SOUND.vehicle, kind: 'boat' } }, 'with-fit'),
    'stands-solved': () => evaluated({ ...SOUND, stance: ON_AXLES }, 'without-fit'),
    // Stops alone: nothing is under it.
    'mount-swings': () =>
      evaluated(
        heldDown(SOUND, (mounts) => mounts.filter(({ kind }) => kind === 'stop')),
        'with-fit',
      ),
    details: () => ({ system: SOUND, evaluation: unwrap(evaluateSystem(SOUND, 'numbers')) }),
    lines: () => ({ system: SOUND, evaluation: unwrap(evaluateSystem(SOUND, 'numbers')) }),
    circuits: () => ({ system: SOUND, evaluation: unwrap(evaluateSystem(SOUND, 'numbers')) }),
    flows: () => evaluated(withoutEntry(SOUND, ['lines'], 1), 'without-fit'),
    gauges: () => evaluated(applied(SOUND, [[`${T}senders[0].armLength_m`, chosen(1.5)]]), 'without-fit'),
    range: () =>
      evaluated(
        applied(SOUND, [
          [`${T}pickups`, []],
          ['lines', []],
        ]),
        'without-fit',
      ),
    duties: () => {
      const { system, evaluation } = evaluated(SOUND, 'without-fit');
      return {
        system,
        evaluation: {
          ...evaluation,
          flows: evaluation.flows.map((flow) =>
            flow.ok
              ? success({
                  ...flow.value,
                  duties: flow.value.duties.map((duty) => ({ ...duty, pressure_Pa: undefined })),
                })
              : flow,
          ),
        },
      };
    },
    'last-of-tank': () => {
      const { system, evaluation } = evaluated(SOUND, 'without-fit');
      const { lines } = evaluation;
      return {
        system,
        evaluation: {
          ...evaluation,
          lines: {
            ...lines!,
            circuits: {
              ...lines!.circuits,
              lowest: [{ consumer: system.consumers[0]!.id, name: 'Engine', head_m: 1, delivered_m3PerS: undefined }],
            },
          },
        },
      };
    },
    'vent-ends': () => {
      const vents = SOUND.tanks[0]!.ports.findIndex(({ role }) => role === 'vent');
      const hung = applied(SOUND, [
        ['vehicle.kind', 'boat'],
        ['stance', AFLOAT],
        [`${T}ports[${vents}].length_m`, chosen(1)],
      ]);
      return evaluated(hung, 'without-fit');
    },
    'expelled-axles': () => evaluated(applied(ofJob('expelled'), [['vehicle.kind', 'road']]), 'without-fit'),
    'transfers-followed': () => {
      const down = RAISED_BY['line.transfer-overfills'] as (of: SystemDocument) => SystemDocument;
      const { system, evaluation } = evaluated(down(SOUND), 'without-fit');
      const { lines } = evaluation;
      const transfers = lines!.circuits.transfers.map((each) => ({
        ...each,
        ends: 'failed' as const,
        leftOn: { ...each.leftOn, ends: 'failed' as const },
      }));
      expect(transfers.length).toBeGreaterThan(0);
      return {
        system,
        evaluation: { ...evaluation, lines: { ...lines!, circuits: { ...lines!.circuits, transfers } } },
      };
    },
    expelled: () => evaluated({ ...COOLANT, lines: [] }, 'without-fit'),
    'open-ends': () => evaluated(withPart(ofJob('expelled'), 'outlet', { place: undefined }), 'without-fit'),
    screens: () => evaluated(withPart(ofJob('expelled'), 'outlet', { screened: undefined }), 'without-fit'),
    filled: () =>
      evaluated({ ...FILLING, lines: FILLING.lines.filter(({ purpose }) => purpose !== 'fill') }, 'without-fit'),
    spouts: () =>
      evaluated(
        { ...FILLING, consumers: FILLING.consumers.map((nozzle) => ({ ...nozzle, nozzle: undefined })) },
        'without-fit',
      ),
    'backs-up': () => evaluated(FILLING, 'without-fit'),
    seals: () => evaluated(SOUND, 'without-fit'),
  };
  const evaluated = (system: SystemDocument, fit: 'with-fit' | 'without-fit') => ({
    system,
    evaluation: unwrap(evaluateSystem(system, 'full', fit)),
  });

  it.each(NEEDS.map((need) => [need]))('without %s no rule that needs it says that all is well', (need) => {
    const { system, evaluation } = without[need]();
    const { findings, notJudged, clear } = judge(system, evaluation);
    const needing = RULES.filter(({ needs }) => needs?.includes(need)).map(({ id }) => id);
    expect(needing.length).toBeGreaterThan(0);
    for (const id of needing) {
      expect(clear).not.toContain(id);
      expect(findings.some((finding) => finding.id === id) || notJudged.some((rule) => rule.id === id), id).toBe(true);
    }
    for (const { lacks } of notJudged) expect(lacks.length).toBeGreaterThan(5);
  });

  it('every rule has exactly one of three results, on the sound system and on each that raises one', () => {
    for (const system of [SOUND, applied(SOUND, RAISED_BY['gauge.cannot-swing'] as Changes)]) {
      const { findings, notJudged, clear } = judge(system, unwrap(evaluateSystem(system)));
      const results = [...new Set(findings.map(({ id }) => id)), ...notJudged.map(({ id }) => id), ...clear];
      expect([...results].sort()).toEqual(RULES.map(({ id }) => id).sort());
    }
  });

  it('a rule that looks at an answer names it as a need', () => {
    // A rule whose test is given an evaluation without its answer must not come out clear: tried with nothing but
    // numbers, unless it needs none.
    const { clear } = judge(SOUND, unwrap(evaluateSystem(SOUND, 'numbers')));
    for (const id of clear) {
      const cause = RAISED_BY[id]!;
      const system = typeof cause === 'function' ? cause(SOUND) : applied(SOUND, cause);
      const evaluation = evaluateSystem(system, 'numbers');
      if (evaluation.ok) expect(judge(system, evaluation.value).clear, id).not.toContain(id);
    }
  });
});

describe('rules and their limits', () => {
  const found = (system: SystemDocument, id: string) =>
    findingsOf(system, unwrap(evaluateSystem(system))).filter((finding) => finding.id === id);

  it('what changes nothing is named with its path, whichever list it stands in', () => {
    const idle = applied(SOUND, [
      [`${T}parts`, [{ ...BODY, z_m: chosen(0.05) }]],
      [`${T}slices`, [{ id: 'band', name: 'Band', axis: 'x', at_m: chosen(2), width_m: chosen(0.1) }]],
      [`${T}plates`, [{ ...BAFFLE, at_m: chosen(3) }]],
    ]);
    expect(found(idle, 'inside.idle-part').map(({ path }) => path?.join('.'))).toEqual([
      'tanks.0.parts.0',
      'tanks.0.slices.0',
      'tanks.0.plates.0',
    ]);
  });

  it('a small tank is filled more slowly: the same vent does for a litre that does not for fifteen', () => {
    const narrow = applied(SOUND, [[`${T}ports[1].bore_m`, chosen(0.004)]]);
    expect(found(narrow, 'vent.too-small-for-fill')).toHaveLength(1);
    const litre = applied(narrow, [
      [`${T}shape.length_m`, chosen(0.1)],
      [`${T}shape.width_m`, chosen(0.1)],
      [`${T}shape.height_m`, chosen(0.1)],
      ...[0, 1, 2, 3].flatMap(
        (p) =>
          [
            [`${T}ports[${p}].x_m`, chosen(0.05)],
            [`${T}ports[${p}].y_m`, chosen(0.05)],
          ] as const,
      ),
    ]);
    expect(found(litre, 'vent.too-small-for-fill')).toEqual([]);
  });

  it('an obstacle from a file is doubted where it dwarfs the tank, and not where it is of its kind', () => {
    const from = (size: number) =>
      inBay(SOUND, {
        obstacles: [
          {
            ...OBSTACLE,
            bodies: [
              { ...BODY_AT_HOME, shape: { kind: 'mesh', file: 'axle.stl', ...meshText(boxMesh(size, size, size)) } },
            ],
          },
        ],
      });
    expect(found(from(0.2), 'fit.unit-doubt')).toEqual([]);
    expect(found(from(0.2 * 25.4), 'fit.unit-doubt').map(({ path }) => path?.join('.'))).toEqual(['fit.obstacles.0']);
  });

  it('a vent that a float shuts loses nothing, and one that shuts by leaning only up to there', () => {
    const leaning = (shutOff: object | undefined) =>
      applied(SOUND, [
        ['envelope.starboardDown_deg', chosen(25)],
        [`${T}ports[1].shutOff`, shutOff],
      ]);
    const lost = (shutOff: object | undefined): number =>
      found(leaning(shutOff), 'vent.flooded').reduce((sum, { what }) => sum + what.values.lost!.value, 0);
    expect(lost(undefined)).toBeGreaterThan(0);
    expect(lost({ float: true })).toBe(0);
    expect(lost({ lean_deg: chosen(60) })).toBe(lost(undefined));
    expect(lost({ lean_deg: chosen(12) })).toBeLessThan(lost(undefined));
  });

  it('a vent that shuts itself at a slope asked for is told; the only one gravely, and not where it stays open', () => {
    const shut = (shutOff: object, most_deg: number, more: Parameters<typeof applied>[1] = []) =>
      found(
        applied(SOUND, [[`${T}ports[1].shutOff`, shutOff], ['envelope.starboardDown_deg', chosen(most_deg)], ...more]),
        'vent.shuts-itself',
      ).map(({ severity }) => severity);
    expect(shut({ lean_deg: chosen(20) }, 15)).toEqual([]);
    expect(shut({ lean_deg: chosen(20) }, 25)).toEqual(['warn']);
    const cap = { kind: 'drilled', hole_m: chosen(0.004) };
    expect(shut({ lean_deg: chosen(20) }, 25, [[`${T}ports[0].cap`, cap]])).toEqual(['note']);
    // Where an open vent would be flooded a float shuts it instead: one or the other is always told.
    expect(shut({ float: true }, 2)).toEqual([]);
    expect(shut({ float: true }, 25)).toEqual(['warn']);
  });

  it('vents and fills by limits of the builder’s own; a silencer counts; head room by the hottest that it gets', () => {
    const wide = applied(SOUND, [[`${T}ports[1].bore_m`, chosen(0.012)]]);
    expect(found(wide, 'vent.too-small-for-fill')).toEqual([]);
    expect(found(applied(wide, [['limits.over_Pa', chosen(20)]]), 'vent.too-small-for-fill')).toHaveLength(1);
    expect(found(applied(wide, [['limits.fill_m3PerS', chosen(0.01)]]), 'vent.too-small-for-fill')).toHaveLength(1);
    const screen = { flow_m3PerS: chosen(5e-4), loss_Pa: chosen(3000) };
    expect(found(applied(wide, [[`${T}ports[1].screen`, screen]]), 'vent.too-small-for-fill')).toHaveLength(1);
    expect(found(SOUND, 'tank.no-head-room')).toEqual([]);
    expect(found(applied(SOUND, [['limits.hot_K', chosen(363)]]), 'tank.no-head-room')).toHaveLength(1);
  });

  it('each tank weighs with its own fluid', () => {
    const two = applied(SOUND, [
      ['fluids', [...SOUND.fluids, { id: 'wet', fluid: 'water' }]],
      [
        'tanks',
        [
          SOUND.tanks[0]!,
          { ...SOUND.tanks[0]!, id: 'second', name: 'Second', fluid: 'wet', ports: [], pickups: [], senders: [] },
        ],
      ],
    ]);
    const [first, second] = unwrap(evaluateSystem(two)).tanks;
    const density = (tank: typeof first) => (tank!.fullMass_kg - tank!.dryMass_kg) / tank!.holds_m3;
    expect(density(first)).toBeGreaterThan(810);
    expect(density(first)).toBeLessThan(850);
    expect(density(second)).toBeGreaterThan(990);
  });

  it('a line is judged by the fluid of its own tank', () => {
    const second = JSON.parse(
      JSON.stringify(SOUND.tanks[0]!)
        .replace(/"id":"([a-z-]+)"/g, '"id":"b-$1"')
        .replace(/"port":"([a-z-]+)"/g, '"port":"b-$1"'),
    ) as SystemDocument['tanks'][number];
    const pipe = (id: string, item: string, to: string) => ({
      ...SOUND.lines[0]!,
      id,
      name: id,
      kind: 'pipe' as const,
      stock: 'pipe-40-3-8',
      purpose: 'transfer' as const,
      from: { item, end: 'out' as const, adapters: [] },
      to: { item: to, end: 'in' as const, adapters: [] },
    });
    const both: SystemDocument = {
      ...SOUND,
      fluids: [...SOUND.fluids, { id: 'urea', fluid: 'urea' }],
      tanks: [SOUND.tanks[0]!, { ...second, fluid: 'urea' }],
      components: [],
      lines: [pipe('fuel-pipe', 'pickup', 'spare'), pipe('urea-pipe', 'b-pickup', 'b-spare')],
    };
    expect(found(both, 'line.fuel-attacks').map(({ path }) => path?.join('.'))).toEqual(['lines.1.stock']);
  });

  it('what starves an injection pump is graver than what starves a heater', () => {
    const starving: Changes = [
      ['envelope.braking_mPerS2', chosen(9)],
      ['conditions.fills[0].fill_ratio', 0.2],
    ];
    expect(found(applied(SOUND, starving), 'inside.starves-in-manoeuvre')[0]!.severity).toBe('warn');
    expect(
      found(applied(SOUND, [...starving, ['consumers[0].kind', 'petrol-injection']]), 'inside.starves-in-manoeuvre')[0]!
        .severity,
    ).toBe('stop');
    expect(found(applied(SOUND, [...starving, ['lines', []]]), 'inside.starves-in-manoeuvre')).toEqual([]);
  });

  it('a bench tank may surge as it likes', () => {
    expect(
      found(
        applied(SOUND, [
          ['limits.surgeCompartment_m3', chosen(0.005)],
          ['vehicle.kind', 'bench'],
        ]),
        'inside.surge-compartment-too-large',
      ),
    ).toEqual([]);
  });
});

describe('findings', () => {
  it('stand gravest first', () => {
    const system = applied(SOUND, [
      ['conditions.fills[0].fill_ratio', 0.02],
      ['wishes.reserve_ratio', chosen(0.02)],
      [`${T}ports[0].bore_m`, chosen(0.015)],
    ]);
    const ranks = findingsOf(system, unwrap(evaluateSystem(system))).map((finding) =>
      ['stop', 'warn', 'note'].indexOf(finding.severity),
    );
    expect(ranks).toEqual([...ranks].sort((a, b) => a - b));
    expect(ranks[0]).toBe(0);
  });

  it('speak in the reader’s units and leave no brace open', () => {
    for (const id of Object.keys(RAISED_BY)) {
      for (const finding of raisedBy(id).findings)
        expect(messageText(finding.what, 'us'), id).not.toMatch(/[{}]|NaN|undefined/);
    }
  });

  it('a bottom outlet that was chosen as a school is a note, not a warning', () => {
    const cause = RAISED_BY['pickup.bottom-outlet'] as Changes;
    const severity = (system: SystemDocument) =>
      findingsOf(system, unwrap(evaluateSystem(system))).find((finding) => finding.id === 'pickup.bottom-outlet')!
        .severity;
    expect(severity(applied(SOUND, cause))).toBe('warn');
    expect(severity(applied(SOUND, [...cause, ['practice.outlet', 'bottom-outlet']]))).toBe('note');
  });
});
