import { flowRole } from '@/core/plan';
import type { SystemDocument } from '@/core/plan';
import { COMFORT_RATIO, mainPickup, mainTank, type NumberKey } from '@/core/answers';
import { formatQuantity, type ReaderSystem, type Role } from '@/core/units';
import type { Results } from '@/core/answers';

export type Tone = 'plain' | 'good' | 'warn' | 'stop';
type Good = Extract<Results, { ok: true }>;

/** The line under a number: what it is to be compared with. */
export function contextOf(
  key: NumberKey,
  system: SystemDocument,
  { evaluation }: Good,
  reader: ReaderSystem,
): { text: string; tone: Tone } {
  const show = (value: number, role: Role): string => formatQuantity(value, role, { reader }).text;
  const plain = (text: string): { text: string; tone: Tone } => ({ text, tone: 'plain' });
  switch (key) {
    case 'holds': {
      const main = mainTank(system, evaluation);
      return plain(
        `${evaluation.tanks.length > 1 ? `${main.name}, ` : ''}to the fill limit; ${show(main.gross_m3, 'tankVolume')} to the brim`,
      );
    }
    case 'usable': {
      const main = mainPickup(system, evaluation);
      return plain(
        main
          ? `on the worst slope: ${show(main.pickup.worst.pitch_rad, 'slope')} pitch, ${show(main.pickup.worst.roll_rad, 'slope')} roll`
          : '',
      );
    }
    case 'delivers': {
      const flow = evaluation.flows[0];
      if (!flow?.ok) return plain('');
      const { margin_ratio: margin, needed_m3PerS: needed } = flow.value;
      const tone: Tone = margin < 1 ? 'stop' : margin < COMFORT_RATIO ? 'warn' : 'good';
      return {
        text: `${margin >= 10 ? margin.toFixed(0) : margin.toFixed(1)} × the ${show(needed, flowRole(needed))} needed, at ${show(flow.value.neededPressure_Pa, 'pressure')}`,
        tone,
      };
    }
    case 'goes': {
      const { range } = evaluation;
      if (!range.ok) return plain('');
      const reserve = show(system.wishes.reserve_ratio.value, 'share');
      const burn = show(range.value.burn_m3PerS, 'burn');
      return plain(
        range.value.range_m === undefined
          ? `at ${burn}, ${reserve} kept in reserve`
          : `${show(range.value.endurance_s, 'duration')} at ${burn}, ${reserve} in reserve`,
      );
    }
    case 'gauge': {
      const gauge = evaluation.gauges[0];
      if (!gauge?.ok) return plain('');
      const { at, error_ratio } = gauge.value.curve.worst;
      return {
        text: `with ${show(at.volume_m3, 'tankVolume')} in the tank`,
        tone: Math.abs(error_ratio) > 0.1 ? 'warn' : 'plain',
      };
    }
  }
}
