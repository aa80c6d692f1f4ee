import { describe, expect, it } from 'vitest';
import { chosen, draftSystem, type PortDocument, type SystemDocument } from '../../plan';
import { loadKernel } from '../../geometry';
import { unwrap } from '../../outcome';
import { reachOf, type ReachAnswer } from './reach';

await loadKernel();

/** A box of aluminium with one port on its lid, and a lid over it as far as asked. */
function lid(port: Partial<PortDocument>, over_m = 1): SystemDocument {
  const draft = draftSystem({ name: 'x', vehicle: 'road', consumer: 'diesel-engine', power_W: 30e3, holds_m3: 0.06 });
  const tank = {
    ...draft.tanks[0]!,
    dimensions: 'outside' as const,
    shape: { kind: 'box' as const, length_m: chosen(0.8), width_m: chosen(0.8), height_m: chosen(0.3) },
    pickups: [],
    senders: [],
    mounting: {
      ...draft.tanks[0]!.mounting,
      x_m: chosen(0),
      y_m: chosen(0),
      z_m: chosen(0),
      pitch_deg: chosen(0),
      roll_deg: chosen(0),
    },
    ports: [
      {
        id: 'p',
        name: 'p',
        role: 'spare' as const,
        face: 'lid' as const,
        x_m: chosen(0.4),
        y_m: chosen(0.4),
        bore_m: chosen(0.02),
        length_m: chosen(0),
        ...port,
      } as PortDocument,
    ],
  };
  const tray = {
    id: 'tray',
    name: 'Tray',
    role: 'obstacle' as const,
    x_m: chosen(-2),
    y_m: chosen(-2),
    z_m: chosen(0.3 + over_m),
    yaw_deg: chosen(0),
    pitch_deg: chosen(0),
    roll_deg: chosen(0),
    motions: [],
    removable: false,
    bodies: [
      {
        shape: { kind: 'box' as const, length_m: chosen(5), width_m: chosen(5), height_m: chosen(0.05) },
        x_m: chosen(0),
        y_m: chosen(0),
        z_m: chosen(0),
        yaw_deg: chosen(0),
        pitch_deg: chosen(0),
        roll_deg: chosen(0),
      },
    ],
  };
  return {
    ...draft,
    lines: [],
    components: [],
    consumers: [],
    tanks: [tank],
    fit: { ...draft.fit, obstacles: [tray] },
  };
}
const answers = (system: SystemDocument): readonly ReachAnswer[] =>
  unwrap(reachOf(system)).filter(({ id }) => id === 'p');
const jobs = (port: Partial<PortDocument>): string[] =>
  answers(lid(port))
    .map(({ job }) => job)
    .sort();

describe('what a port wants of hands and tools', () => {
  it.each([
    ['a bung', { part: 'bung-npt-1-4' }, ['tighten', 'weld']],
    ['a bulkhead fitting', { part: 'bulkhead-6' }, ['tighten']],
    ['a clean-out plate', { part: 'clean-out-125' }, ['screws']],
    ['a pump ring for a feed', { part: 'pump-ring', role: 'feed' }, ['screws']],
    ['a welded tube', { part: 'tube-8', role: 'vent' }, ['hand', 'weld']],
    ['a grommet', { part: 'grommet-18', role: 'vent' }, ['hand']],
  ] as const)('%s: %s', (_, port, wanted) => expect(jobs(port as Partial<PortDocument>)).toEqual(wanted));

  it('a screwed plate under a low tray asks for screwdrivers, never for a spanner that does not exist', () => {
    const [plate] = answers(lid({ part: 'clean-out-150' }, 0.2));
    expect(plate).toMatchObject({ job: 'screws', when: 'fitted' });
    expect(plate!.acrossFlats_m).toBeUndefined();
  });

  it('a hand gets to a bolt’s head with 140 mm over it, laid flat and fingers bent; with 70 mm it does not', () => {
    const bolt = (over_m: number): ReachAnswer => {
      const system = lid({ part: 'grommet-18', role: 'vent' }, over_m);
      return answers({ ...system, fit: { ...system.fit, spots: [] } })[0]!;
    };
    expect(bolt(0.14)).toMatchObject({ job: 'hand', when: 'fitted' });
    expect(bolt(0.07).when).not.toBe('fitted');
  });
});
