import { readFileSync } from 'node:fs';
import { meshText, parseSystemText } from '@/core/plan';
import { revolvedMesh } from '@/core/geometry';
import { crabBoat } from './largeSystem';
import type { Bench } from './measure';

const BYTES = 60_000;
const GOAL_MS = 100;
const RUNS = 5;

/** Bodies of about so many bytes that are the worst that the door was found to be asked. */
function bodies(): readonly (readonly [name: string, text: string])[] {
  const boat = crabBoat();
  const fill = (text: string, one: (i: number) => string): string => {
    let filled = '';
    for (let i = 0; filled.length + text.length < BYTES; i++) filled += one(i);
    return filled;
  };
  const json = JSON.stringify(boat);
  const meridian = Array.from({ length: 26 }, (_, i) => [i / 25, i === 0 || i === 25 ? 0 : 0.2] as const);
  const shape = { kind: 'mesh' as const, file: 'scan.stl', ...meshText(revolvedMesh(meridian, 'x', 24)) };
  return [
    ['a good system', readFileSync('demo/crab-boat.json', 'utf8')],
    [
      'a mesh',
      JSON.stringify({
        ...boat,
        fit: {
          ...boat.fit,
          obstacles: [
            { ...boat.fit.obstacles[0]!, bodies: [{ ...boat.fit.obstacles[0]!.bodies[0]!, shape }], motions: [] },
          ],
        },
      }),
    ],
    ['tanks that are numbers', json.replace('"tanks":[', `"tanks":[${fill(json, () => '0,')}`)],
    ['empty tanks', json.replace('"tanks":[', `"tanks":[${fill(json, () => '{},')}`)],
    [
      'parts without anything',
      JSON.stringify({
        ...boat,
        components: Array.from({ length: 100 }, () => ({
          kind: 'pump',
          curve: Array.from({ length: 60 }, () => ({})),
        })),
      }),
    ],
    [
      'steps without anything',
      JSON.stringify({
        ...boat,
        fit: {
          ...boat.fit,
          ways: Array.from({ length: 40 }, () => ({ steps: Array.from({ length: 60 }, () => ({})) })),
        },
      }),
    ],
    ['keys that are not known', json.replace('{', `{${fill(json, (i) => `"k${i}":0,`)}`)],
    ['a key twice at the end', json.replace(/}$/, `,${fill(json, (i) => `"k${i}":0,`)}"name":""}`)],
    [
      'nesting without end',
      `{"format":"gasline-system","version":2,"a":${'['.repeat(BYTES / 2)}${']'.repeat(BYTES / 2)}}`,
    ],
    ['one name', JSON.stringify({ ...boat, name: '\u202E '.repeat(12_000) })],
    ['one line over and over', JSON.stringify({ ...boat, lines: Array.from({ length: 150 }, () => boat.lines[0]) })],
  ];
}

export const body60k: Bench = {
  name: 'body-60k',
  run() {
    const worst = bodies()
      .map(([name, text]) => {
        const times = Array.from({ length: RUNS }, () => {
          const began = performance.now();
          parseSystemText(text);
          return performance.now() - began;
        });
        return { name, time: Math.min(...times) };
      })
      .sort((a, b) => b.time - a.time)[0]!;
    const value = Number(worst.time.toFixed(1));
    return Promise.resolve({
      name: 'body-60k',
      value,
      unit: 'ms',
      reference: `the slowest of eleven bodies of up to ${BYTES / 1000} kB to be read and checked, the best of ${RUNS} runs each: ${worst.name}`,
      ratio: null,
      goal: GOAL_MS,
      met: value <= GOAL_MS,
    });
  },
};
