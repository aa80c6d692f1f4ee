import { expect, it } from 'vitest';
import { knownText } from './knownText';

it.each([
  [
    'an angle stands in degrees in the document, and so does its spread',
    { value: 0, spread: 1 },
    'slope',
    'metric',
    '0° ± 1°',
  ],
  ['a length and its spread speak of one unit', { value: 0.04, spread: 0.0005 }, 'tape', 'metric', '40 mm ± 0.5'],
  ['a long time and a short spread too', { value: 21960, spread: 3540 }, 'duration', 'metric', '6.1 h ± 0.98'],
  ['and a short time', { value: 1800, spread: 120 }, 'duration', 'metric', '30.0 min ± 2'],
  ['kelvins of spread are degrees', { value: 293.15, spread: 2 }, 'temperature', 'metric', '20 °C ± 2'],
  ['in another reader’s unit', { value: 0.0254, spread: 0.00254 }, 'tape', 'us', '1 in ± 0.1'],
  ['no spread, none told', { value: 0.04 }, 'tape', 'metric', '40 mm'],
] as const)('%s', (_, known, role, reader, text) => expect(knownText(known, role, reader)).toBe(text));
