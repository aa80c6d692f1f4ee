import { capital } from '@/core/formats';
import type { PourDocument } from '@/core/plan';
import type { FoundUnknown, PourFlag } from '@/core/gauge';
import { formatQuantity, type Reader } from '@/core/units';
import type { CalibrationData } from '@/core/answers';

export const FLAG_WORDS: Readonly<Record<PourFlag, string>> = {
  struck: 'struck',
  spilt: 'some was spilt: its amount is in doubt',
  'out-of-order': 'earlier than the line before it',
  repeated: 'same as the line before: written twice?',
  falls: 'reading went the wrong way',
  dead: 'reading stands still: float dead?',
  'out-of-range': 'no such sender gives this: left out',
  'too-much': 'more than the tank can hold',
  'far-off': 'far from all the others',
};

export const STATE_WORDS: Readonly<Record<PourDocument['state'], string>> = {
  counts: 'counts',
  'reading-struck': 'reading struck',
  'entry-struck': 'line struck: never poured',
  spilt: 'some was spilt',
};

/** A reading with its unit. */
export function readingText(reading: PourDocument['reading'], reader: Reader): string {
  switch (reading.kind) {
    case 'resistance':
      return formatQuantity(reading.reading_ohm, 'resistance', { reader, digits: 4 }).text;
    case 'voltage':
      return formatQuantity(reading.reading_V, 'voltage', { reader, digits: 4 }).text;
    case 'needle':
      return formatQuantity(reading.shown_ratio, 'share', { reader }).text;
    case 'height':
      return formatQuantity(reading.height_m, 'tape', { reader, digits: 4 }).text;
    case 'none':
      return '';
  }
}

/** An unknown counts as found when it is so many of its standard deviations away from nothing. */
const FOUND_SIGMAS = 2;
/** The plan is off by more than readings scatter. */
const UNCLEAR_RATIO = 0.01;
/** What is smaller than this is not worth a sentence. */
const WORTH = { volume: 0.005, lowered: 0.001, arm: 0.01, emptyEnd: 0.01, fullEnd: 0.01, start: 2e-4 } as const;

/** What explains the difference, in a builder's words, most telling first. */
export function explanations(
  { explained, lines, channel, armLength_m = 0 }: CalibrationData,
  reader: Reader,
): string[] {
  if (!explained.ok) return [explained.error.detail];
  const { unknowns, stuckBelow_m3, stuckAbove_m3, farOff, miscounted, before_ratio, after_ratio } = explained.value;
  const tape = (value: number): string => formatQuantity(Math.abs(value), 'bore', { reader }).text;
  const litres = (value: number): string => formatQuantity(Math.abs(value), 'tankVolume', { reader }).text;
  const share = (value: number): string => `${Math.abs(value * 100).toFixed(1)} %`;
  const within = (sigma: string): string => ` (± ${sigma})`;
  const sentence = ({ key, value, sigma }: FoundUnknown): string => {
    const pm = 2 * sigma;
    switch (key) {
      case 'volume':
        return `the tank holds ${share(value)} ${value < 0 ? 'less' : 'more'} than drawn${within(share(pm))}`;
      case 'lowered':
        return channel === 'height'
          ? `the scale begins ${tape(value)} ${value > 0 ? 'lower' : 'higher'} than planned${within(tape(pm))}`
          : `the sender sits ${tape(value)} ${value > 0 ? 'lower' : 'higher'} than planned${within(tape(pm))}`;
      case 'arm':
        return `the arm is ${tape(value * armLength_m)} ${value > 0 ? 'longer' : 'shorter'} than planned${within(tape(pm * armLength_m))}`;
      case 'emptyEnd':
        return `at its low end the sender gives ${share(value)} of its range ${value > 0 ? 'more toward full' : 'beyond empty'} than it should${within(share(pm))}`;
      case 'fullEnd':
        return `at its high end the sender gives ${share(value)} of its range ${value > 0 ? 'beyond full' : 'short of full'}${within(share(pm))}`;
      case 'start':
        return `there ${value > 0 ? `were ${litres(value)} more` : `was ${litres(value)} less`} in it at the start than written${within(litres(pm))}`;
    }
  };
  const lineOf = (id: string): number => lines.findIndex((line) => line.id === id) + 1;
  const worth = unknowns
    .filter(({ key, value }) => Math.abs(value) > WORTH[key])
    .sort((a, b) => Math.abs(b.value) / b.sigma - Math.abs(a.value) / a.sigma);
  const found = worth.filter(({ value, sigma }) => Math.abs(value) > FOUND_SIGMAS * sigma);
  // Two unknowns that read alike leave each in doubt though together they explain it all.
  const unclear = found.length === 0 && before_ratio > UNCLEAR_RATIO && before_ratio > 2 * after_ratio;
  return [
    ...(stuckBelow_m3 === undefined ? [] : [`The float sticks below ${litres(stuckBelow_m3)}.`]),
    ...(stuckAbove_m3 === undefined ? [] : [`The float moves no more above ${litres(stuckAbove_m3)}.`]),
    ...found.map((one) => `${capital(sentence(one))}.`),
    ...(unclear
      ? [
          `It is off, and these pours alone do not tell why. The likeliest is that ${worth.slice(0, 2).map(sentence).join(', and that ')}. Measure the sender’s depth${armLength_m > 0 ? ' and its arm' : ''} again, or fill to the brim, to tell them apart.`,
        ]
      : []),
    ...(farOff.length === 0
      ? []
      : [
          `${farOff.length === 1 ? 'One reading lies' : `${farOff.length} readings lie`} far from all the others (line ${farOff.map(lineOf).join(', ')}): look at ${farOff.length === 1 ? 'it' : 'them'} again.`,
        ]),
    ...miscounted.map(
      ({ id, by_m3, sigma_m3 }) =>
        `From line ${lineOf(id)} on all readings are as if ${litres(by_m3)} ${by_m3 > 0 ? 'more' : 'less'} had gone in there than was written${within(litres(2 * sigma_m3))}: look at that line again.`,
    ),
    ...(found.length === 0 &&
    !unclear &&
    stuckBelow_m3 === undefined &&
    stuckAbove_m3 === undefined &&
    miscounted.length === 0
      ? ['Nothing stands out: the tank reads as planned, within what was measured.']
      : []),
    `As planned the readings are off by ${share(before_ratio)} of the range; with this put in, by ${share(after_ratio)}.`,
  ];
}
