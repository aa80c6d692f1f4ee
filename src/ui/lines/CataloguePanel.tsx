'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Download, Trash2, Upload } from 'lucide-react';
import { useId } from 'react';
import { catalogueCsv } from '@/core/plan';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { saveFile } from '../parts/saveFile';
import { SquareButton } from '../parts/SquareButton';
import { dropPart, takeInCsv, useCatalogue } from './catalogue';
import { kindOf } from '@/core/components';

/** Parts that the builder keeps for every system, with CSV out and in. */
export function CataloguePanel() {
  const { parts, unread, loaded, refused } = useCatalogue();
  const input = useId();
  const take = async (files: FileList | null): Promise<void> => {
    const file = files?.[0];
    if (file) await takeInCsv(await file.text());
  };
  return (
    <Panel
      title="Own parts"
      testId="catalogue"
      aside={
        <Box display="flex" gap="2" flexWrap="wrap">
          <Button
            disabled={parts.length === 0}
            onClick={() => saveFile('own-parts.csv', 'text/csv', catalogueCsv(parts.map(({ part }) => part)))}
          >
            <Download size={18} aria-hidden />
            CSV
          </Button>
          <chakra.label
            htmlFor={input}
            display="inline-flex"
            alignItems="center"
            gap="2"
            minH="44px"
            px="4"
            borderWidth="1.5px"
            borderColor="edge"
            borderRadius="md"
            fontWeight="650"
            cursor="pointer"
            _focusWithin={{ outline: '3px solid var(--chakra-colors-accent)' }}
          >
            <Upload size={18} aria-hidden />
            Import CSV
            <chakra.input
              id={input}
              type="file"
              accept=".csv,text/csv"
              position="absolute"
              opacity="0"
              width="1px"
              height="1px"
              onChange={(event) => {
                void take(event.target.files);
                event.target.value = '';
              }}
            />
          </chakra.label>
        </Box>
      }
    >
      {refused && (
        <Box color="stop" fontWeight="650" role="alert" mb="2">
          {refused}
        </Box>
      )}
      {loaded && parts.length + unread.length === 0 && (
        <Box color="soft">
          None yet. Keep a part from its panel, or take in a file; it can then be put into any run.
        </Box>
      )}
      {parts.map(({ id, name, part }) => (
        <Box
          key={id}
          display="flex"
          gap="3"
          alignItems="center"
          borderTopWidth="1px"
          borderColor="rule"
          py="1"
          data-testid="own-part"
        >
          <Box flex="1">
            <b>{name}</b>{' '}
            <Box as="span" color="soft">
              {kindOf(part).word}
            </Box>
          </Box>
          <SquareButton label={`Remove ${name} from own parts`} onClick={() => void dropPart(id)}>
            <Trash2 size={18} aria-hidden />
          </SquareButton>
        </Box>
      ))}
      {unread.map(({ id, name, detail }) => (
        <Box key={id} borderTopWidth="1px" borderColor="rule" py="2" color="warn">
          <b>{name}</b> is kept, but cannot be read: {detail}
        </Box>
      ))}
    </Panel>
  );
}
