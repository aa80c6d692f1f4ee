'use client';

import { Box } from '@chakra-ui/react';
import type { DesignedSender } from '@/core/answers';
import { BEND_AT_M } from '@/core/gauge';
import { SENDER_MAKE } from '@/core/reference/senders';
import { formatQuantity } from '@/core/units';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { SWING_WORDS } from '../parts/words';
import { useAsked } from '../state/answers';
import { applyEdit } from '../state/editor';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { withDesign, withRefit } from './gaugeEdits';

/** Pivot and arm for this depth and port; and what to cut or bend of a sender from another tank. */
export function DesignPanel({ t, s }: { readonly t: number; readonly s: number }) {
  const sides = useSides();
  const reader = useReader();
  const design = useAsked('design');
  const refit = useAsked('refit');
  const best = refit.answer?.ok ? refit.answer.value.best : undefined;
  const asItIs = refit.answer?.ok ? refit.answer.value.asItIs : undefined;
  return (
    <Panel title="Design it for me" testId="design">
      <Box color="soft" mb="3">
        For this port and depth, with the float, stops and range that it has: pivot and arm in steps of{' '}
        <Quantity value={SENDER_MAKE.armStep} role="tape" /> that follow most of the volume, and stay{' '}
        <Quantity value={SENDER_MAKE.keep} role="tape" /> clear of walls, baffles, pumps and pickups.
      </Box>
      <Box display="flex" gap="2" flexWrap="wrap">
        <Button kind="main" disabled={design.running} onClick={() => void design.ask(t, s, 'any')} testId="ask-design">
          {design.running ? 'Trying…' : 'Find pivot and arm'}
        </Button>
        <Button disabled={design.running} onClick={() => void design.ask(t, s, 'as-set')}>
          Reaching as it does now
        </Button>
        <Button disabled={refit.running} onClick={() => void refit.ask(t, s)} testId="ask-refit">
          {refit.running ? 'Trying…' : 'It comes from another tank: cut or bend it'}
        </Button>
      </Box>
      {design.answer && !design.answer.ok && (
        <Box mt="3" color="stop" fontWeight="600">
          {design.answer.error.detail}
        </Box>
      )}
      {design.answer?.ok && (
        <Box mt="3" opacity={design.fresh ? 1 : 0.6} data-testid="designed">
          <Box fontSize="2xl" fontWeight="800">
            Pivot <Quantity value={design.answer.value.pivotDepth_m} role="tape" /> down, arm{' '}
            <Quantity value={design.answer.value.armLength_m} role="tape" />,{' '}
            {sides(SWING_WORDS[design.answer.value.swing])}
          </Box>
          <Quality design={design.answer.value} />
          <Box mt="2">
            <Button
              disabled={!design.fresh}
              onClick={() =>
                applyEdit('sender as designed', (system) =>
                  withDesign(system, t, s, (design.answer as { value: DesignedSender }).value),
                )
              }
            >
              Use it
            </Button>
          </Box>
        </Box>
      )}
      {refit.answer && !refit.answer.ok && (
        <Box mt="3" color="stop" fontWeight="600">
          {refit.answer.error.detail}
        </Box>
      )}
      {refit.answer?.ok && (
        <Box mt="3" opacity={refit.fresh ? 1 : 0.6} data-testid="refitted">
          {asItIs ? (
            <Box>
              As it is: <Quality design={asItIs} />
            </Box>
          ) : (
            <Box>As it is, it does not swing free.</Box>
          )}
          {!best && (
            <Box color="stop" fontWeight="600">
              No cut or bend makes it swing free from this port.
            </Box>
          )}
          {best && (
            <>
              <Box mt="2" fontSize="2xl" fontWeight="800">
                Cut the wire to <Quantity value={best.wire_m} role="tape" />
                {best.bend_deg === 0
                  ? ', no bend'
                  : `, bend it ${Math.abs(best.bend_deg)}° ${best.bend_deg > 0 ? 'up' : 'down'} ${formatQuantity(BEND_AT_M, 'tape', { reader }).text} from the pivot`}
                , {sides(SWING_WORDS[best.swing])}
              </Box>
              <Quality design={best} />
              <Box mt="2">
                <Button
                  disabled={!refit.fresh}
                  onClick={() => applyEdit('sender cut and bent', (system) => withRefit(system, t, s, best))}
                >
                  Use it
                </Button>
              </Box>
            </>
          )}
        </Box>
      )}
    </Panel>
  );
}

const Quality = ({ design }: { readonly design: DesignedSender }) => (
  <Box>
    follows{' '}
    <b>
      <Quantity value={design.covers_ratio} role="share" />
    </b>{' '}
    of the volume; not seen: lowest{' '}
    <b>
      <Quantity value={design.unseenLow_m3} role="tankVolume" />
    </b>
    , highest{' '}
    <b>
      <Quantity value={design.unseenHigh_m3} role="tankVolume" />
    </b>
    ; needle off by{' '}
    <b>
      <Quantity value={Math.abs(design.worst_ratio)} role="share" />
    </b>{' '}
    at worst
  </Box>
);
