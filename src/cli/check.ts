import { hasNone, NUMBER_KEYS, numbersOf } from '@/core/answers';
import { judge } from '@/core/rules';
import { inReaderUnits, messageText } from '@/core/units';
import { failed, type Verb } from './verb';

export const check: Verb = {
  name: 'check',
  summary: 'the four numbers, the gauge error, all findings, and the rules that could not be judged',
  prints:
    'numbers: holds_m3, usable_m3, head_m (where gravity feeds), delivers_m3PerS, goes_s (of a nozzle: a fill) or goes_m, gaugeError_ratio, and where it feeds nobody and an engine throws out: comes_m3, backPressure_Pa; findings[]: id, severity, what, why, mend, source; notJudged[]: id, title, stage, lacks',
  needs: 'all',
  run: (system, evaluation) => {
    const numbers = numbersOf(system, evaluation);
    const { findings, notJudged } = judge(system, evaluation);
    const keys = {
      holds: 'holds_m3',
      comes: 'comes_m3',
      usable: 'usable_m3',
      head: 'head_m',
      delivers: 'delivers_m3PerS',
      goes: goesKey(evaluation),
      backPressure: 'backPressure_Pa',
      gauge: 'gaugeError_ratio',
    };
    return {
      system: system.name,
      numbers: Object.fromEntries(
        NUMBER_KEYS.flatMap((key) => {
          const number = numbers[key];
          if (!number.ok && hasNone(number.error)) return [];
          return [[keys[key], number.ok ? number.value.value : failed(number.error)]];
        }),
      ),
      findings: findings.map(({ what, path, ...finding }) => ({
        ...finding,
        what: messageText(what, 'metric'),
        why: inReaderUnits(finding.why, 'metric'),
        mend: inReaderUnits(finding.mend, 'metric'),
        values: what.values,
        ...(path ? { at: path.join('.') } : {}),
      })),
      notJudged,
    };
  },
};

const goesKey = ({ range }: Parameters<typeof numbersOf>[1]): string =>
  range.ok && range.value.range_m !== undefined ? 'goes_m' : 'goes_s';
