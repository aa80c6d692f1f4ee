'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Pencil, Unlink, Wrench } from 'lucide-react';
import { useState } from 'react';
import { END_NAMES, END_WORDS, withValue, type SystemDocument } from '@/core/plan';
import { mendsOf, type Joint } from '@/core/answers';
import type { AdapterChain } from '@/core/fittings';
import { compatibilityOf, SEALING_KEYS } from '@/core/reference/compatibility';
import { JOIN_SYSTEMS, JOINS, joinWords, type Join, type JoinSystem } from '@/core/reference/joins';
import { formatQuantity } from '@/core/units';
import { Select } from '../fields/Select';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { SquareButton } from '../parts/SquareButton';
import { applyEdit, setValue, useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { useLines } from '../state/useLines';

/** Every joint: what meets what, what seals it, which spanners; and adapters for those that do not go together. */
export function JointsPanel() {
  const { lines, fresh } = useLines();
  if (!lines || lines.joints.length === 0) return null;
  const broken = lines.joints.filter(({ state }) => state === 'broken').length;
  const unsaid = lines.joints.filter(({ state }) => state === 'unsaid').length;
  const head =
    broken > 0
      ? `■ ${broken} of ${lines.joints.length} do not go together`
      : unsaid > 0
        ? `${unsaid} of ${lines.joints.length} not described yet`
        : `● all ${lines.joints.length} go together`;
  return (
    <Panel
      title="Joints"
      testId="joints"
      aside={
        <Box fontWeight="650" color={broken > 0 ? 'stop' : unsaid > 0 ? 'soft' : 'good'}>
          {head}
        </Box>
      }
    >
      {lines.list.openEnds.length > 0 && (
        <Box mb="3" data-testid="open-ends">
          <Box as="span" fontWeight="650" color="warn">
            ▲ Ends that lead nowhere:{' '}
          </Box>
          {lines.list.openEnds.map(({ name, end }) => `${name}, ${END_WORDS[end]}`).join(' · ')}
        </Box>
      )}
      <Box opacity={fresh ? 1 : 0.6}>
        {lines.joints.map((joint) => (
          <JointRow key={`${joint.line}-${joint.at}`} joint={joint} />
        ))}
      </Box>
    </Panel>
  );
}

function JointRow({ joint }: { readonly joint: Joint }) {
  const reader = useReader();
  const list = listOf(useSystem(), joint);
  const [open, setOpen] = useState(false);
  const { state, near, far, adapters, seals, spanners_m, lineName, partName, why } = joint;
  const spanners = spanners_m.map((size) => formatQuantity(size, 'bore', { reader }).text).join(', ');
  return (
    <Box borderTopWidth="1px" borderColor="rule" py="2" data-testid="joint" data-state={state}>
      <Box display="flex" gap="3" flexWrap="wrap" alignItems="center">
        <Box
          as="span"
          width="22px"
          fontWeight="700"
          color={state === 'broken' ? 'stop' : state === 'mates' ? 'good' : 'soft'}
          aria-label={state}
        >
          {state === 'broken' ? '■' : state === 'mates' ? '●' : '?'}
        </Box>
        <Box flex="1 1 220px">
          <b>{partName}</b>{' '}
          <Box as="span" color="soft">
            with {lineName}
          </Box>
        </Box>
        <Box flex="2 1 320px">
          {near && far ? (
            <>
              {joinWords(near)}{' '}
              {adapters.map(({ key, name }) => (
                <Box as="span" key={key}>
                  → <b>{name}</b>{' '}
                </Box>
              ))}
              → {joinWords(far)}
            </>
          ) : (
            <Box as="span" color="soft">
              {near
                ? `${joinWords(near)} on a part whose end is not described`
                : 'screwed to a part whose end is not described'}
            </Box>
          )}
        </Box>
        <Box display="flex" gap="1">
          {adapters.length > 0 && (
            <SquareButton
              label={`Remove the adapters of ${lineName} at ${partName}`}
              onClick={() => applyEdit('remove adapters', (current) => withAdapters(current, joint, []))}
            >
              <Unlink size={18} aria-hidden />
            </SquareButton>
          )}
          {(list ?? far) && (
            <SquareButton
              label={`${far ? 'Change' : 'Describe'} the end of ${partName} for ${lineName}`}
              onClick={() => setOpen(!open)}
            >
              <Pencil size={18} aria-hidden />
            </SquareButton>
          )}
        </Box>
      </Box>
      {state === 'mates' && (
        <Box fontSize="sm" color="soft" pl="34px">
          {[...new Set(seals)].join('; ')}
          {spanners ? `. Spanners ${spanners}.` : '.'}
        </Box>
      )}
      <Box pl="34px">
        <SealedBy joint={joint} isOpen={open} />
      </Box>
      {state === 'broken' && (
        <Box pl="34px" color="stop" fontWeight="650">
          {why}
        </Box>
      )}
      {state === 'broken' && (
        <Box pl="34px" mt="1">
          <Mend joint={joint} />
          {joint.stretch_ratio !== undefined && (
            <Button onClick={() => applyEdit('stretch the hose', (current) => withStretched(current, joint, true))}>
              Stretch it over warm, by {Math.round(joint.stretch_ratio * 100)} %
            </Button>
          )}
        </Box>
      )}
      {joint.isStretched && (
        <Box pl="34px" mt="1" display="flex" gap="3" alignItems="center" flexWrap="wrap">
          <Box as="span" color="warn">
            ▲ stretched by {Math.round((joint.stretch_ratio ?? 0) * 100)} %: low pressure only
          </Box>
          <Button onClick={() => applyEdit('no stretched hose', (current) => withStretched(current, joint, false))}>
            Not stretched
          </Button>
        </Box>
      )}
      {open && list && (
        <Box pl="34px" mt="1">
          <EndFields list={list} joint={joint} onDone={() => setOpen(false)} />
        </Box>
      )}
      {!list && !far && (
        <Box pl="34px" fontSize="sm" color="soft">
          Its end follows from the port’s part: choose one at Ports.
        </Box>
      )}
    </Box>
  );
}

const withStretched = (system: SystemDocument, { line, at }: Joint, stretched: boolean): SystemDocument =>
  withValue(
    system,
    ['lines', system.lines.findIndex(({ id }) => id === line), at, 'stretched'],
    stretched ? true : undefined,
  );

/** What makes a joint tight, in so many words: the table of contacts judges it. */
function SealedBy({
  joint: { line, at, lineName, partName },
  isOpen,
}: {
  readonly joint: Joint;
  readonly isOpen: boolean;
}) {
  const { lines } = useSystem();
  const l = lines.findIndex(({ id }) => id === line);
  const seal = lines[l]?.[at].seal;
  if (l < 0 || (!isOpen && seal === undefined)) return null;
  const path = ['lines', l, at, 'seal'];
  return (
    <Box data-path={path.join('.')} maxW="420px">
      <Select
        label={`Sealant of ${lineName} at ${partName}`}
        hideLabel
        value={seal ?? UNSAID}
        options={[
          { value: UNSAID, label: 'sealant or gasket not said' },
          ...SEALING_KEYS.map((key) => ({ value: key, label: compatibilityOf(key).name })),
        ]}
        onChange={(key) => setValue('seal', path, key === UNSAID ? undefined : key)}
      />
    </Box>
  );
}
const UNSAID = 'unsaid';

/** Which list of the document a joint's part stands in, where its ends are described there. */
const listOf = (system: SystemDocument, { part }: Joint): 'components' | 'consumers' | undefined =>
  system.components.some(({ id }) => id === part)
    ? 'components'
    : system.consumers.some(({ id }) => id === part)
      ? 'consumers'
      : undefined;

const withAdapters = (system: SystemDocument, { line, at }: Joint, keys: readonly string[]): SystemDocument =>
  withValue(system, ['lines', system.lines.findIndex(({ id }) => id === line), at, 'adapters'], keys);

/** The shortest chains that would join the two ends; the choice is kept for the parts list. */
function Mend({ joint }: { readonly joint: Joint }) {
  const reader = useReader();
  const [open, setOpen] = useState(false);
  if (!open)
    return (
      <Button kind="main" onClick={() => setOpen(true)}>
        <Wrench size={18} aria-hidden />
        Find adapters for {joint.partName}
      </Button>
    );
  const chains = mendsOf(joint);
  const take = (chain: AdapterChain): void => {
    applyEdit('adapters', (system) =>
      withAdapters(
        system,
        joint,
        chain.adapters.map(({ row }) => row.key),
      ),
    );
    setOpen(false);
  };
  return (
    <Box width="100%" data-testid="mends">
      {chains.length === 0 && (
        <Box color="warn">
          No chain of up to three adapters of the table joins these ends. Another end on the line or the part would.
        </Box>
      )}
      {chains.map((chain) => (
        <chakra.button
          key={chain.adapters.map(({ row }) => row.key).join()}
          type="button"
          display="block"
          width="100%"
          textAlign="left"
          minH="44px"
          px="3"
          py="1"
          borderWidth="1.5px"
          borderColor="edge"
          borderRadius="md"
          mb="1"
          cursor="pointer"
          _hover={{ bg: 'sunk' }}
          onClick={() => take(chain)}
        >
          <b>
            {chain.adapters.length} {chain.adapters.length === 1 ? 'adapter' : 'adapters'}
          </b>
          : {chain.adapters.map(({ row }) => row.name).join(', then ')}{' '}
          <Box as="span" color="soft">
            (narrowest {formatQuantity(chain.bore_m, 'bore', { reader }).text})
          </Box>
        </chakra.button>
      ))}
    </Box>
  );
}

/** How the part's end is made; those of ports follow from the port's part. */
function EndFields({
  list,
  joint,
  onDone,
}: {
  readonly list: 'components' | 'consumers';
  readonly joint: Joint;
  readonly onDone: () => void;
}) {
  const [join, setJoin] = useState<Join>(joint.far ?? { system: 'barb', size: '5/16', side: 'male' });
  const row = JOINS[join.system];
  const keep = (): void => {
    applyEdit(`end of ${joint.partName}`, (system) => {
      const index = system[list].findIndex(({ id }) => id === joint.part);
      const ends = system[list][index]!.ends;
      const made = { ...ends.find(({ end }) => end === joint.end), end: joint.end, ...join };
      const others = ends.filter(({ end }) => end !== joint.end);
      return withValue(
        system,
        [list, index, 'ends'],
        [...others, made].sort((a, b) => END_NAMES.indexOf(a.end) - END_NAMES.indexOf(b.end)),
      );
    });
    onDone();
  };
  return (
    <Box display="flex" gap="2" alignItems="end" flexWrap="wrap" width="100%">
      <Select
        label="End is"
        width="180px"
        value={join.system}
        options={JOIN_SYSTEMS.map((value) => ({ value, label: JOINS[value].name }))}
        onChange={(system: JoinSystem) =>
          setJoin({
            system,
            size: JOINS[system].sizes.includes(join.size)
              ? join.size
              : JOINS[system].sizes[Math.min(1, JOINS[system].sizes.length - 1)]!,
            side: join.side,
          })
        }
      />
      <Select
        label="Size"
        width="150px"
        value={join.size}
        options={row.sizes.map((value) => ({ value, label: value }))}
        onChange={(size) => setJoin({ ...join, size })}
      />
      <Select
        label="Side"
        width="170px"
        value={join.side}
        options={[
          { value: 'male' as const, label: row.male },
          { value: 'female' as const, label: row.female },
        ]}
        onChange={(side) => setJoin({ ...join, side })}
      />
      <Button kind="main" onClick={keep}>
        Set the end
      </Button>
    </Box>
  );
}
