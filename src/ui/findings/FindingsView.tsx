'use client';

import { Box, chakra } from '@chakra-ui/react';
import { CircleAlert, Info, OctagonX } from 'lucide-react';
import type { Finding, Severity } from '@/core/rules';
import { messageText } from '@/core/units';
import { Panel } from '../parts/Panel';
import { useReader } from '../state/reader';
import { useDetails, useFindings } from '../state/results';
import { usePlace } from '../workspace/goTo';
import type { StageKey } from '../workspace/stages';

const LOOK: Readonly<Record<Severity, { word: string; color: string; bg: string; Icon: typeof Info }>> = {
  stop: { word: 'Stop', color: 'stop', bg: 'stopBg', Icon: OctagonX },
  warn: { word: 'Warn', color: 'warn', bg: 'warnBg', Icon: CircleAlert },
  note: { word: 'Note', color: 'note', bg: 'noteBg', Icon: Info },
};

export function FindingsView() {
  const { results } = useDetails();
  const findings = useFindings();
  return (
    <Panel title="Findings">
      {results?.ok && findings.length === 0 && <Box color="good" fontWeight="600">Nothing found at these conditions. Tilt it, empty it and heat it to see whether that holds.</Box>}
      <FindingList findings={findings} />
    </Panel>
  );
}

/** The findings of one stage, for the foot of that stage. */
export function StageFindings({ stage }: { readonly stage: StageKey }) {
  const findings = useFindings().filter((finding) => finding.stage === stage);
  return findings.length === 0 ? null : <Panel title="Findings here"><FindingList findings={findings} /></Panel>;
}

function FindingList({ findings }: { readonly findings: readonly Finding[] }) {
  return <Box display="grid" gap="2">{findings.map((finding, index) => <FindingCard key={`${finding.id}-${index}`} finding={finding} />)}</Box>;
}

function FindingCard({ finding }: { readonly finding: Finding }) {
  const reader = useReader();
  const goTo = usePlace((place) => place.goTo);
  const { word, color, bg, Icon } = LOOK[finding.severity];
  return (
    <Box as="article" data-testid={`finding-${finding.id}`} borderLeftWidth="6px" borderColor={color} bg={bg} borderRadius="md" px="3" py="2">
      <Box display="flex" gap="2" alignItems="center" fontWeight="700">
        <Box color={color} display="flex"><Icon size={18} aria-hidden /></Box>
        <Box><Box as="span" color={color}>{word}: </Box>{finding.title}</Box>
      </Box>
      <Box fontSize="md" mt="1" fontWeight="600">{messageText(finding.what, reader)}</Box>
      <Box fontSize="sm" mt="1"><b>Why.</b> {finding.why}</Box>
      <Box fontSize="sm" mt="1"><b>Mend.</b> {finding.mend}</Box>
      <Box display="flex" justifyContent="space-between" gap="2" alignItems="center" flexWrap="wrap" fontSize="sm" color="soft" mt="1">
        <Box>Source: {finding.source}{finding.source.includes(finding.status) ? '' : ` (${finding.status})`}.</Box>
        {finding.path && (
          <chakra.button type="button" onClick={() => goTo(finding.stage, finding.path)} color="accent" fontWeight="600" minH="36px" px="2" cursor="pointer" textDecoration="underline">Go to it</chakra.button>
        )}
      </Box>
    </Box>
  );
}
