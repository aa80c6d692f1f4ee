import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import {
  chosen,
  parseSystemText,
  type ComponentDocument,
  type LineDocument,
  type SystemDocument,
  type TankDocument,
} from '../../plan';
import { loadKernel } from '../../geometry';
import { LINE_STOCK } from '../../reference/lineStock';
import { unwrap } from '../../outcome';
import { flowInputsOf } from '../flow/flowInputs';
import { circuitsOf, sizeTable } from './';

await loadKernel();
const BOX = unwrap(parseSystemText(readFileSync('tests/fixtures/box-boat.json', 'utf8')));
const end = (item: string, name: 'in' | 'out' | 'side') => ({ item, end: name, adapters: [] });
const [LENGTH_M, HEIGHT_M, HOLE_M, C] = [0.8, 0.6, 0.004, 0.7];

/** An upright box with an outlet in its floor and a tube that lets in just over its floor. */
const box = (id: string, width_m: number, z_m: number): TankDocument => ({
  ...BOX.tanks[0]!,
  id,
  name: id,
  senders: [],
  dimensions: 'inside',
  shape: { kind: 'box', length_m: chosen(LENGTH_M), width_m: chosen(width_m), height_m: chosen(HEIGHT_M) },
  mounting: {
    ...BOX.tanks[0]!.mounting,
    x_m: chosen(0),
    y_m: chosen(0),
    z_m: chosen(z_m),
    pitch_deg: chosen(0),
    roll_deg: chosen(0),
  },
  ports: [
    {
      id: `${id}-vent`,
      name: 'Vent',
      role: 'vent',
      face: 'lid',
      x_m: chosen(0.4),
      y_m: chosen(0.1),
      bore_m: chosen(0.05),
      length_m: chosen(0.01),
    },
    {
      id: `${id}-out`,
      name: 'Outlet',
      role: 'feed',
      face: 'floor',
      x_m: chosen(0.4),
      y_m: chosen(0.1),
      bore_m: chosen(0.05),
      length_m: chosen(0),
    },
    {
      id: `${id}-in`,
      name: 'Inlet',
      role: 'return',
      face: 'lid',
      x_m: chosen(0.2),
      y_m: chosen(0.1),
      bore_m: chosen(0.05),
      length_m: chosen(0),
      drop_m: chosen(HEIGHT_M - 0.01),
    },
  ],
  pickups: [
    {
      id: `${id}-pickup`,
      name: 'Foot',
      port: `${id}-out`,
      kind: 'bottom-outlet',
      strainer: 'none',
      heightOffFloor_m: chosen(0),
      bore_m: chosen(0.05),
      submergence_m: chosen(0),
    },
  ],
});
const wide = (id: string, from: LineDocument['from'], to: LineDocument['to']): LineDocument => ({
  ...BOX.lines[0]!,
  id,
  name: id,
  purpose: 'transfer',
  kind: 'hose',
  from,
  to,
  bore_m: chosen(0.05),
  length_m: chosen(0.01),
  rise_m: chosen(0),
  forward_m: chosen(0),
  toPort_m: chosen(0),
  fittings: [],
});
const HOLE: ComponentDocument = {
  id: 'hole',
  name: 'Hole',
  ends: [],
  kind: 'orifice',
  bore_m: chosen(HOLE_M),
  discharge_ratio: chosen(C),
};

/** High tank, hole, low tank, all else wide: what Torricelli's drain knows. */
const drain = (high: number, low: number, moves: number, z_m = 0.3): SystemDocument => ({
  ...BOX,
  tanks: [box('high', 0.5, z_m), box('low', 0.4, 0)],
  components: [HOLE],
  consumers: [],
  lines: [wide('a', end('high-pickup', 'out'), end('hole', 'in')), wide('b', end('hole', 'out'), end('low-in', 'in'))],
  wishes: { ...BOX.wishes, moves_m3: chosen(moves) },
  conditions: {
    ...BOX.conditions,
    fills: [
      { tank: 'high', fill_ratio: high },
      { tank: 'low', fill_ratio: low },
    ],
  },
});
const transfer = (system: SystemDocument) => circuitsOf(flowInputsOf(system, undefined)!).transfers[0]!;

/** Closed form: two surfaces over plan areas A and B meet through a hole, d(h)/dt = -(1/A + 1/B) C a sqrt(2 g h). */
function torricelli(head_m: number, moved_m3: number): number {
  const rate = 1 / (LENGTH_M * 0.5) + 1 / (LENGTH_M * 0.4);
  const k = rate * C * (Math.PI / 4) * HOLE_M ** 2 * Math.sqrt(2 * 9.80665);
  return (2 / k) * (Math.sqrt(head_m) - Math.sqrt(head_m - rate * moved_m3));
}

describe('a transfer over time', () => {
  it('a falling head takes as long as Torricelli says, longer than the flow at its beginning would', () => {
    const { time_s, volume_m3, ends, flow_m3PerS } = transfer(drain(0.9, 0.3, 0.06));
    expect(ends).toBe('moved');
    expectClose(volume_m3, 0.06, { rel: 1e-9, why: 'all that was asked for' });
    const head = 0.3 + 0.9 * HEIGHT_M - 0.3 * HEIGHT_M;
    expectClose(time_s!, torricelli(head, 0.06), {
      rel: 0.005,
      why: 'wide vents and lines still cost a little; 24 steps',
    });
    expect(time_s!).toBeGreaterThan(1.1 * (0.06 / flow_m3PerS));
  });

  it('ends at rest where the surfaces meet, with no more moved than brings them together', () => {
    const { volume_m3, ends, asked_m3 } = transfer(drain(0.5, 0.3, 0.2, 0));
    expect(ends).toBe('at-rest');
    expect(asked_m3).toBe(0.2);
    const rate = 1 / (LENGTH_M * 0.5) + 1 / (LENGTH_M * 0.4);
    expectClose(volume_m3, ((0.5 - 0.3) * HEIGHT_M) / rate, {
      rel: 0.01,
      why: 'closed form: the difference of levels by both plans',
    });
  });

  it('gives no time for what does not fit, and says which tank is full', () => {
    const { volume_m3, ends, endsAt } = transfer(drain(0.9, 0.8, 0.2));
    expect([ends, endsAt]).toEqual(['target-full', 'low']);
    expectClose(volume_m3, (0.95 - 0.8) * HEIGHT_M * LENGTH_M * 0.4, { rel: 1e-6, why: 'room up to the fill limit' });
  });

  it('gives no time for what is not there, and says which tank has run dry', () => {
    const { volume_m3, ends, endsAt } = transfer(drain(0.1, 0, 0.2, 1.5));
    expect([ends, endsAt]).toEqual(['source-dry', 'high']);
    expectClose(volume_m3, 0.1 * HEIGHT_M * LENGTH_M * 0.5, {
      rel: 0.01,
      why: 'all of it: the outlet is in the floor',
    });
  });

  it('moves nothing uphill', () =>
    expect(transfer(drain(0.1, 0.9, 0.05, 0))).toMatchObject({
      ends: 'nothing-moves',
      time_s: undefined,
      volume_m3: 0,
    }));
});

describe('sizes past a tee', () => {
  const tee: ComponentDocument = { id: 'tee', name: 'Tee', ends: [], kind: 'tee', bore_m: chosen(0.02) };
  const hose = (id: string, from: LineDocument['from'], to: LineDocument['to']): LineDocument => ({
    ...wide(id, from, to),
    bore_m: chosen(0.008),
    length_m: chosen(1),
  });
  const system: SystemDocument = {
    ...drain(0.9, 0.3, 0.02),
    components: [tee],
    tanks: [box('high', 0.5, 0.3), box('low', 0.4, 0), box('other', 0.4, 0)],
    lines: [
      hose('a', end('high-pickup', 'out'), end('tee', 'in')),
      hose('b', end('tee', 'out'), end('low-in', 'in')),
      hose('c', end('tee', 'side'), end('other-in', 'in')),
    ],
    conditions: {
      ...BOX.conditions,
      fills: [
        { tank: 'high', fill_ratio: 0.9 },
        { tank: 'low', fill_ratio: 0.1 },
        { tank: 'other', fill_ratio: 0.1 },
      ],
    },
  };

  it.each(['a', 'b', 'c'])('line %s has a flow and a time in every size that carries any, more in wider ones', (id) => {
    const { rows } = sizeTable(system, id)!;
    for (const row of rows) {
      expect(row.flow_m3PerS!).toBeGreaterThan(0);
      expect(row.time_s!).toBeGreaterThan((0.02 / row.flow_m3PerS!) * (1 - 1e-6));
    }
    rows
      .slice(1)
      .forEach((row, i) => expect(row.flow_m3PerS!).toBeGreaterThanOrEqual(rows[i]!.flow_m3PerS! * (1 - 1e-6)));
  });

  it('what passes the two branches is what passes the line before the tee', () => {
    const row = LINE_STOCK.find(({ key }) => key === 'hose-push-8-mm-5-16')!;
    const now = (id: string): number =>
      sizeTable(
        { ...system, lines: system.lines.map((line) => ({ ...line, bore_m: chosen(row.bore_m), stock: row.key })) },
        id,
      )!.rows.find(({ isNow }) => isNow)!.flow_m3PerS!;
    expectClose(now('a'), now('b') + now('c'), { rel: 1e-6, why: 'balance at the tee' });
  });
});
