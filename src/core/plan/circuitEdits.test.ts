import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { unwrap } from '../outcome';
import { END_POINTS } from '../components';
import { ADAPTERS } from '../reference/joins';
import {
  chosen,
  COMPONENT_KINDS,
  CONSUMER_KINDS,
  parseSystem,
  parseSystemText,
  type ComponentDocument,
  type SystemDocument,
} from './';
import {
  freeEnds,
  mayJoin,
  newPart,
  withBranch,
  withLine,
  withoutPart,
  withPartIn,
  withPartMoved,
  withPartReplaced,
  withEndsThatAre,
  partFor,
} from './circuitEdits';
import { feedPath, fluidAt, joinedTo, runsOf } from './circuits';

const BOX = unwrap(parseSystemText(readFileSync('tests/fixtures/box-boat.json', 'utf8')));
const valid = (system: SystemDocument): SystemDocument => unwrap(parseSystem(JSON.parse(JSON.stringify(system))));
const length = (system: SystemDocument): number => system.lines.reduce((sum, line) => sum + line.length_m.value, 0);
const parts = (system: SystemDocument): string[] =>
  runsOf(system)[0]!.steps.flatMap((step) => (step.kind === 'part' ? [step.id] : []));

describe('a run edited like a list', () => {
  it.each(COMPONENT_KINDS.filter((kind) => !END_POINTS.includes(kind)))(
    '%s goes into a line and out again: same lengths, same heights, still a valid document',
    (kind) => {
      const part = newPart(BOX, kind, 0.008);
      const inserted = valid(unwrap(withPartIn(BOX, 'line-2', part, 0.3)));
      expectClose(length(inserted), length(BOX), { abs: 1e-12, why: 'the line is only cut' });
      expect(parts(inserted)).toContain(part.id);
      const out = valid(withoutPart(inserted, part.id));
      expect(parts(out)).toEqual(parts(BOX));
      out.lines.forEach((line, l) => {
        for (const key of ['length_m', 'rise_m', 'forward_m', 'toPort_m'] as const)
          expectClose(line[key].value, BOX.lines[l]![key].value, {
            abs: 1e-12,
            why: 'shared out and put together again',
          });
      });
    },
  );

  it('a part moves along its run and back, and not over its end', () => {
    const forward = valid(withPartMoved(BOX, 'filter', 1));
    expect(parts(forward)).toEqual(['pickup', 'pump', 'filter', 'consumer']);
    expect(parts(withPartMoved(forward, 'filter', -1))).toEqual(parts(BOX));
    expect(withPartMoved(BOX, 'pump', 1)).toBe(BOX);
    expectClose(length(forward), length(BOX), { abs: 1e-12, why: 'nothing is cut away' });
  });

  it('any row of insertions, moves and removals leaves a valid document of the same length of line', () => {
    const step = fc.record({
      what: fc.constantFrom('in', 'out', 'on', 'back'),
      pick: fc.nat(20),
      kind: fc.constantFrom(...COMPONENT_KINDS.filter((kind) => !END_POINTS.includes(kind) && kind !== 'selector')),
    });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 8 }), (steps) => {
        const after = steps.reduce((system, { what, pick, kind }) => {
          const line = system.lines[pick % system.lines.length]!;
          if (what === 'in') return unwrap(withPartIn(system, line.id, newPart(system, kind, 0.008)));
          const part = system.components[pick % Math.max(1, system.components.length)];
          if (!part) return system;
          return what === 'out' ? withoutPart(system, part.id) : withPartMoved(system, part.id, what === 'on' ? 1 : -1);
        }, BOX);
        valid(after);
        expectClose(length(after), length(BOX), { abs: 1e-9, why: 'lines are cut and joined, never lost' });
        expect(feedPath(after, 'consumer').at(-1)).toBe('pickup');
      }),
      { seed: 11, numRuns: 60 },
    );
  });

  it('another part takes a place, unless it lacks an end that a line needs', () => {
    const meter = newPart(BOX, 'meter', 0.008);
    expect(parts(unwrap(withPartReplaced(BOX, 'filter', meter)))).toEqual(parts(BOX));
    expect(withPartReplaced(BOX, 'filter', newPart(BOX, 'outlet', 0.008))).toMatchObject({
      ok: false,
      error: { code: 'no-such-end' },
    });
  });
});

describe('joins', () => {
  it('a branch at a tee leads to a free end or into the open', () => {
    const open = valid(unwrap(withBranch(BOX, 'line-3', 'outlet', 'overflow')));
    expect(runsOf(open)).toHaveLength(3);
    const back = valid(unwrap(withBranch(BOX, 'line-3', { item: 'return', end: 'in' }, 'return')));
    expect(back.lines.at(-1)).toMatchObject({ purpose: 'return', to: { item: 'return' } });
  });

  it.each([
    ['taken', { item: 'pickup', end: 'out' }, { item: 'return', end: 'in' }, 'feed'],
    ['same-part', { item: 'consumer', end: 'out' }, { item: 'consumer', end: 'in' }, 'return'],
    ['no-such-end', { item: 'consumer', end: 'side' }, { item: 'return', end: 'in' }, 'return'],
    ['vent-only', { item: 'consumer', end: 'out' }, { item: 'vent', end: 'in' }, 'return'],
  ] as const)('cannot be made: %s', (code, from, to, purpose) => {
    expect(mayJoin(BOX, from, to, purpose)).toMatchObject({ ok: false, error: { code } });
    expect(withLine(BOX, from, to, purpose)).toMatchObject({ ok: false, error: { code } });
  });

  it('two fluids are not joined', () => {
    const second = JSON.parse(
      JSON.stringify(BOX.tanks[0]!)
        .replace(/"id":"([a-z-]+)"/g, '"id":"b-$1"')
        .replace(/"port":"([a-z-]+)"/g, '"port":"b-$1"'),
    ) as SystemDocument['tanks'][number];
    const both: SystemDocument = {
      ...BOX,
      fluids: [...BOX.fluids, { id: 'petrol', fluid: 'petrol' }],
      tanks: [...BOX.tanks, { ...second, fluid: 'petrol' }],
    };
    expect(mayJoin(both, { item: 'consumer', end: 'out' }, { item: 'b-return', end: 'in' }, 'return')).toMatchObject({
      ok: false,
      error: { code: 'other-fluid' },
    });
  });

  it('an open end into the air cannot stand in a line, and a line that is gone cannot be cut', () => {
    expect(withPartIn(BOX, 'line-1', newPart(BOX, 'outlet', 0.008))).toMatchObject({
      ok: false,
      error: { code: 'not-in-a-row' },
    });
    expect(withPartIn(BOX, 'ghost', newPart(BOX, 'tee', 0.008))).toMatchObject({
      ok: false,
      error: { code: 'no-such-line' },
    });
    expect(withBranch(BOX, 'ghost', 'outlet', 'feed')).toMatchObject({ ok: false, error: { code: 'no-such-line' } });
  });

  it('free ends are those of all parts that no line has taken', () => {
    expect(freeEnds(BOX).map(({ item }) => item)).toContain('return');
    expect(freeEnds(BOX).map(({ item }) => item)).not.toContain('pump');
  });
});

describe('parts that lose ends', () => {
  const regulator = { ...newPart(BOX, 'regulator', 0.008), style: 'bypass' } as ComponentDocument;
  const inLine = unwrap(
    withPartIn(BOX, 'line-3', { ...regulator, ends: [{ end: 'side', system: 'barb', size: '5/16', side: 'male' }] }),
  );
  const returning = valid(
    unwrap(withLine(inLine, { item: regulator.id, end: 'side' }, { item: 'return', end: 'in' }, 'return')),
  );
  const deadHead = (system: SystemDocument): SystemDocument => ({
    ...system,
    components: system.components.map((part) =>
      part.kind === 'regulator' ? { ...part, style: 'dead-head' as const } : part,
    ),
  });

  it('a regulator without a return loses the line there and what was said of that end', () => {
    expect(parseSystem(deadHead(returning)).ok).toBe(false);
    const after = valid(withEndsThatAre(deadHead(returning)));
    expect(after.lines.map(({ id }) => id)).toEqual(inLine.lines.map(({ id }) => id));
    expect(after.components.find(({ id }) => id === regulator.id)!.ends).toEqual([]);
  });
  it('nor may one without it take the place of one with it', () => {
    expect(
      withPartReplaced(returning, regulator.id, { ...regulator, style: 'dead-head' } as ComponentDocument),
    ).toMatchObject({ ok: false, error: { code: 'no-such-end' } });
    valid(unwrap(withPartReplaced(returning, regulator.id, { ...regulator, ends: [] })));
  });
  it.each(CONSUMER_KINDS)('a consumer that becomes a %s stays valid', (kind) => {
    const returned = valid(
      unwrap(withLine(BOX, { item: 'consumer', end: 'out' }, { item: 'return', end: 'in' }, 'return')),
    );
    const after = valid(
      withEndsThatAre({ ...returned, consumers: returned.consumers.map((consumer) => ({ ...consumer, kind })) }),
    );
    expect(after.lines).toHaveLength(returned.lines.length - (kind === 'heater' || kind === 'nozzle' ? 1 : 0));
  });
  it('leaves a system alone in which nothing is lost', () => {
    expect(withEndsThatAre(returning)).toEqual(returning);
  });
});

describe('parts from elsewhere', () => {
  it('get an id and a name that are free here', () => {
    const again = partFor(BOX, BOX.components[0]!);
    expect(BOX.components.map(({ id }) => id)).not.toContain(again.id);
    expect(again.name).toBe(`${BOX.components[0]!.name} 2`);
    valid(unwrap(withPartIn(BOX, 'line-1', again)));
  });
  it('a float valve watches a tank that is there', () => {
    const valve = partFor(BOX, {
      ...newPart(BOX, 'float-valve', 0.02),
      tank: 'of-another-system',
    } as ComponentDocument);
    expect(valve).toMatchObject({ tank: BOX.tanks[0]!.id });
    valid(unwrap(withPartIn(BOX, 'line-1', valve)));
  });
});

it('a sight tube stands by itself again when the tee that it hung on goes', () => {
  const teed = unwrap(withPartIn(BOX, 'line-1', { ...newPart(BOX, 'tee', 0.008), id: 'sight-tee' }));
  const SIGHT = {
    face: 'aft' as const,
    along_m: chosen(0.1),
    lower_m: chosen(0.01),
    upper_m: chosen(0.2),
    markEvery_m3: chosen(0.001),
  };
  const shown: SystemDocument = {
    ...teed,
    tanks: teed.tanks.map((tank) => ({
      ...tank,
      sightTubes: [
        { ...SIGHT, id: 'sight', name: 'Sight tube', tee: 'sight-tee' },
        { ...SIGHT, id: 'other', name: 'Other tube' },
      ],
    })),
  };
  const after = valid(withoutPart(valid(shown), 'sight-tee'));
  expect(after.tanks[0]!.sightTubes.map(({ tee }) => tee)).toEqual([undefined, undefined]);
});

it('what hangs together, and on which fluid', () => {
  const cut = { ...BOX, lines: BOX.lines.filter(({ id }) => id !== 'line-2') };
  expect([...joinedTo(cut, ['pickup'])]).toEqual(['pickup', 'filter']);
  expect([...joinedTo(BOX, ['pickup'])].sort()).toEqual(['consumer', 'filter', 'pickup', 'pump']);
  expect(fluidAt(BOX, 'consumer')).toBe(BOX.fluids[0]!.fluid);
  expect(fluidAt(cut, 'consumer')).toBeUndefined();
});

it('parts screwed together keep what lies between them at one side', () => {
  const direct = (from: string[], to: string[]): SystemDocument => ({
    ...BOX,
    lines: BOX.lines.map((line) =>
      line.id === 'line-2'
        ? {
            ...line,
            kind: 'direct' as const,
            length_m: chosen(0),
            from: { ...line.from, adapters: from },
            to: { ...line.to, adapters: to },
          }
        : line,
    ),
  });
  valid(direct([], [ADAPTERS[0]!.key]));
  const refused = parseSystem(JSON.parse(JSON.stringify(direct([ADAPTERS[0]!.key], []))));
  expect(refused.ok ? [] : refused.error.detail).toContain('lines[1].from.adapters');
});
