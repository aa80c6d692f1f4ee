'use client';

import { Box, chakra } from '@chakra-ui/react';
import { TIP_FILLS, type TipFill, type TipRow, type TipWay } from '@/core/answers';
import { Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { useAnswer } from '../state/answers';
import { useSides } from '../state/sides';
import { useTank } from '../state/tankChoice';

const WAY_WORDS: Readonly<Record<TipWay, string>> = {
  fore: 'over its fore side',
  aft: 'over its aft side',
  port: 'over its port side',
  starboard: 'over its starboard side',
  least: 'over its weakest edge',
};
export const FILL_WORDS: Readonly<Record<TipFill, string>> = { full: 'full', half: 'half full', empty: 'empty' };
/** The worst first. */
export const FILLS = [...TIP_FILLS].reverse();

/** How far the tank leans, set down loose, before it goes over: what is carried and stood down falls on feet. */
export function TipsPanel() {
  const sides = useSides();
  const t = useTank();
  const { value, standing, reason } = useAnswer('tips', t);
  const first = value?.ok ? soonest(value.value.rows) : undefined;
  return (
    <Panel title="Set down loose" testId="tips">
      {!value || !value.ok ? (
        <Box color={reason !== undefined || value ? 'stop' : 'soft'} role={value ? 'alert' : undefined}>
          {value && !value.ok ? value.error.detail : (reason ?? 'Working out how far it leans before it goes over…')}
        </Box>
      ) : (
        <Box opacity={standing === 'fresh' ? 1 : 0.6}>
          {first && (
            <Box fontSize="lg">
              First at{' '}
              <b>
                <Quantity value={wholeDegrees(first.angle_rad)} role="slope" />
              </b>
              , {FILL_WORDS[first.fill]}, {sides(WAY_WORDS[first.way])}
            </Box>
          )}
          <Box overflowX="auto" mt="2">
            <chakra.table borderCollapse="collapse" aria-label="Lean at which it goes over">
              <thead>
                <tr>
                  <chakra.th px="2" textAlign="left" color="soft" fontWeight="600">
                    goes over
                  </chakra.th>
                  {FILLS.map((fill) => (
                    <chakra.th key={fill} px="3" textAlign="right" color="soft" fontWeight="600">
                      {FILL_WORDS[fill]}
                    </chakra.th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {value.value.rows.map(({ way, angles_rad }) => (
                  <chakra.tr key={way} borderTopWidth="1px" borderColor="rule">
                    <chakra.td px="2" py="1">
                      {sides(WAY_WORDS[way])}
                    </chakra.td>
                    {FILLS.map((fill) => (
                      <chakra.td key={fill} px="3" textAlign="right" whiteSpace="nowrap">
                        <Quantity value={wholeDegrees(angles_rad[fill])} role="slope" />
                      </chakra.td>
                    ))}
                  </chakra.tr>
                ))}
              </tbody>
            </chakra.table>
          </Box>
          <Box color="soft" mt="2" maxW="75ch">
            Slowly leant on its own floor, with nothing to hold it and its liquid running to the low side. A jolt, a
            fork that stops, or liquid that swings tips it sooner: strap it down before it is moved.
          </Box>
        </Box>
      )}
    </Panel>
  );
}

/** Whole degrees that it surely stands: no more is known of a floor that is welded. */
export const wholeDegrees = (angle_rad: number): number =>
  (Math.floor((180 * angle_rad) / Math.PI + 1e-6) * Math.PI) / 180;

function soonest(rows: readonly TipRow[]) {
  return rows
    .flatMap(({ way, angles_rad }) => FILLS.map((fill) => ({ way, fill, angle_rad: angles_rad[fill] })))
    .reduce((least, each) => (each.angle_rad < least.angle_rad - 1e-6 ? each : least));
}
