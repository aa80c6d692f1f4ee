'use client';

import { Box, Heading } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { readName } from '../fields/readName';
import { Button } from '../parts/Button';
import { Caution } from '../parts/Caution';
import { Mark } from '../parts/Mark';
import { asked } from '../library/serverSystems';
import { PlainField } from './PlainField';

/**
 * Where another device is let in by its code. Opening the page spends nothing: a link may be looked at before it is
 * pressed.
 */
export function Pair({ code: given }: { readonly code: string }) {
  const router = useRouter();
  const [code, setCode] = useState(given);
  const [name, setName] = useState('');
  const [message, setMessage] = useState('');
  const enter = async (): Promise<void> => {
    let named = '';
    const verdict = readName(name, (entered) => {
      named = entered;
    });
    if (!verdict.ok) return setMessage(`Name this device. ${verdict.message}`);
    const tried = await asked<undefined>('/api/pair', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ code, name: named }),
    });
    if (tried.ok) router.replace('/');
    else setMessage(tried.detail);
  };
  return (
    <Box as="main" maxW="480px" mx="auto" px="4" py="6">
      <Mark />
      <Heading as="h1" fontSize="2xl" fontWeight="800" mt="6">
        Let this device in
      </Heading>
      <Box mt="2" color="soft">
        Gas Line runs on another machine on this network. It shows a code where it was started, and under “Your data”.
      </Box>
      <Box
        as="form"
        mt="4"
        display="flex"
        flexDirection="column"
        gap="4"
        onSubmit={(event) => {
          event.preventDefault();
          void enter();
        }}
      >
        <PlainField label="Code" value={code} onChange={setCode} most={40} isLarge />
        <PlainField
          label="Name of this device, such as “Phone at the bench”"
          value={name}
          onChange={setName}
          most={80}
        />
        {message && (
          <Box role="alert" color="stop" fontWeight="600">
            {message}
          </Box>
        )}
        <Button kind="main" type="submit">
          Let this device in
        </Button>
      </Box>
      <Box mt="6">
        <Caution>
          What goes over the network is not encrypted: whoever is on it can read along, and could pass for this device.
          Use a network that you trust, and send the device away under “Your data” when it is no longer needed.
        </Caution>
      </Box>
    </Box>
  );
}
