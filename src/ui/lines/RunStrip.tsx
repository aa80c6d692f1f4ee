'use client';

import { Box, chakra } from '@chakra-ui/react';
import { flowRole } from '@/core/evaluate';
import { Panel } from '../parts/Panel';
import { Shown } from '../parts/Shown';
import { partName } from '../parts/words';
import { useSystem } from '../state/editor';
import { useDetails } from '../state/results';
import { usePlace } from '../workspace/goTo';

/** The run as a row of parts with the pressure after each and the speed in each line, at the needed flow. */
export function RunStrip({ path }: { readonly path: readonly string[] }) {
  const system = useSystem();
  const goTo = usePlace((place) => place.goTo);
  const { results } = useDetails();
  const flow = results?.ok ? results.evaluation.flows[0] : undefined;
  const pressureAfter = (id: string): number | undefined => {
    if (!flow?.ok) return undefined;
    return (flow.value.nodes.find((node) => node.id === `${id}:out`) ?? flow.value.nodes.find((node) => node.id === id))?.gauge_Pa;
  };
  return (
    <Panel title="The run, at the needed flow" aside={flow?.ok ? <Box color="soft"><Shown value={flow.value.needed_m3PerS} role={flowRole(flow.value.needed_m3PerS)} /></Box> : undefined} testId="run">
      {flow && !flow.ok && <Box color="stop" fontWeight="600" mb="2">{flow.error.detail}</Box>}
      <Box display="flex" flexWrap="wrap" alignItems="stretch" rowGap="2">
        {path.map((id) => {
          const l = system.lines.findIndex((line) => line.id === id);
          const link = flow?.ok ? flow.value.links.find((candidate) => candidate.id === id) : undefined;
          const pressure = pressureAfter(id);
          const c = system.components.findIndex((part) => part.id === id);
          const place = l >= 0 ? ['lines', l] : c >= 0 ? ['components', c] : ['consumers', 0];
          return l >= 0 ? (
            <chakra.button key={id} type="button" onClick={() => goTo('lines', place)} minW="70px" flex="1 1 70px" px="1" cursor="pointer" display="grid" alignContent="center" textAlign="center" fontSize="sm">
              <Box color="soft" lineHeight="1.15">{link?.regime ?? ''}</Box>
              <Box borderTopWidth="4px" borderColor={link ? 'accent' : 'rule'} borderStyle={link?.regime === 'turbulent' ? 'solid' : 'dashed'} my="1" />
              <Box lineHeight="1.15">{link?.velocity_mPerS !== undefined && <Shown value={link.velocity_mPerS} role="lineSpeed" />}</Box>
            </chakra.button>
          ) : (
            <chakra.button key={id} type="button" onClick={() => goTo('lines', place)} borderWidth="1.5px" borderColor="edge" borderRadius="md" px="2" py="2" minH="60px" cursor="pointer" textAlign="left" _hover={{ bg: 'sunk' }} maxW="128px">
              <Box fontWeight="650" lineHeight="1.2">{partName(system, id)}</Box>
              <Box fontSize="sm" color="soft">{pressure !== undefined && <Shown value={pressure} role="pressure" />}</Box>
            </chakra.button>
          );
        })}
      </Box>
      <Box fontSize="sm" color="soft" mt="2">Pressure behind each part against the air outside; a minus means suction. Dashed lines run laminar or between, solid ones turbulent.</Box>
    </Panel>
  );
}
