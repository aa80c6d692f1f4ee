import { NUMBER_KEYS, numbersOf } from '@/core/evaluate';
import { findingsOf } from '@/core/rules';
import { messageText } from '@/core/units';
import { failed, type Verb } from './verb';

export const check: Verb = {
  name: 'check',
  summary: 'the four numbers, the gauge error and all findings',
  fit: true,
  prints: 'numbers: holds_m3, usable_m3, delivers_m3PerS, goes_s or goes_m, gaugeError_ratio; findings[]: id, severity, what, why, mend, source',
  run: (system, evaluation) => {
    const numbers = numbersOf(system, evaluation);
    const keys = { holds: 'holds_m3', usable: 'usable_m3', delivers: 'delivers_m3PerS', goes: goesKey(evaluation), gauge: 'gaugeError_ratio' };
    return {
      system: system.name,
      numbers: Object.fromEntries(NUMBER_KEYS.map((key) => {
        const number = numbers[key];
        return [keys[key], number.ok ? number.value.value : failed(number.error)];
      })),
      findings: findingsOf(system, evaluation).map(({ what, path, ...finding }) => ({
        ...finding, what: messageText(what, 'metric'), values: what.values, ...(path ? { at: path.join('.') } : {}),
      })),
    };
  },
};

const goesKey = ({ range }: Parameters<typeof numbersOf>[1]): string => (range.ok && range.value.range_m !== undefined ? 'goes_m' : 'goes_s');
