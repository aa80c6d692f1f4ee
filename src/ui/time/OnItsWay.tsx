'use client';

import { Box } from '@chakra-ui/react';
import type { PlayNews } from '@/core/answers';
import type { SystemDocument } from '@/core/plan';
import { clockText, formatQuantity } from '@/core/units';
import { NotWorkedOut } from '../parts/NotWorkedOut';
import { Panel } from '../parts/Panel';
import { useReader } from '../state/reader';
import { Levels } from './Levels';
import { overWords } from './timeWords';
import { useMoment } from './useMoment';

/** What is soon there is not drawn before [s]. */
const SOON_S = 0.6;

/** How far a course has come while it is still worked out: the tanks as they stand there. */
export function OnItsWay({ news, of }: { readonly news: PlayNews; readonly of: SystemDocument }) {
  return (news.seconds ?? 0) < SOON_S ? null : <Drawn news={news} of={of} />;
}

function Drawn({ news: { progress }, of }: { readonly news: PlayNews; readonly of: SystemDocument }) {
  const reader = useReader();
  const { sample } = progress;
  const { pitch_deg, roll_deg, tanks } = sample;
  const volumes_m3 = tanks.map(({ volume_m3 }) => Math.max(0, volume_m3));
  const { value, fresh } = useMoment(of, { pitch_deg, roll_deg, volumes_m3 }, -1);
  return (
    <Panel title={`Played to ${clockText(sample.t_s)}`} testId="on-its-way">
      <Box display="grid" gridTemplateColumns="repeat(auto-fit, minmax(150px, 1fr))" gap="3" mb="2">
        {of.tanks.map(({ id, name }, t) => (
          <Box key={id} borderLeftWidth="4px" borderColor="rule" pl="2">
            <Box fontSize="sm" color="soft">
              {name}
            </Box>
            <Box fontSize="xl" fontWeight="800" lineHeight="1.2">
              {formatQuantity(volumes_m3[t]!, 'tankVolume', { reader }).text}
            </Box>
            <Box fontSize="sm">{overWords(tanks[t]!.gauge_Pa, reader)}</Box>
          </Box>
        ))}
      </Box>
      {value?.ok === false ? (
        <NotWorkedOut why={value.error.detail} />
      ) : (
        <Levels
          of={of}
          samples={[sample]}
          now={sample}
          drawings={value?.value.tanks.map(({ drawing }) => drawing)}
          fresh={fresh}
        />
      )}
    </Panel>
  );
}
