'use client';

import { Box } from '@chakra-ui/react';
import { shockKindOf, shocksFrom } from '@/core/answers';
import { FACTORS, FACTOR_SCHOOLS, SHOCK_KINDS, SHOCKS, type ShockKind } from '@/core/reference/shocks';
import { chosen } from '@/core/plan';
import { formatQuantity, STANDARD_GRAVITY_M_PER_S2 } from '@/core/units';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { Button } from '../parts/Button';
import { FieldGrid, Panel } from '../parts/Panel';
import { setValue, useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { useTank } from '../state/tankChoice';

const SIDES = ['fore_mPerS2', 'aft_mPerS2', 'side_mPerS2', 'up_mPerS2', 'down_mPerS2'] as const;

/** A sender, a pump and their plate, to begin with. */
const FITTED = chosen(2);

/** How hard the vehicle throws the tank, by its kind or as it is set, and how much more is wanted. */
export function ShocksPanel() {
  const system = useSystem();
  const reader = useReader();
  const sides = useSides();
  const t = useTank();
  const tank = system.tanks[t]!;
  const fitted = `what hangs on ${tank.name} weighs`;
  const { shocks } = system;
  const kind = shockKindOf(system);
  const row = SHOCKS[kind];
  const school = shocks?.school ?? 'builder';
  const g = (value: number): string =>
    formatQuantity(value * STANDARD_GRAVITY_M_PER_S2, 'acceleration', { reader }).text;
  const take = (from: ShockKind): void =>
    setValue(`shocks of a ${SHOCKS[from].name}`, ['shocks'], shocksFrom(from, school));
  return (
    <Panel title="How hard it is thrown" testId="shocks">
      <FieldGrid min="230px">
        <Select
          label="As in a"
          value={shocks ? 'own' : kind}
          options={[
            ...(shocks ? [{ value: 'own' as const, label: 'as set here' }] : []),
            ...SHOCK_KINDS.map((value) => ({ value, label: SHOCKS[value].name })),
          ]}
          onChange={(value) => value !== 'own' && take(value)}
        />
        {shocks && SIDES.map((key) => <KnownField key={key} path={['shocks', key]} />)}
        {shocks && (
          <Select
            label="Wanted of the weakest part"
            value={school}
            options={FACTOR_SCHOOLS.map((value) => ({ value, label: FACTORS[value].name }))}
            onChange={(value) => setValue('how much more it is to bear', ['shocks', 'school'], value)}
          />
        )}
      </FieldGrid>
      {!shocks && (
        <Box mt="2">
          {sides(
            `Taken for this vehicle: ${g(row.fore_g)} forward, ${g(row.aft_g)} aft, ${g(row.side_g)} to either side, ${g(row.up_g)} up beyond its weight, ${g(row.down_g)} down; ${FACTORS[school].factor} times wanted.`,
          )}{' '}
          <Button onClick={() => take(kind)}>Set them here</Button>
        </Box>
      )}
      <Box mt="3">
        {tank.fitted_kg ? (
          <FieldGrid min="230px">
            <KnownField label={`Fittings and what hangs on ${tank.name} weigh`} path={['tanks', t, 'fitted_kg']} />
            <Box alignSelf="end">
              <Button onClick={() => setValue(fitted, ['tanks', t, 'fitted_kg'], undefined)}>Not counted</Button>
            </Box>
          </FieldGrid>
        ) : (
          <Button onClick={() => setValue(fitted, ['tanks', t, 'fitted_kg'], FITTED)}>
            Count its fittings and what hangs on it
          </Button>
        )}
      </Box>
      <Box color="soft" mt="2" maxW="75ch">
        {row.note} {FACTORS[school].because} Source: {row.source} ({row.status}).
      </Box>
    </Panel>
  );
}
