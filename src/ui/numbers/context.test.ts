import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { chosen, parseSystemText, toPath, withValue, type SystemDocument } from '@/core/plan';
import { askedNumbers, evaluateSystem, numbersOf } from '@/core/answers';
import { unwrap } from '@/core/outcome';
import { judge } from '@/core/rules';
import { contextOf } from './context';

const parsed = parseSystemText(readFileSync('demo/crab-boat.json', 'utf8'));
if (!parsed.ok) throw new Error(parsed.error.detail);
const BOAT = parsed.value;

function resultsOf(system: SystemDocument) {
  const evaluation = unwrap(evaluateSystem(system));
  return { ok: true as const, evaluation, numbers: numbersOf(system, evaluation), judged: judge(system, evaluation) };
}
const toneOf = (path: string, value: unknown): string => {
  const system = withValue(BOAT, toPath(path), value);
  return contextOf('delivers', system, resultsOf(system), 'metric').tone;
};

describe('the line under each number', () => {
  it.each(['metric', 'us', 'imperial'] as const)(
    'speaks in the units of a %s reader, with nothing left open',
    (reader) => {
      for (const key of askedNumbers(BOAT)) {
        const { text } = contextOf(key, BOAT, resultsOf(BOAT), reader);
        expect(text).toMatch(/\d/);
        expect(text).not.toMatch(/NaN|undefined|[{}]/);
      }
      expect(contextOf('holds', BOAT, resultsOf(BOAT), reader).text).toContain(
        { metric: ' L', us: 'US gal', imperial: 'imp gal' }[reader],
      );
    },
  );

  it('compares delivery with need: good, thin, too little', () => {
    expect(toneOf('lines[2].bore_m', chosen(0.008))).toBe('good');
    expect(toneOf('consumers[0].neededFlow_m3PerS', chosen(1.7e-5))).toBe('warn');
    expect(toneOf('consumers[0].neededFlow_m3PerS', chosen(4e-5))).toBe('stop');
  });

  it('warns of a gauge that is a tenth out', () => {
    const system = withValue(BOAT, toPath('tanks[0].senders[0].pivotDepth_m'), chosen(0.08));
    expect(contextOf('gauge', system, resultsOf(system), 'metric').tone).toBe('warn');
  });

  it('is empty, not wrong, where its number has no value', () => {
    const system = withValue(BOAT, toPath('lines'), []);
    expect(contextOf('delivers', system, resultsOf(system), 'metric').text).toBe('');
  });
});
