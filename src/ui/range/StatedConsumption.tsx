'use client';

import { Box } from '@chakra-ui/react';
import { DRIVING } from '@/core/plan';
import { burnOf, dutyOfBurn_ratio, readConsumption, wayText } from '@/core/range';
import { formatQuantity } from '@/core/units';
import { TextEntry, type EntryVerdict } from '../fields/TextEntry';
import { setValue, useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { useDetails } from '../state/results';

/**
 * Consumption as it is known, by the hour, by distance or as mpg: it sets the share of full load that the vehicle goes
 * at, which the range and the flow follow from.
 */
export function StatedConsumption() {
  const system = useSystem();
  const reader = useReader();
  const { results } = useDetails();
  const range = results?.ok && results.evaluation.range.ok ? results.evaluation.range.value : undefined;
  const [consumer] = system.consumers;
  if (!consumer || !range) return null;
  // What does not move the vehicle burns by the hour.
  const speed = DRIVING.has(consumer.kind) ? system.vehicle.speed_mPerS?.value : undefined;
  const isAfloat = system.vehicle.kind === 'boat';
  const show = (flow: number): string => formatQuantity(flow, 'burn', { reader }).text;
  const enter = (text: string): EntryVerdict => {
    const stated = readConsumption(text, reader);
    if (!stated.ok) return { ok: false, message: stated.error.detail };
    const burn = burnOf(stated.value, speed);
    if (burn === undefined)
      return {
        ok: false,
        message: DRIVING.has(consumer.kind)
          ? 'By distance it needs a speed: add one first.'
          : `${consumer.name} does not move the vehicle: say it by the hour.`,
      };
    const [idle, full] = [consumer.burnIdle_m3PerS.value, consumer.burnFull_m3PerS.value];
    const duty = dutyOfBurn_ratio(burn, idle, full);
    if (duty === undefined)
      return {
        ok: false,
        message: `That is ${show(burn)}; ${consumer.name} burns ${show(idle)} at idle and ${show(full)} at full load. Correct those first.`,
      };
    setValue('consumption', ['conditions', 'duty_ratio'], Number(duty.toPrecision(6)));
    return { ok: true, note: `${show(burn)}, ${Math.round(duty * 100)} % of full load` };
  };
  const byWay = speed !== undefined && speed > 0 ? wayText(range.burn_m3PerS / speed, reader, isAfloat) : undefined;
  return (
    <Box maxW="420px">
      <TextEntry
        label="Consumption as you know it"
        value={byWay ?? show(range.burn_m3PerS)}
        onEnter={enter}
        hint="By the hour, L/100 km, km/L, mpg or nmi/L; it sets how hard it works."
        testId="said-consumption"
      />
    </Box>
  );
}
