'use client';

import { Box } from '@chakra-ui/react';
import { Zap } from 'lucide-react';
import { assumed, chosen, type ComponentDocument } from '@/core/plan';
import { FUSES, WIRES } from '@/core/reference/wires';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { Button } from '../parts/Button';
import { FieldGrid } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { setValue } from '../state/editor';
import { useFlows } from '../state/useLines';

type PumpPart = Extract<ComponentDocument, { kind: 'pump' }>;
const NO_FUSE = 'none';

/** A pump's wires, fuse and battery, and what they do to it. */
export function WiringPanel({ index, part }: { readonly index: number; readonly part: PumpPart }) {
  const path = ['components', index, 'wiring'];
  const electrics = useFlows()
    .flatMap(({ pumps }) => pumps)
    .find(({ id }) => id === part.id)?.electrics;
  const { wiring } = part;
  if (!wiring) {
    return (
      <Box mt="4">
        <Button
          onClick={() =>
            setValue('wires of the pump', path, {
              freeCurrent_A: assumed(3, 1),
              shutOffCurrent_A: assumed(6, 2),
              wire: 'mm2-2-5',
              length_m: assumed(4, 1),
              fuse_A: 10,
              relay: true,
              battery_Ah: chosen(70),
            })
          }
        >
          <Zap size={18} aria-hidden />
          Work out its wires
        </Button>
      </Box>
    );
  }
  return (
    <Box mt="4" data-testid="wiring">
      <Box fontWeight="700" mb="2">
        Wires, fuse and battery
      </Box>
      {electrics && (
        <Box display="grid" gridTemplateColumns="repeat(auto-fit, minmax(150px, 1fr))" gap="3" mb="3">
          <Box>
            <Box color="soft" fontSize="sm">
              at the pump
            </Box>
            <Box fontSize="2xl" fontWeight="700" color={electrics.drop_ratio > 0.1 ? 'stop' : undefined}>
              <Quantity value={electrics.pump_V} role="voltage" />
            </Box>
            <Box fontSize="sm" color="soft">
              of <Quantity value={electrics.supply_V} role="voltage" />,{' '}
              <Quantity value={electrics.drop_ratio} role="share" /> lost
            </Box>
          </Box>
          <Box>
            <Box color="soft" fontSize="sm">
              it draws
            </Box>
            <Box fontSize="2xl" fontWeight="700">
              <Quantity value={electrics.current_A} role="current" />
            </Box>
            <Box fontSize="sm" color="soft">
              the wire bears <Quantity value={electrics.wireMost_A} role="current" digits={2} />
            </Box>
          </Box>
          <Box>
            <Box color="soft" fontSize="sm">
              on half the battery
            </Box>
            <Box fontSize="2xl" fontWeight="700">
              <Quantity value={electrics.onCharge_m3} role="tankVolume" digits={2} />
            </Box>
            <Box fontSize="sm" color="soft">
              moved with the engine off
            </Box>
          </Box>
          <Box>
            <Box color="soft" fontSize="sm">
              fuse
            </Box>
            <Box fontSize="2xl" fontWeight="700">
              {electrics.fuse ? `${electrics.fuse.least_A} A` : 'none fits'}
            </Box>
            <Box fontSize="sm" color="soft">
              {electrics.fuse ? `to ${electrics.fuse.most_A} A guards the wire` : 'the wire is too thin for the pump'}
            </Box>
          </Box>
        </Box>
      )}
      {electrics && electrics.wires.length > 0 && (
        <Box mb="3">
          Thinnest that lose no more than a tenth: <b>{electrics.wires.map(({ name }) => name).join(' or ')}</b>.
        </Box>
      )}
      <FieldGrid>
        <Select
          label="Wire"
          value={wiring.wire}
          options={WIRES.map(({ key, name }) => ({ value: key, label: name }))}
          onChange={(wire) => setValue('wire', [...path, 'wire'], wire)}
        />
        <KnownField label="From battery to pump, one way" path={[...path, 'length_m']} />
        <KnownField label="Current, moving freely" path={[...path, 'freeCurrent_A']} />
        <KnownField path={[...path, 'shutOffCurrent_A']} />
        <Select
          label="Fuse"
          value={wiring.fuse_A === undefined ? NO_FUSE : String(wiring.fuse_A)}
          options={[
            { value: NO_FUSE, label: 'none' },
            ...FUSES.sizes_A.map((size) => ({ value: String(size), label: `${size} A` })),
          ]}
          onChange={(fuse) => setValue('fuse', [...path, 'fuse_A'], fuse === NO_FUSE ? undefined : Number(fuse))}
        />
        <Select
          label="Switched by"
          value={wiring.relay ? 'relay' : 'switch'}
          options={[
            { value: 'relay', label: 'a relay' },
            { value: 'switch', label: 'the switch itself' },
          ]}
          onChange={(value) => setValue('relay', [...path, 'relay'], value === 'relay')}
        />
        <KnownField path={[...path, 'battery_Ah']} />
      </FieldGrid>
      <Box fontSize="sm" color="soft" mt="2">
        The pump voltage among the conditions is then the battery’s. Wires: ISO 6722-1 and ISO 10133, ASTM B258 and ABYC
        E-11, from memory; the rules in force and the wire’s own data decide.
      </Box>
    </Box>
  );
}
