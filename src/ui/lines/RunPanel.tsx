'use client';

import { Box, chakra } from '@chakra-ui/react';
import { ArrowDown, ArrowUp, GitBranch, Plus, Replace, Trash2 } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import {
  flowRole,
  COMPONENT_KINDS,
  freeEnds,
  mayJoin,
  newPart,
  partFor,
  PURPOSES,
  runsOf,
  withBranch,
  withLineBetween,
  withoutPart,
  withPartIn,
  withPartMoved,
  withPartReplaced,
  type ComponentDocument,
  type ComponentKind,
  type EndRef,
  type LineDocument,
  type Run,
  type RunStep,
  type SystemDocument,
} from '@/core/plan';
import { COMPONENTS, END_POINTS, endsOfKind, kindOf, standsAs } from '@/core/components';
import { type Joint } from '@/core/answers';
import type { Outcome } from '@/core/outcome';
import { Select } from '../fields/Select';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { SquareButton } from '../parts/SquareButton';
import { partName } from '../parts/words';
import { applyEdit, openDocument, useSystem } from '../state/editor';
import { useFlows, useLines } from '../state/useLines';
import { useCatalogue } from './catalogue';
import { useChosenPart } from './chosenPart';
import { PURPOSE_WORDS } from './lineWords';
import { ProfileChart } from './ProfileChart';

/** One run as a list of parts and lines, in the order of flow, and its profile. */
export function RunPanel() {
  const system = useSystem();
  const { id: chosen, choose } = useChosenPart();
  const runs = runsOf(system);
  const run = runs.find(({ steps }) => steps.some(({ id }) => id === chosen)) ?? runs[0];
  const { lines, fresh } = useLines();
  const profile = run && lines?.profiles.find(({ id }) => id === run.id);
  return (
    <Panel title="Run by run" testId="run">
      <Box display="flex" gap="3" flexWrap="wrap" alignItems="end" mb="3">
        {run && (
          <Select
            label="Run"
            width="min(100%, 420px)"
            value={run.id}
            options={runs.map(({ id, name, purpose }) => ({ value: id, label: `${name} (${PURPOSE_WORDS[purpose]})` }))}
            onChange={(id) => choose(id)}
          />
        )}
        <NewRun onMade={choose} />
      </Box>
      {run && <Steps run={run} />}
      {profile && profile.points.length > 1 && (
        <Box mt="4" opacity={fresh ? 1 : 0.5} data-testid="profile">
          <ProfileChart profile={profile} />
        </Box>
      )}
    </Panel>
  );
}

function Steps({ run }: { readonly run: Run }) {
  return (
    <chakra.ol listStyleType="none" m="0" p="0" data-testid="run-steps">
      {run.steps.map((step, i) =>
        step.kind === 'line' ? (
          <LineStep key={`${step.id}-${i}`} step={step} />
        ) : (
          <PartStep key={`${step.id}-${i}`} step={step} />
        ),
      )}
    </chakra.ol>
  );
}

/** Edits that may be refused say why where they were asked for. */
function useEdit(): {
  readonly refused: string | undefined;
  readonly edit: (name: string, change: (system: SystemDocument) => Outcome<SystemDocument>) => boolean;
} {
  const [refused, setRefused] = useState<string>();
  return {
    refused,
    edit: (name, change) => {
      const changed = change(openDocument());
      setRefused(changed.ok ? undefined : changed.error.detail);
      if (changed.ok) applyEdit(name, () => changed.value);
      return changed.ok;
    },
  };
}

const Refusal = ({ children }: { readonly children: string | undefined }) =>
  children ? (
    <Box color="stop" fontWeight="650" role="alert" mt="1">
      {children}
    </Box>
  ) : null;

function Row({
  chosen,
  children,
  buttons,
  below,
  onChoose,
  name,
  indent,
}: {
  readonly chosen: boolean;
  readonly children: ReactNode;
  readonly buttons: ReactNode;
  readonly below?: ReactNode;
  readonly onChoose: () => void;
  readonly name: string;
  readonly indent?: boolean;
}) {
  return (
    <chakra.li
      borderTopWidth="1px"
      borderColor="rule"
      py="1"
      pl={indent ? { base: '3', md: '6' } : '0'}
      bg={chosen ? 'sunk' : undefined}
    >
      <Box display="flex" gap="2" alignItems="center" flexWrap="wrap">
        <chakra.button
          type="button"
          flex="1 1 220px"
          minH="44px"
          textAlign="left"
          cursor="pointer"
          onClick={onChoose}
          aria-pressed={chosen}
          aria-label={name}
          px="2"
        >
          {children}
        </chakra.button>
        <Box display="flex" gap="1">
          {buttons}
        </Box>
      </Box>
      {below}
    </chakra.li>
  );
}

function PartStep({ step }: { readonly step: Extract<RunStep, { kind: 'part' }> }) {
  const system = useSystem();
  const { id: chosen, choose } = useChosenPart();
  const flows = useFlows();
  const { refused, edit } = useEdit();
  const [replacing, setReplacing] = useState(false);
  const part = system.components.find(({ id }) => id === step.id);
  const end = step.leaves ?? step.enters;
  const node = flows.flatMap(({ nodes }) => nodes).find(({ id }) => id === `${step.id}:${end}`);
  const name = partName(system, step.id);
  const between = step.enters !== undefined && step.leaves !== undefined;
  return (
    <Row
      name={name}
      chosen={chosen === step.id}
      onChoose={() => choose(step.id)}
      buttons={
        part && (
          <>
            {between && (
              <SquareButton
                label={`Move ${name} back`}
                onClick={() => applyEdit(`move ${name}`, (current) => withPartMoved(current, step.id, -1))}
              >
                <ArrowUp size={18} aria-hidden />
              </SquareButton>
            )}
            {between && (
              <SquareButton
                label={`Move ${name} on`}
                onClick={() => applyEdit(`move ${name}`, (current) => withPartMoved(current, step.id, 1))}
              >
                <ArrowDown size={18} aria-hidden />
              </SquareButton>
            )}
            <SquareButton label={`Replace ${name}`} onClick={() => setReplacing(!replacing)}>
              <Replace size={18} aria-hidden />
            </SquareButton>
            <SquareButton
              label={`Remove ${name}`}
              onClick={() => applyEdit(`remove ${name}`, (current) => withoutPart(current, step.id))}
            >
              <Trash2 size={18} aria-hidden />
            </SquareButton>
          </>
        )
      }
      below={
        <>
          {replacing && part && (
            <Box px="2" pb="2">
              <PartPicker
                action="Replace with"
                ends={endsOfKind(part.kind).length}
                onPick={(fresh) => {
                  if (edit(`replace ${name}`, (current) => withPartReplaced(current, step.id, fresh)))
                    setReplacing(false);
                }}
              />
            </Box>
          )}
          <Refusal>{refused}</Refusal>
        </>
      }
    >
      <Box as="span" fontWeight="700">
        {name}
      </Box>
      {part && (
        <Box as="span" color="soft" fontSize="sm">
          {' '}
          {kindOf(part).word}
          {standsAs(part) ? `, ${standsAs(part)}` : ''}
        </Box>
      )}
      {node && (
        <Box as="span" float="right" fontWeight="650">
          <Quantity value={node.gauge_Pa} role="pressure" />
        </Box>
      )}
    </Row>
  );
}

function LineStep({ step }: { readonly step: Extract<RunStep, { kind: 'line' }> }) {
  const system = useSystem();
  const { id: chosen, choose } = useChosenPart();
  const flows = useFlows();
  const { lines } = useLines();
  const { refused, edit } = useEdit();
  const [open, setOpen] = useState<'insert' | 'branch'>();
  const line = system.lines.find(({ id }) => id === step.id);
  if (!line) return null;
  const link = flows.flatMap(({ links }) => links).find(({ id }) => id === step.id);
  const broken = (lines?.joints ?? []).filter((joint) => joint.line === line.id && joint.state === 'broken');
  return (
    <Row
      indent
      name={line.name}
      chosen={chosen === step.id}
      onChoose={() => choose(step.id)}
      buttons={
        <>
          <SquareButton
            label={`Insert a part into ${line.name}`}
            onClick={() => setOpen(open === 'insert' ? undefined : 'insert')}
          >
            <Plus size={18} aria-hidden />
          </SquareButton>
          <SquareButton
            label={`Branch off ${line.name}`}
            onClick={() => setOpen(open === 'branch' ? undefined : 'branch')}
          >
            <GitBranch size={18} aria-hidden />
          </SquareButton>
          <SquareButton
            label={`Remove ${line.name}`}
            onClick={() =>
              applyEdit(`remove ${line.name}`, (current) => ({
                ...current,
                lines: current.lines.filter(({ id }) => id !== line.id),
              }))
            }
          >
            <Trash2 size={18} aria-hidden />
          </SquareButton>
        </>
      }
      below={
        <>
          {broken.map((joint: Joint) => (
            <Box key={joint.at} color="stop" fontWeight="650" px="2" fontSize="sm">
              ■ does not fit {joint.partName}: {joint.why}
            </Box>
          ))}
          {open === 'insert' && (
            <Box px="2" pb="2">
              <PartPicker
                action="Insert"
                ends={2}
                onPick={(part) => {
                  if (edit(`insert ${part.name}`, (current) => withPartIn(current, line.id, part))) {
                    setOpen(undefined);
                    choose(part.id);
                  }
                }}
              />
            </Box>
          )}
          {open === 'branch' && (
            <Box px="2" pb="2">
              <Branch
                line={line}
                onPick={(to, purpose) =>
                  edit('branch at a tee', (current) => withBranch(current, line.id, to, purpose)) && setOpen(undefined)
                }
              />
            </Box>
          )}
          <Refusal>{refused}</Refusal>
        </>
      }
    >
      <Box as="span" color="soft" fontSize="sm">
        <Quantity value={line.length_m.value} role="run" /> of <Quantity value={line.bore_m.value} role="bore" />
      </Box>
      {link?.regime !== undefined && (
        <Box as="span" color="soft" fontSize="sm">
          , {link.regime}
        </Box>
      )}
      {link?.velocity_mPerS !== undefined && (
        <Box as="span" float="right" fontSize="sm">
          <Quantity value={Math.abs(link.flow_m3PerS)} role={flowRole(Math.abs(link.flow_m3PerS))} />,{' '}
          <Quantity value={Math.abs(link.velocity_mPerS)} role="lineSpeed" />, loses{' '}
          <Quantity value={Math.abs(link.loss_Pa)} role="pressure" />
        </Box>
      )}
    </Row>
  );
}

/** A new part of a kind, or one of the builder's own. */
function PartPicker({
  action,
  ends,
  onPick,
}: {
  readonly action: string;
  readonly ends: number;
  readonly onPick: (part: ComponentDocument) => void;
}) {
  const own = useCatalogue();
  const kinds = COMPONENT_KINDS.filter((kind) => endsOfKind(kind).length >= ends);
  const [kind, setKind] = useState<ComponentKind | `own:${string}`>(kinds[0]!);
  const options = [
    ...kinds.map((value) => ({ value, label: COMPONENTS[value].word })),
    ...own.parts
      .filter(({ part }) => endsOfKind(part.kind).length >= ends)
      .map(({ id, name }) => ({ value: `own:${id}` as const, label: `${name} (own parts)` })),
  ];
  const pick = (): void => {
    const system = openDocument();
    const mine = own.parts.find(({ id }) => `own:${id}` === kind);
    const bore = system.lines[0]?.bore_m.value ?? 0.008;
    onPick(mine ? partFor(system, mine.part) : newPart(system, kind as ComponentKind, bore));
  };
  return (
    <Box display="flex" gap="2" alignItems="end" flexWrap="wrap">
      <Select label="Part" width="300px" value={kind} options={options} onChange={setKind} />
      <Button kind="main" onClick={pick}>
        {action}
      </Button>
    </Box>
  );
}

const endText = ({ item, end }: EndRef): string => `${item}:${end}`;

/** Something that a line can be led to: an end that is there, or a new end point. */
type Goal = { readonly value: string; readonly label: string; readonly end: EndRef | ComponentKind };

const goalsOf = (ends: ReturnType<typeof freeEnds>, newOnes: readonly ComponentKind[] = END_POINTS): Goal[] => [
  ...ends.map((end): Goal => ({ value: endText(end), label: end.name, end })),
  ...newOnes.map((kind): Goal => ({ value: `new:${kind}`, label: `new: ${COMPONENTS[kind].word}`, end: kind })),
];
/** What liquid or air can run out into. */
const OUTLETS = END_POINTS.filter((kind) => endsOfKind(kind).includes('in'));

function Branch({
  line,
  onPick,
}: {
  readonly line: LineDocument;
  readonly onPick: (to: EndRef | ComponentKind, purpose: LineDocument['purpose']) => void;
}) {
  const system = useSystem();
  const goals = goalsOf(freeEnds(system), OUTLETS);
  const [to, setTo] = useState(`new:${OUTLETS[0]!}`);
  const [purpose, setPurpose] = useState<LineDocument['purpose']>(line.purpose);
  return (
    <Box display="flex" gap="2" alignItems="end" flexWrap="wrap">
      <Select label="Branch leads to" width="260px" value={to} options={goals} onChange={setTo} />
      <Select
        label="Its purpose"
        width="150px"
        value={purpose}
        options={PURPOSES.map((value) => ({ value, label: PURPOSE_WORDS[value] }))}
        onChange={setPurpose}
      />
      <Button kind="main" onClick={() => onPick(goals.find(({ value }) => value === to)?.end ?? OUTLETS[0]!, purpose)}>
        Branch here
      </Button>
    </Box>
  );
}

/** A first line between two free ends: the run is then filled like a list. Joins that cannot be are not offered. */
function NewRun({ onMade }: { readonly onMade: (id: string) => void }) {
  const system = useSystem();
  const { refused, edit } = useEdit();
  const [open, setOpen] = useState(false);
  const ends = goalsOf(freeEnds(system));
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const [purpose, setPurpose] = useState<LineDocument['purpose']>('feed');
  const start = ends.find(({ value }) => value === from) ?? ends[0];
  const goals = start
    ? ends.filter(
        ({ value, end }) =>
          value !== start.value &&
          (typeof end === 'string' || typeof start.end === 'string' || mayJoin(system, start.end, end, purpose).ok),
      )
    : [];
  const goal = goals.find(({ value }) => value === to) ?? goals[0];
  if (!open)
    return (
      <Button onClick={() => setOpen(true)}>
        <Plus size={18} aria-hidden />
        New run
      </Button>
    );
  const make = (): void => {
    if (!start || !goal) return;
    if (edit('new run', (current) => withLineBetween(current, start.end, goal.end, purpose))) {
      setOpen(false);
      onMade(openDocument().lines.at(-1)!.id);
    }
  };
  return (
    <Box width="100%" borderWidth="1.5px" borderColor="edge" borderRadius="md" p="3" data-testid="new-run">
      <Box display="flex" gap="2" alignItems="end" flexWrap="wrap">
        <Select
          label="For"
          width="130px"
          value={purpose}
          options={PURPOSES.map((value) => ({ value, label: PURPOSE_WORDS[value] }))}
          onChange={setPurpose}
        />
        <Select label="From" width="240px" value={start?.value ?? ''} options={ends} onChange={setFrom} />
        <Select label="To" width="240px" value={goal?.value ?? ''} options={goals} onChange={setTo} />
        <Button kind="main" disabled={!start || !goal} onClick={make}>
          Add line
        </Button>
        <Button onClick={() => setOpen(false)}>Cancel</Button>
      </Box>
      {start && goals.length === 0 && (
        <Box mt="2" color="soft">
          No end is free that this one could lead to.
        </Box>
      )}
      <Refusal>{refused}</Refusal>
    </Box>
  );
}
