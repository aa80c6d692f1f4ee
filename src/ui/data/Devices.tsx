'use client';

import { Box, chakra, Heading } from '@chakra-ui/react';
import { Smartphone, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { asked } from '../library/serverSystems';
import { Button } from '../parts/Button';
import { Caution } from '../parts/Caution';

export type Device = {
  readonly id: string;
  readonly name: string;
  readonly letInAt_ms: number;
  readonly seenAt_ms: number;
};
type Code = { readonly code: string; readonly until_ms: number; readonly url: string; readonly picture: string };

/** Phones and tablets that may come in: how to let one in, and how to send it away. */
export function Devices({ first, isOnNetwork }: { readonly first: readonly Device[]; readonly isOnNetwork: boolean }) {
  const [devices, setDevices] = useState(first);
  const [code, setCode] = useState<Code>();
  const [fault, setFault] = useState('');
  const again = async (): Promise<void> => {
    const found = await asked<{ devices: Device[] }>('/api/devices');
    if (found.ok) setDevices(found.body.devices);
  };
  const invite = async (): Promise<void> => {
    const made = await asked<Code>('/api/devices', { method: 'POST' });
    setFault(made.ok ? '' : made.detail);
    setCode(made.ok ? made.body : undefined);
    await again();
  };
  const send = async (id: string): Promise<void> => {
    const gone = await asked<undefined>(`/api/devices/${id}`, { method: 'DELETE' });
    setFault(gone.ok ? '' : gone.detail);
    await again();
  };
  return (
    <Box mt="8" data-testid="devices">
      <Heading as="h2" fontSize="xl" mb="2">
        Other devices
      </Heading>
      {!isOnNetwork && (
        <Box color="soft">
          None can come in: Gas Line answers on this machine only. To use a phone at the bench, start it with{' '}
          <chakra.code>npm run demo -- --lan</chakra.code>.
        </Box>
      )}
      {isOnNetwork && (
        <>
          <Box mb="2">
            <Caution>
              What goes over the network is not encrypted: whoever is on it can read along, and could pass for a device
              that you let in. Use a network that you trust.
            </Caution>
          </Box>
          <Button onClick={() => void invite()}>
            <Smartphone size={20} aria-hidden />
            Let another device in
          </Button>
        </>
      )}
      {fault && (
        <Box role="alert" color="stop" fontWeight="600" mt="2">
          {fault}
        </Box>
      )}
      {code && (
        <Box mt="3" display="flex" gap="4" flexWrap="wrap" alignItems="center" data-testid="code">
          {/* A QR code needs a light ground in dark mode too. */}
          <chakra.img
            src={`data:image/svg+xml,${encodeURIComponent(code.picture)}`}
            alt={`The address ${code.url} as a picture for a camera`}
            width="180px"
            height="180px"
            bg="white"
          />
          <Box>
            <Box>
              Point the device’s camera here, or open <b>{code.url.split('?')[0]}</b> on it and enter
            </Box>
            <Box fontSize="3xl" fontWeight="800" letterSpacing="0.12em">
              {code.code}
            </Box>
            <Box color="soft">It works once, for ten minutes.</Box>
          </Box>
        </Box>
      )}
      <Box as="ul" listStyleType="none" mt="3">
        {devices.map(({ id, name, letInAt_ms, seenAt_ms }) => (
          <Box
            as="li"
            key={id}
            display="flex"
            gap="3"
            alignItems="center"
            py="2"
            borderTopWidth="1px"
            borderColor="rule"
          >
            <Box flex="1">
              <b>{name}</b>
              <Box fontSize="sm" color="soft" suppressHydrationWarning>
                let in {new Date(letInAt_ms).toLocaleString()}, last seen {new Date(seenAt_ms).toLocaleString()}
              </Box>
            </Box>
            <Button onClick={() => void send(id)}>
              <Trash2 size={18} aria-hidden />
              Send away {name}
            </Button>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
