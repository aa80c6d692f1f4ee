import { expect, it } from 'vitest';
import { unwrap } from '../outcome';
import { VEHICLES } from './schemaWishes';
import { endWord, sideText } from './sides';
import { parseWay } from './wayText';

it('sides in a boat are said as in a boat', () => {
  expect(sideText('boat', 'From the starboard wall, fore and aft, port side down')).toBe(
    'From the starboard wall, fore and aft, port side down',
  );
});

it.each([
  ['From the aft wall', 'From the rear wall'],
  ['From the starboard wall', 'From the right wall'],
  ['Starboard side, to port of the datum', 'Right side, to the left of the datum'],
  ['port down', 'left down'],
  ['nose to starboard', 'nose to the right'],
  ['Fore face moved aft', 'Front face moved rearward'],
  ['Aft face moved forward', 'Rear face moved forward'],
  ['Turned to port', 'Turned to the left'],
  ['lower port', 'lower left'],
  ['upper aft', 'upper rear'],
  ['At the fore end', 'At the front end'],
  ['From aft', 'From the rear'],
  ['swings fore and aft', 'swings front to rear'],
  ['distance from starboard', 'distance from the right'],
])('on land “%s” is “%s”', (text, expected) => {
  for (const kind of VEHICLES.filter((kind) => kind !== 'boat')) expect(sideText(kind, text)).toBe(expected);
});

it('a hole in a tank stays a port', () => {
  for (const text of ['Feed port', 'the port of the return', 'Add a port', 'its ports', 'before the fuel, after it'])
    expect(sideText('road', text)).toBe(text);
});

it('ends of axes', () => {
  expect(
    (['x', 'y', 'z'] as const).flatMap((axis) => [endWord('boat', axis, 'lower'), endWord('boat', axis, 'higher')]),
  ).toEqual(['aft', 'fore', 'starboard', 'port', 'lower', 'upper']);
  expect(
    (['x', 'y', 'z'] as const).flatMap((axis) => [endWord('road', axis, 'lower'), endWord('road', axis, 'higher')]),
  ).toEqual(['rear', 'front', 'right', 'left', 'lower', 'upper']);
});

it('a way is read back as it is said, in a boat and on land', () => {
  const moves = [
    ['aft 200', { forward_m: -0.2 }],
    ['to port 30', { toPort_m: 0.03 }],
    ['to starboard 30', { toPort_m: -0.03 }],
    ['starboard down 5', { starboardDown_deg: 5 }],
    ['port down 5', { starboardDown_deg: -5 }],
    ['nose to port 5', { noseToPort_deg: 5 }],
    ['nose to starboard 5', { noseToPort_deg: -5 }],
  ] as const;
  for (const [said, step] of moves)
    for (const kind of ['boat', 'road'] as const) {
      const read = unwrap(parseWay(sideText(kind, said), 'metric'));
      for (const [key, value] of Object.entries(step))
        expect(read[0]![key as keyof (typeof read)[0]], sideText(kind, said)).toBeCloseTo(value, 12);
    }
});
