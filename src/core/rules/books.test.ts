import { readdirSync, readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { evaluateSystem, numbersOf } from '../answers';
import { loadKernel } from '../geometry/kernel';
import { unwrap } from '../outcome';
import { assumed, chosen, parseSystemText, withoutPart, type SystemDocument } from '../plan';
import { withPositions } from '../state';
import { messageText } from '../units';
import { BOOK_RULES, judge, judgedByBook, RULES, type Judgement, type Rulebook } from '.';
import { applied, SOUND, T } from '../../../tests/raisedSystems';

beforeAll(loadKernel);

const MOUNT = {
  id: 'strap',
  name: 'Strap',
  kind: 'strap',
  tank: 'main',
  x_m: chosen(0.1),
  y_m: chosen(0.1),
  z_m: chosen(0),
};
const FLOOR_PORT = {
  id: 'low',
  name: 'Low port',
  role: 'spare',
  face: 'floor',
  x_m: chosen(0.1),
  y_m: chosen(0.1),
  bore_m: chosen(0.008),
  length_m: chosen(0),
};
const withPort = (system: SystemDocument, more: object): SystemDocument =>
  applied(system, [[`${T}ports`, [...system.tanks[0]!.ports, { ...FLOOR_PORT, ...more }]]]);
const withoutPort = (system: SystemDocument, role: string): SystemDocument =>
  applied(system, [[`${T}ports`, system.tanks[0]!.ports.filter((port) => port.role !== role)]]);
/** Drawn by the floor instead of by a tube through the lid. */
const bottomOutlet = (system: SystemDocument): SystemDocument =>
  applied(withPort(system, { id: 'outlet', role: 'feed' }), [
    [`${T}pickups[0].port`, 'outlet'],
    [`${T}pickups[0].kind`, 'bottom-outlet'],
  ]);
const petrol = (system: SystemDocument): SystemDocument => applied(system, [['fluids[0].fluid', 'petrol']]);
const large = (system: SystemDocument): SystemDocument =>
  applied(system, [
    [`${T}shape.length_m`, chosen(1)],
    [`${T}shape.width_m`, chosen(0.6)],
    [`${T}shape.height_m`, chosen(0.4)],
  ]);
/** The feed hangs half a metre under the tank's floor. */
const drooping = (system: SystemDocument): SystemDocument =>
  applied(system, [
    ['lines[0].rise_m', assumed(-0.9, 0.05)],
    ['lines[1].rise_m', assumed(0, 0.05)],
  ]);
const ofStock = (stock: string, system: SystemDocument): SystemDocument =>
  applied(
    system,
    system.lines.map((_, l) => [`lines[${l}].stock`, stock] as const),
  );
const held = (system: SystemDocument): SystemDocument => applied(system, [['mounts', [MOUNT]]]);

type Act = (system: SystemDocument) => SystemDocument;
/** What goes against each clause that is judged, and what keeps it. */
const CASES: Readonly<Record<string, readonly [raised: Act, kept: Act]>> = {
  'book.49-cfr-393-65-b-5': [(s) => applied(s, [['vehicle.kind', 'trailer']]), (s) => s],
  'book.49-cfr-393-65-d': [(s) => withoutPart(s, 'pump'), (s) => s],
  'book.49-cfr-393-67-c-5': [
    (s) =>
      withPort(s, {
        role: 'drain',
        stands: { height_m: chosen(0.03), diameter_m: chosen(0.02), turns: 'straight', reach_m: chosen(0) },
      }),
    (s) =>
      withPort(s, {
        role: 'drain',
        stands: { height_m: chosen(0.015), diameter_m: chosen(0.02), turns: 'straight', reach_m: chosen(0) },
      }),
  ],
  'book.49-cfr-393-67-c-6': [(s) => petrol(bottomOutlet(s)), petrol],
  'book.49-cfr-393-67-c-7-ii': [
    (s) => applied(large(s), [[`${T}ports[1].bore_m`, chosen(0.006)]]),
    (s) => applied(large(s), [[`${T}ports[1].bore_m`, chosen(0.025)]]),
  ],
  'book.49-cfr-393-67-c-10': [(s) => withoutPort(s, 'vent'), (s) => s],
  'book.49-cfr-393-67-c-12': [(s) => applied(s, [[`${T}fillLimit_ratio`, chosen(0.97)]]), (s) => s],
  'book.33-cfr-183-512': [(s) => petrol(applied(s, [[`${T}material.alloy`, 'mild-steel']])), petrol],
  'book.33-cfr-183-518': [(s) => petrol(withPort(s, {})), petrol],
  'book.33-cfr-183-540': [(s) => ofStock('hose-push-8-mm-5-16', s), (s) => ofStock('hose-marine-10-mm-3-8', s)],
  'book.33-cfr-183-556': [(s) => withPort(s, { role: 'drain' }), (s) => s],
  'book.33-cfr-183-568': [drooping, (s) => applied(s, [['lines[0].rise_m', assumed(0.2, 0.05)]])],
  'book.iso-10088-vent-lines': [(s) => applied(s, [[`${T}ports[1].bore_m`, chosen(0.008)]]), (s) => s],
  'book.iso-10088-filling': [(s) => applied(s, [[`${T}ports[0].bore_m`, chosen(0.02)]]), (s) => s],
  'book.iso-10088-petrol-tanks': [(s) => petrol(withPort(s, {})), petrol],
  'book.iso-10088-diesel-tanks': [bottomOutlet, (s) => s],
  'book.iso-10088-anti-siphon': [(s) => petrol(drooping(s)), drooping],
  'book.iso-10088-hoses-iso-7840-iso-8469': [
    (s) => ofStock('hose-push-8-mm-5-16', s),
    (s) => ofStock('hose-marine-10-mm-3-8', s),
  ],
  'book.iso-21487-materials': [(s) => applied(s, [[`${T}material.thickness_m`, chosen(0.0015)]]), (s) => s],
  'book.un-r122-fuel-supply-cap': [(s) => applied(s, [['envelope.noseUp_deg', chosen(40)]]), (s) => s],
  'book.iso-21487-aluminium': [(s) => applied(s, [[`${T}material.alloy`, 'al-6061']]), (s) => s],
};

const byBook = (system: SystemDocument): Judgement => {
  const evaluation = unwrap(evaluateSystem(system));
  return judgedByBook({
    system: withPositions(system, evaluation.state.positions),
    evaluation,
    numbers: numbersOf(system, evaluation),
  });
};
const under = (book: Rulebook | 'none', system: SystemDocument): SystemDocument =>
  applied(system, [['rulebook', book]]);

describe('rulebooks', () => {
  it('have 40 clauses and more between them, each with its own id, told as from memory', () => {
    expect(BOOK_RULES.length).toBeGreaterThanOrEqual(40);
    const ids = [...BOOK_RULES, ...RULES].map(({ id }) => id);
    expect(new Set(ids).size).toBe(ids.length);
    for (const { id, clause, title, why, mend, test, lacks } of BOOK_RULES) {
      for (const text of [clause, title, why, mend]) expect(text.length, id).toBeGreaterThan(3);
      // One that neither finds anything nor says why not could not fail.
      expect(test ?? lacks, id).toBeDefined();
    }
    const { findings } = byBook(under('small-craft', applied(SOUND, [[`${T}material.alloy`, 'al-6061']])));
    expect(findings[0]!.source).toContain('from memory; the current text and local law decide');
  });

  it('every clause that is judged has a case here', () => {
    expect(Object.keys(CASES).sort()).toEqual(BOOK_RULES.flatMap(({ id, test }) => (test ? [id] : [])).sort());
  });

  it.each(BOOK_RULES.filter(({ test }) => test).map((rule) => [rule.id, rule] as const))(
    '%s: raised by what goes against it, and not by what keeps it',
    (id, { book }) => {
      const [raised, kept] = CASES[id]!;
      const against = byBook(under(book, raised(SOUND)));
      expect(against.findings.map((finding) => finding.id)).toContain(id);
      for (const finding of against.findings)
        for (const reader of ['metric', 'us'] as const)
          expect(messageText(finding.what, reader)).not.toMatch(/[{}]|NaN|undefined/);
      expect(byBook(under(book, kept(SOUND))).findings.map((finding) => finding.id)).not.toContain(id);
    },
  );

  it('what needs a test is never clear, in any book: no calculation stands for it', () => {
    const tested = (['road-truck-tank', 'petrol-boat', 'small-craft'] as const).map((book) => {
      const { notJudged } = byBook(under(book, petrol(large(SOUND))));
      return notJudged.filter(({ lacks }) => lacks.includes('a test decides it')).map(({ id }) => id);
    });
    // Fire, pressure, leaks and two drops of trucks; tank, system and fire of petrol boats; pressure and fire of craft.
    expect(tested.map(({ length }) => length)).toEqual([5, 3, 2]);
    // Where a clause is of large tanks or of petrol alone, others keep it.
    expect(byBook(under('road-truck-tank', SOUND)).clear).toContain('book.49-cfr-393-67-c-8');
    expect(byBook(under('small-craft', SOUND)).clear).toContain('book.iso-21487-fire-test');
  });

  it.each(readdirSync('demo'))(
    '%s: each clause of the book that is chosen has one of three results, others none',
    (file) => {
      const system = unwrap(parseSystemText(readFileSync(`demo/${file}`, 'utf8')));
      for (const book of ['none', 'road-truck-tank', 'petrol-boat', 'small-craft'] as const) {
        const { findings, notJudged, clear } = byBook(under(book, system));
        const told = [...new Set(findings.map(({ id }) => id)), ...notJudged.map(({ id }) => id), ...clear];
        expect([...told].sort()).toEqual(BOOK_RULES.flatMap((rule) => (rule.book === book ? [rule.id] : [])).sort());
      }
    },
  );

  it('a tank without mounts is not known to be loose: not judged, and clear when it is held', () => {
    for (const [book, id] of [
      ['road-truck-tank', 'book.49-cfr-393-65-c'],
      ['petrol-boat', 'book.33-cfr-183-550'],
    ] as const) {
      expect(byBook(under(book, SOUND)).notJudged.map((rule) => rule.id)).toContain(id);
      expect(byBook(under(book, held(SOUND))).clear).toContain(id);
    }
  });

  it('what a plan cannot tell is never clear: a neck, a pump’s switch, shields, a wall of plastic, runs not looked at', () => {
    const truck = byBook(under('road-truck-tank', SOUND));
    for (const id of ['book.49-cfr-393-67-c-12', 'book.49-cfr-393-65-f', 'book.49-cfr-393-65-g'])
      expect(truck.notJudged.map((rule) => rule.id)).toContain(id);
    const plastic = byBook(under('small-craft', applied(SOUND, [[`${T}material.alloy`, 'hdpe']])));
    expect(plastic.notJudged.map((rule) => rule.id)).toContain('book.iso-21487-materials');
    const system = under('petrol-boat', SOUND);
    const evaluation = unwrap(evaluateSystem(system, 'numbers'));
    const early = judgedByBook({ system, evaluation, numbers: numbersOf(system, evaluation) });
    expect(early.notJudged.map((rule) => rule.id)).toContain('book.33-cfr-183-568');
    expect(byBook(under('petrol-boat', applied(SOUND, [['lines', []]]))).clear).not.toContain('book.33-cfr-183-568');
  });

  it('a drain of which no height is told stands as high as those of its kind', () => {
    const { findings } = byBook(under('road-truck-tank', withPort(SOUND, { role: 'feed', bore_m: chosen(0.02) })));
    expect(findings.map(({ id }) => id)).toContain('book.49-cfr-393-67-c-5');
  });

  it('a siphon by measured heights is graver than one by guessed ones', () => {
    const at = (rise: SystemDocument['lines'][number]['rise_m']) =>
      byBook(
        under(
          'petrol-boat',
          applied(drooping(SOUND), [
            ['lines[0].rise_m', rise],
            ['lines[1].rise_m', { ...rise, value: 0 }],
          ]),
        ),
      )
        .findings.filter(({ id }) => id === 'book.33-cfr-183-568')
        .map(({ severity }) => severity);
    expect(new Set(at(assumed(-0.9, 0.05)))).toEqual(new Set(['warn']));
    expect(at(chosen(-0.9))).toContain('stop');
  });

  it('they stand among the findings, gravest first', () => {
    const system = under('road-truck-tank', withoutPort(SOUND, 'vent'));
    const { findings } = judge(system, unwrap(evaluateSystem(system)));
    expect(findings.map(({ id }) => id)).toContain('book.49-cfr-393-67-c-10');
    const ranks = findings.map(({ severity }) => ['stop', 'warn', 'note'].indexOf(severity));
    expect(ranks).toEqual([...ranks].sort((a, b) => a - b));
  });
});
