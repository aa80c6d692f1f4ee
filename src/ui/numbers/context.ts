import { flowRole } from '@/core/plan';
import type { SystemDocument } from '@/core/plan';
import { COMFORT_RATIO, isTransfer, suppliesOf, usableIn_m3, type NumberKey } from '@/core/answers';
import { byHand, wayText } from '@/core/range';
import { formatQuantity, type Reader, type Role } from '@/core/units';
import type { Results } from '@/core/answers';

export type Tone = 'plain' | 'good' | 'warn' | 'stop';
type Good = Extract<Results, { ok: true }>;

/** The line under a number: what it is to be compared with. */
export function contextOf(
  key: NumberKey,
  system: SystemDocument,
  { evaluation }: Good,
  reader: Reader,
): { text: string; tone: Tone } {
  const show = (value: number, role: Role): string => formatQuantity(value, role, { reader }).text;
  const plain = (text: string): { text: string; tone: Tone } => ({ text, tone: 'plain' });
  switch (key) {
    case 'holds': {
      const supplies = suppliesOf(system, evaluation);
      const each =
        supplies.length > 1
          ? `${supplies.map(({ tank }) => `${tank.name} ${show(tank.holds_m3, 'tankVolume')}`).join(' + ')}, `
          : evaluation.tanks.length > 1
            ? `${supplies[0]!.tank.name}, `
            : '';
      const gross = supplies.reduce((sum, { tank }) => sum + tank.gross_m3, 0);
      // Of what is to be held for nobody, how much may come.
      const wish = system.consumers.length === 0 ? system.wishes.holds_m3 : undefined;
      const asked = wish ? `; ${show(wish.value, 'tankVolume')} asked for` : '';
      return plain(`${each}to the fill limit; ${show(gross, 'tankVolume')} to the brim${asked}`);
    }
    case 'comes': {
      const each = evaluation.expelled[0];
      if (!each?.comes.ok || !each.tank || each.room_m3 === undefined) return plain('');
      return {
        text: `room for ${show(each.room_m3, 'tankVolume')} over what stands in ${each.tank.name}`,
        tone: each.room_m3 < each.comes.value ? 'warn' : 'good',
      };
    }
    case 'backPressure': {
      const each = evaluation.expelled.find(({ pressure }) => pressure);
      const part = system.components.find(({ id }) => id === each?.source);
      if (!each?.pressure?.ok || part?.kind !== 'crankcase') return plain('');
      return {
        text: `at ${show(part.blowBy_m3PerS.value, 'transfer')} of blow-by; ${show(part.mostPressure_Pa.value, 'pressure')} allowed`,
        tone: each.pressure.value > part.mostPressure_Pa.value ? 'warn' : 'good',
      };
    }
    case 'usable': {
      const supplies = suppliesOf(system, evaluation);
      const worst = supplies[0]?.pickup?.worst;
      if (!worst) return plain('');
      return plain(
        supplies.length > 1
          ? `${supplies.map((supply) => `${supply.tank.name} ${supply.pickup ? show(usableIn_m3(supply), 'tankVolume') : 'not known, for want of a pickup'}`).join(' + ')}, each on its worst slope`
          : `on the worst slope: ${show(worst.pitch_rad, 'slope')} pitch, ${show(worst.roll_rad, 'slope')} roll`,
      );
    }
    case 'head': {
      const flow = evaluation.flows[0];
      if (!flow?.ok || !flow.value.head) return plain('');
      const { last_m, needed_m } = flow.value.head;
      return {
        text: `from the surface down to ${system.consumers[0]!.name}; ${show(last_m, 'run')} at the last drop, ${show(needed_m, 'run')} needed`,
        tone: last_m < needed_m ? 'warn' : 'good',
      };
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
      if (isTransfer(system)) return fillsText(system, evaluation, show);
      const { range } = evaluation;
      if (!range.ok) return plain('');
      const reserve = show(system.wishes.reserve_ratio.value, 'share');
      const { speed_mPerS } = system.vehicle;
      const way =
        range.value.range_m === undefined || !speed_mPerS
          ? ''
          : ` (${wayText(range.value.burn_m3PerS / speed_mPerS.value, reader, system.vehicle.kind === 'boat')})`;
      const burn = `${show(range.value.burn_m3PerS, 'burn')}${way}`;
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

/** How many fills are in a load, and what one would take in cans: a pump that is slower than those is told so. */
function fillsText(
  { wishes }: SystemDocument,
  { usable, flows: [flow] }: Good['evaluation'],
  show: (value: number, role: Role) => string,
): { text: string; tone: Tone } {
  if (!wishes.moves_m3) return { text: '', tone: 'plain' };
  const fill = wishes.moves_m3.value;
  const fills = usable.ok ? usable.value / fill : undefined;
  const { cans, time_s } = byHand(fill);
  const isSlower = flow?.ok === true && fill > time_s * flow.value.delivered_m3PerS;
  return {
    text: [
      `${show(fill, 'tankVolume')} a fill`,
      fills === undefined ? [] : `${fills >= 10 ? Math.floor(fills) : fills.toFixed(1)} fills in a load`,
      `${cans} cans by hand take ${isSlower ? 'only ' : ''}${show(time_s, 'duration')}`,
    ]
      .flat()
      .join('; '),
    tone: isSlower ? 'warn' : 'plain',
  };
}
