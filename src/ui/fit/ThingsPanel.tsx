'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Plus, Trash2 } from 'lucide-react';
import { chosen, THING_ROLES, withoutEntry, type MotionDocument, type ThingDocument } from '@/core/document';
import { KnownField } from '../fields/KnownField';
import { readName } from '../fields/readName';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { FieldGrid, Panel } from '../parts/Panel';
import { SquareButton } from '../parts/SquareButton';
import { applyEdit, setValue, useValue } from '../state/editor';
import { ShapeFields } from '../tank/ShapeFields';
import { StlImport } from '../tank/StlImport';
import { withBody, withMeshThing, withMotion, withoutMotion, withoutThing, withThing } from './fitEdits';
import { ROLE_WORDS } from './fitWords';

/** What stands and moves in the space, and what is to be kept free of it. */
export function ThingsPanel() {
  const things = useValue((system) => system.fit.things);
  return (
    <Panel
      title="What is there"
      testId="things"
      aside={
        <Button onClick={() => applyEdit('add a thing', withThing)}>
          <Plus size={18} aria-hidden />
          Thing
        </Button>
      }
    >
      <Box mb="2">
        <StlImport into="thing" onTake={withMeshThing} />
      </Box>
      {things.length === 0 && (
        <Box color="soft">
          Axles at full bump, levers, exhausts, couplers that must stay reachable, seats: whatever the tank must stay
          clear of.
        </Box>
      )}
      {things.map((thing, i) => (
        <ThingRow key={thing.id} thing={thing} i={i} />
      ))}
    </Panel>
  );
}

function ThingRow({ thing, i }: { readonly thing: ThingDocument; readonly i: number }) {
  const at = (...keys: (string | number)[]) => ['fit', 'things', i, ...keys];
  const of = (text: string): string => `${text}, ${thing.name}`;
  return (
    <chakra.details borderTopWidth="1px" borderColor="rule" py="2" data-path={`fit.things.${i}`}>
      <chakra.summary minH="42px" cursor="pointer">
        <b>{thing.name}</b>{' '}
        <chakra.span color="soft">
          {ROLE_WORDS[thing.role]}
          {thing.motions.length > 0
            ? `, moves from ${thing.motions.map(({ fromName, toName }) => `${fromName} to ${toName}`).join(' and from ')}`
            : ''}
          {thing.removable ? ', comes out' : ''}
        </chakra.span>
      </chakra.summary>
      <Box display="flex" gap="2" alignItems="end" mb="2" flexWrap="wrap">
        <Box flex="1 1 200px">
          <TextEntry
            label="Name"
            value={thing.name}
            onEnter={(text) => readName(text, (name) => setValue(`rename ${thing.name}`, at('name'), name))}
          />
        </Box>
        <Select
          label={of('Is')}
          value={thing.role}
          options={THING_ROLES.map((value) => ({ value, label: ROLE_WORDS[value] }))}
          onChange={(role) => setValue(`what ${thing.name} is`, at('role'), role)}
        />
        <Select
          label={of('Can be taken out')}
          value={thing.removable ? 'yes' : 'no'}
          options={[
            { value: 'no', label: 'stays' },
            { value: 'yes', label: 'comes out' },
          ]}
          onChange={(value) => setValue(`whether ${thing.name} comes out`, at('removable'), value === 'yes')}
        />
        <SquareButton
          label={`Remove ${thing.name}`}
          onClick={() => applyEdit(`remove ${thing.name}`, (system) => withoutThing(system, i))}
        >
          <Trash2 size={18} aria-hidden />
        </SquareButton>
      </Box>
      <FieldGrid>
        <KnownField label={of('From the datum forward')} path={at('x_m')} role="tape" />
        <KnownField label={of('From the datum to port')} path={at('y_m')} role="tape" />
        <KnownField label={of('Above the datum')} path={at('z_m')} role="tape" />
        <KnownField label={of('Turned to port')} path={at('yaw_deg')} role="slope" />
        <KnownField label={of('Nose up')} path={at('pitch_deg')} role="slope" />
        <KnownField label={of('Starboard down')} path={at('roll_deg')} role="slope" />
        {thing.keep_m ? (
          <KnownField label={of('Distance to keep')} path={at('keep_m')} role="tape" />
        ) : (
          <Box alignSelf="end">
            <Button
              onClick={() => setValue(of('distance to keep'), at('keep_m'), chosen(thing.role === 'heat' ? 0.1 : 0.02))}
            >
              Its own distance to keep
            </Button>
          </Box>
        )}
      </FieldGrid>
      {thing.bodies.map((body, b) => (
        <BodyRow key={b} body={body} thing={thing} i={i} b={b} />
      ))}
      {thing.bodies.length < MOST_BODIES && (
        <Box mt="3">
          <Button onClick={() => applyEdit(`one more body of ${thing.name}`, (system) => withBody(system, i))}>
            <Plus size={18} aria-hidden />
            One more body
          </Button>
        </Box>
      )}
      {thing.motions.map((motion, m) => (
        <MotionRow key={m} motion={motion} thing={thing} i={i} m={m} />
      ))}
      {thing.motions.length < 2 && (
        <Box mt="3" display="flex" gap="2" flexWrap="wrap">
          <Button onClick={() => applyEdit(`${thing.name} travels`, (system) => withMotion(system, i, 'slide'))}>
            <Plus size={18} aria-hidden />
            It travels
          </Button>
          <Button onClick={() => applyEdit(`${thing.name} swings`, (system) => withMotion(system, i, 'hinge'))}>
            <Plus size={18} aria-hidden />
            It swings
          </Button>
        </Box>
      )}
    </chakra.details>
  );
}

const MOST_BODIES = 12;

/** One of the bodies that a thing is made of; those after the first have their place against it. */
function BodyRow({
  body,
  thing,
  i,
  b,
}: {
  readonly body: ThingDocument['bodies'][number];
  readonly thing: ThingDocument;
  readonly i: number;
  readonly b: number;
}) {
  const at = (key: string) => ['fit', 'things', i, 'bodies', b, key];
  const name = b === 0 ? thing.name : `${thing.name}, body ${b + 1}`;
  return (
    <Box mt="3">
      <ShapeFields shape={body.shape} path={at('shape')} side="" owner={name}>
        {b > 0 && (
          <>
            <KnownField label={`Forward of the first body, ${name}`} path={at('x_m')} role="tape" />
            <KnownField label={`To port of it, ${name}`} path={at('y_m')} role="tape" />
            <KnownField label={`Above it, ${name}`} path={at('z_m')} role="tape" />
            <KnownField label={`Turned to port, ${name}`} path={at('yaw_deg')} role="slope" />
            <KnownField label={`Nose up, ${name}`} path={at('pitch_deg')} role="slope" />
            <KnownField label={`Starboard down, ${name}`} path={at('roll_deg')} role="slope" />
            <Box alignSelf="end">
              <Button
                kind="danger"
                onClick={() =>
                  applyEdit(`remove a body of ${thing.name}`, (system) =>
                    withoutEntry(system, ['fit', 'things', i, 'bodies'], b),
                  )
                }
              >
                <Trash2 size={18} aria-hidden />
                Remove this body
              </Button>
            </Box>
          </>
        )}
      </ShapeFields>
    </Box>
  );
}

const WAYS = {
  'fore and aft': { forward: 1, toPort: 0, up: 0 },
  'side to side': { forward: 0, toPort: 1, up: 0 },
  'up and down': { forward: 0, toPort: 0, up: 1 },
} as const;
type Way = keyof typeof WAYS | 'slantwise';
const wayOf = ({ forward, toPort, up }: { forward: number; toPort: number; up: number }): Way =>
  (Object.keys(WAYS) as (keyof typeof WAYS)[]).find(
    (key) => WAYS[key].forward === forward && WAYS[key].toPort === toPort && WAYS[key].up === up,
  ) ?? 'slantwise';

function MotionRow({
  motion,
  thing,
  i,
  m,
}: {
  readonly motion: MotionDocument;
  readonly thing: ThingDocument;
  readonly i: number;
  readonly m: number;
}) {
  const at = (...keys: string[]) => ['fit', 'things', i, 'motions', m, ...keys];
  const of = (text: string): string => `${text}, ${thing.name}${m > 0 ? ', second motion' : ''}`;
  const slides = motion.kind === 'slide';
  const way = wayOf(slides ? motion.way : motion.axis);
  const options = [...(Object.keys(WAYS) as Way[]), ...(way === 'slantwise' ? ['slantwise' as const] : [])].map(
    (value) => ({ value, label: slides ? value : `about the axis ${value}` }),
  );
  const rename = (key: string) => (text: string) =>
    readName(text, (name) => setValue('rename an end of travel', at(key), name));
  return (
    <Box mt="3" pl="3" borderLeftWidth="3px" borderColor="rule">
      <Box display="flex" gap="2" alignItems="end" mb="2" flexWrap="wrap">
        <Select
          label={of(slides ? 'Travels' : 'Swings')}
          value={way}
          options={options}
          onChange={(value) =>
            value !== 'slantwise' && setValue(of('which way it moves'), at(slides ? 'way' : 'axis'), WAYS[value])
          }
        />
        <TextEntry label={of('One end is called')} value={motion.fromName} onEnter={rename('fromName')} />
        <TextEntry label={of('The other end is called')} value={motion.toName} onEnter={rename('toName')} />
        <SquareButton
          label={of('Remove this motion')}
          onClick={() => applyEdit(`${thing.name} stands still`, (system) => withoutMotion(system, i, m))}
        >
          <Trash2 size={18} aria-hidden />
        </SquareButton>
      </Box>
      <FieldGrid>
        {slides ? (
          <>
            <KnownField
              label={of(`From rest to ${motion.fromName}`)}
              path={at('from_m')}
              role="tape"
              hint="0 or less: against the way it travels."
            />
            <KnownField label={of(`From rest to ${motion.toName}`)} path={at('to_m')} role="tape" />
          </>
        ) : (
          <>
            <KnownField label={of('Hinge, from the datum forward')} path={at('x_m')} role="tape" />
            <KnownField label={of('Hinge, from the datum to port')} path={at('y_m')} role="tape" />
            <KnownField label={of('Hinge, above the datum')} path={at('z_m')} role="tape" />
            <KnownField label={of(`From rest to ${motion.fromName}`)} path={at('from_deg')} role="slope" />
            <KnownField label={of(`From rest to ${motion.toName}`)} path={at('to_deg')} role="slope" />
          </>
        )}
      </FieldGrid>
    </Box>
  );
}
