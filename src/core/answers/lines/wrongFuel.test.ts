import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { applied, SOUND, T } from '../../../../tests/raisedSystems';
import { unwrap } from '../../outcome';
import { chosen, parseSystemText, type SystemDocument } from '../../plan';
import { reachedTanks } from '../../plan/circuits';
import { POURED_OF } from '../../reference/wrongFuel';
import { wrongFuelsOf } from '.';

const demo = (name: string): SystemDocument => unwrap(parseSystemText(readFileSync(`demo/${name}.json`, 'utf8')));
const DEMOS = ['crab-boat', 'forest-trailer', 'hill-climb-car', 'snow-vehicle', 'van-heater'];

describe('the wrong liquid in a filler', () => {
  it.each(DEMOS)('%s: every filler with every other liquid of the plan, and the other pump of the station', (name) => {
    const system = demo(name);
    const all = wrongFuelsOf(system);
    const fillers = system.tanks.flatMap((tank) =>
      tank.ports.filter(({ role }) => role === 'filler').map((port) => ({ tank, port })),
    );
    const pouredIn = (fluid: string) => POURED_OF[system.fluids.find(({ id }) => id === fluid)!.fluid];
    const liquids = new Set(fillers.map(({ tank }) => pouredIn(tank.fluid)));
    for (const { tank, port } of fillers) {
      const right = pouredIn(tank.fluid);
      const wanted = new Set([...liquids, ...(right === 'petrol' || right === 'diesel' ? ['petrol', 'diesel'] : [])]);
      wanted.delete(right);
      const of = all.filter((each) => each.port === port.id && each.tank === tank.name);
      expect(new Set(of.map(({ wrong }) => wrong))).toEqual(wanted);
      for (const { from, wrong } of of) expect(from).toBe(liquids.has(wrong) ? 'plan' : 'station');
    }
  });

  it.each(DEMOS)('%s: it comes to those that draw from the tank, at once or through others', (name) => {
    const system = demo(name);
    for (const { tank, reaches } of wrongFuelsOf(system)) {
      const t = system.tanks.findIndex((each) => each.name === tank);
      const draw = system.consumers.filter(({ id }) => reachedTanks(system, id).some((each) => each.tank === t));
      expect(reaches).toEqual(draw.map((each) => each.name));
    }
    expect(wrongFuelsOf(demo('van-heater'))[0]!.reaches.length).toBeGreaterThan(0);
  });

  it('what is poured into the auxiliary comes to what the main feeds', () => {
    const aux = wrongFuelsOf(demo('snow-vehicle')).find(({ tank }) => tank === 'Auxiliary tank')!;
    const main = wrongFuelsOf(demo('snow-vehicle')).find(({ tank }) => tank === 'Main tank')!;
    expect(main.reaches).toEqual(['Petrol V6', 'Cabin heater']);
    expect(aux.reaches).toEqual(main.reaches);
  });

  it('a petrol spout goes where a diesel spout does not, between the two sizes (ISO 9158 and 9159, from memory)', () => {
    const enters = (bore_m: number, fluid: 'petrol' | 'diesel') =>
      wrongFuelsOf(
        applied({ ...SOUND, fluids: SOUND.fluids.map((each) => ({ ...each, fluid })) }, [
          [`${T}ports[0].bore_m`, chosen(bore_m)],
        ]),
      ).find(({ port }) => port === SOUND.tanks[0]!.ports[0]!.id)!.enters;
    expect([0.02, 0.021, 0.022].map((bore) => enters(bore, 'diesel'))).toEqual(['no', 'some', 'yes']);
    expect([0.022, 0.024, 0.026].map((bore) => enters(bore, 'petrol'))).toEqual(['no', 'some', 'yes']);
  });

  it('is called as the plan calls it, and as the station does where the plan has none', () => {
    const [one] = wrongFuelsOf({
      ...SOUND,
      fluids: SOUND.fluids.map((each) => ({ ...each, fluid: 'methanol' as const })),
    });
    expect(one).toMatchObject({ rightName: 'methanol', wrongName: 'diesel', from: 'station' });
    expect(wrongFuelsOf(demo('forest-trailer')).map(({ wrongName }) => wrongName)).toEqual([
      'petrol (gasoline)',
      'diesel',
    ]);
  });
});
