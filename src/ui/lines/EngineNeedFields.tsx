'use client';

import { Box } from '@chakra-ui/react';
import { Calculator } from 'lucide-react';
import { assumed, chosen, limitsAt, withValue } from '@/core/plan';
import { engineNeed } from '@/core/answers';
import { KnownField } from '../fields/KnownField';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { FieldGrid } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { applyEdit, openDocument, setValue, useSystem } from '../state/editor';
import { useDetails } from '../state/results';

const TYPICAL_KG_PER_J = { 'diesel-engine': 240e-3 / 3.6e6, other: 300e-3 / 3.6e6 };
const WATTS_PER_M3S = 3.5e10;

/** The need of an engine from its power, and what its injectors pass. */
export function EngineNeedFields({ index }: { readonly index: number }) {
  const consumer = useSystem().consumers[index]!;
  const { results } = useDetails();
  const path = ['consumers', index, 'engine'];
  if (consumer.kind === 'nozzle' || consumer.kind === 'heater') return null;
  if (!consumer.engine) {
    const start = {
      power_W: assumed(
        Math.round(Math.max(1000, Math.min(5e6, consumer.burnFull_m3PerS.value * WATTS_PER_M3S * 0.3)) / 1000) * 1000,
        5000,
      ),
      specific_kgPerJ: assumed(TYPICAL_KG_PER_J[consumer.kind === 'diesel-engine' ? 'diesel-engine' : 'other'], 2e-9),
      injectors: 0,
      injectorFlow_m3PerS: chosen(5e-6),
      injectorDuty_ratio: chosen(0.85),
    };
    return (
      <Box mt="3">
        <Button onClick={() => setValue('need from power', path, start)}>
          <Calculator size={18} aria-hidden />
          Work out its need from power
        </Button>
      </Box>
    );
  }
  const flow = results?.ok ? results.evaluation.flows[index] : undefined;
  const need = results?.ok
    ? engineNeed(consumer, (flow?.ok ? flow.value.fluid : results.evaluation.fluid).density_kgPerM3)
    : undefined;
  const injected = consumer.engine.injectors > 0;
  const enterCount = (text: string) => {
    const { min, max } = limitsAt(openDocument(), [...path, 'injectors']);
    const count = Number(text);
    if (!Number.isInteger(count) || count < min || count > max)
      return {
        ok: false as const,
        message: `Enter a whole number from ${min} to ${max}; 0 for a carburettor or a mechanical pump.`,
      };
    setValue('injectors', [...path, 'injectors'], count);
    return { ok: true as const };
  };
  return (
    <Box mt="4" data-testid="engine-need">
      <Box fontWeight="700" mb="2">
        Need from power
      </Box>
      {need && (
        <Box mb="3">
          Burns{' '}
          <b>
            <Quantity value={need.burn_m3PerS} role="burn" />
          </b>{' '}
          at full load
          {need.injectors_m3PerS !== undefined && (
            <>
              ; its injectors pass{' '}
              <Box as="b" color={need.injectorsEnough ? undefined : 'stop'}>
                <Quantity value={need.injectors_m3PerS} role="burn" />
              </Box>
              , enough for <Quantity value={need.power_W!} role="power" />, and are open{' '}
              <Quantity value={need.duty_ratio!} role="share" /> of the time
            </>
          )}
          .{' '}
          <Button
            onClick={() =>
              applyEdit('need from power', (system) =>
                withValue(
                  withValue(system, ['consumers', index, 'burnFull_m3PerS'], {
                    value: need.burn_m3PerS,
                    origin: 'chosen',
                  }),
                  ['consumers', index, 'neededFlow_m3PerS', 'value'],
                  Math.max(consumer.neededFlow_m3PerS.value, need.burn_m3PerS),
                ),
              )
            }
          >
            Use it
          </Button>
        </Box>
      )}
      <FieldGrid>
        <KnownField path={[...path, 'power_W']} />
        <KnownField
          path={[...path, 'specific_kgPerJ']}
          hint="Diesel about 240 g/kWh, petrol 300, race petrol 350: common practice."
        />
        <TextEntry label="Injectors" value={String(consumer.engine.injectors)} unit="×" onEnter={enterCount} />
        {injected && <KnownField label="Flow of one, open all the time" path={[...path, 'injectorFlow_m3PerS']} />}
        {injected && <KnownField label="Open at most" path={[...path, 'injectorDuty_ratio']} />}
      </FieldGrid>
    </Box>
  );
}
