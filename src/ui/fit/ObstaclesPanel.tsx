'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Plus, Trash2 } from 'lucide-react';
import { chosen, OBSTACLE_ROLES, withoutEntry, type MotionDocument, type ObstacleDocument } from '@/core/plan';
import { KnownField } from '../fields/KnownField';
import { readName } from '../fields/readName';
import { Owner } from '../fields/Owner';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { FieldGrid, Panel } from '../parts/Panel';
import { SquareButton } from '../parts/SquareButton';
import { applyEdit, setValue, useValue } from '../state/editor';
import { useSides } from '../state/sides';
import { ShapeFields } from '../tank/ShapeFields';
import { StlImport } from '../tank/StlImport';
import {
  withBody,
  withOpening,
  withMeshObstacle,
  withMotion,
  withoutMotion,
  withoutObstacle,
  withObstacle,
} from './fitEdits';
import { ROLE_WORDS } from './fitWords';

/** What stands and moves in the space, and what is to be kept free of it. */
export function ObstaclesPanel() {
  const obstacles = useValue((system) => system.fit.obstacles);
  return (
    <Panel
      title="What is there"
      testId="obstacles"
      aside={
        <Button onClick={() => applyEdit('add an obstacle', withObstacle)}>
          <Plus size={18} aria-hidden />
          Obstacle
        </Button>
      }
    >
      <Box mb="2">
        <StlImport into="obstacle" onTake={withMeshObstacle} />
      </Box>
      {obstacles.length === 0 && (
        <Box color="soft">
          Axles at full bump, levers, exhausts, couplers that must stay reachable, seats: whatever the tank must stay
          clear of.
        </Box>
      )}
      {obstacles.map((obstacle, i) => (
        <ObstacleRow key={obstacle.id} obstacle={obstacle} i={i} />
      ))}
    </Panel>
  );
}

function ObstacleRow({ obstacle, i }: { readonly obstacle: ObstacleDocument; readonly i: number }) {
  const sides = useSides();
  const at = (...keys: (string | number)[]) => ['fit', 'obstacles', i, ...keys];
  const of = (text: string): string => `${text}, ${obstacle.name}`;
  return (
    <chakra.details borderTopWidth="1px" borderColor="rule" py="2" data-path={`fit.obstacles.${i}`}>
      <chakra.summary minH="42px" cursor="pointer">
        <b>{obstacle.name}</b>{' '}
        <chakra.span color="soft">
          {ROLE_WORDS[obstacle.role]}
          {obstacle.motions.length > 0
            ? `, moves from ${obstacle.motions.map(({ fromName, toName }) => `${fromName} to ${toName}`).join(' and from ')}`
            : ''}
          {obstacle.removable ? ', comes out' : ''}
        </chakra.span>
      </chakra.summary>
      <Owner name={obstacle.name}>
        <Box display="flex" gap="2" alignItems="end" mb="2" flexWrap="wrap">
          <Box flex="1 1 200px">
            <TextEntry
              label="Name"
              value={obstacle.name}
              onEnter={(text) => readName(text, (name) => setValue(`rename ${obstacle.name}`, at('name'), name))}
            />
          </Box>
          <Select
            label={of('Is')}
            value={obstacle.role}
            options={OBSTACLE_ROLES.map((value) => ({ value, label: ROLE_WORDS[value] }))}
            onChange={(role) => setValue(`what ${obstacle.name} is`, at('role'), role)}
          />
          <Select
            label={of('Can be taken out')}
            value={obstacle.removable ? 'yes' : 'no'}
            options={[
              { value: 'no', label: 'stays' },
              { value: 'yes', label: 'comes out' },
            ]}
            onChange={(value) => setValue(`whether ${obstacle.name} comes out`, at('removable'), value === 'yes')}
          />
          <SquareButton
            label={`Remove ${obstacle.name}`}
            onClick={() => applyEdit(`remove ${obstacle.name}`, (system) => withoutObstacle(system, i))}
          >
            <Trash2 size={18} aria-hidden />
          </SquareButton>
        </Box>
        <FieldGrid>
          <KnownField label={of('From the datum forward')} path={at('x_m')} />
          <KnownField label={of(sides('From the datum to port'))} path={at('y_m')} />
          <KnownField label={of('Above the datum')} path={at('z_m')} />
          <KnownField label={of(sides('Turned to port'))} path={at('yaw_deg')} />
          <KnownField label={of('Nose up')} path={at('pitch_deg')} />
          <KnownField label={of(sides('Starboard down'))} path={at('roll_deg')} />
          {obstacle.keep_m ? (
            <KnownField label={of('Distance to keep')} path={at('keep_m')} />
          ) : (
            <Box alignSelf="end">
              <Button
                onClick={() =>
                  setValue(of('distance to keep'), at('keep_m'), chosen(obstacle.role === 'heat' ? 0.1 : 0.02))
                }
              >
                Its own distance to keep
              </Button>
            </Box>
          )}
        </FieldGrid>
        {obstacle.bodies.map((body, b) => (
          <BodyRow key={b} body={body} obstacle={obstacle} i={i} b={b} />
        ))}
        {obstacle.bodies.length < MOST_BODIES && (
          <Box mt="3" display="flex" gap="2" flexWrap="wrap">
            <Button onClick={() => applyEdit(`one more body of ${obstacle.name}`, (system) => withBody(system, i))}>
              <Plus size={18} aria-hidden />
              One more body
            </Button>
            <Button onClick={() => applyEdit(`an opening in ${obstacle.name}`, (system) => withOpening(system, i))}>
              <Plus size={18} aria-hidden />
              An opening in it
            </Button>
          </Box>
        )}
        {obstacle.motions.map((motion, m) => (
          <MotionRow key={m} motion={motion} obstacle={obstacle} i={i} m={m} />
        ))}
        {obstacle.motions.length < 2 && (
          <Box mt="3" display="flex" gap="2" flexWrap="wrap">
            <Button onClick={() => applyEdit(`${obstacle.name} travels`, (system) => withMotion(system, i, 'slide'))}>
              <Plus size={18} aria-hidden />
              It travels
            </Button>
            <Button onClick={() => applyEdit(`${obstacle.name} swings`, (system) => withMotion(system, i, 'hinge'))}>
              <Plus size={18} aria-hidden />
              It swings
            </Button>
          </Box>
        )}
      </Owner>
    </chakra.details>
  );
}

const MOST_BODIES = 12;

/** One of the bodies that an obstacle is made of; those after the first have their place against it. */
function BodyRow({
  body,
  obstacle,
  i,
  b,
}: {
  readonly body: ObstacleDocument['bodies'][number];
  readonly obstacle: ObstacleDocument;
  readonly i: number;
  readonly b: number;
}) {
  const at = (key: string) => ['fit', 'obstacles', i, 'bodies', b, key];
  const sides = useSides();
  const isCut = body.operation === 'cut';
  const name = b === 0 ? obstacle.name : `${obstacle.name}, ${isCut ? 'opening' : 'body'} ${b + 1}`;
  return (
    <Box mt="3">
      <ShapeFields shape={body.shape} path={at('shape')} side="" owner={name}>
        {b > 0 && (
          <>
            <Select
              label={`Is, ${name}`}
              value={isCut ? 'cut' : 'add'}
              options={[
                { value: 'add', label: 'joined to it' },
                { value: 'cut', label: 'an opening in it' },
              ]}
              onChange={(value) => setValue(`what ${name} is`, at('operation'), value === 'cut' ? 'cut' : undefined)}
            />
            <KnownField label={`Forward of the first body, ${name}`} path={at('x_m')} />
            <KnownField label={`${sides('To port of it')}, ${name}`} path={at('y_m')} />
            <KnownField label={`Above it, ${name}`} path={at('z_m')} />
            <KnownField label={`${sides('Turned to port')}, ${name}`} path={at('yaw_deg')} />
            <KnownField label={`Nose up, ${name}`} path={at('pitch_deg')} />
            <KnownField label={`${sides('Starboard down')}, ${name}`} path={at('roll_deg')} />
            <Box alignSelf="end">
              <Button
                kind="danger"
                onClick={() =>
                  applyEdit(`remove a body of ${obstacle.name}`, (system) =>
                    withoutEntry(system, ['fit', 'obstacles', i, 'bodies'], b),
                  )
                }
              >
                <Trash2 size={18} aria-hidden />
                Remove this {isCut ? 'opening' : 'body'}
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
  obstacle,
  i,
  m,
}: {
  readonly motion: MotionDocument;
  readonly obstacle: ObstacleDocument;
  readonly i: number;
  readonly m: number;
}) {
  const at = (...keys: string[]) => ['fit', 'obstacles', i, 'motions', m, ...keys];
  const of = (text: string): string => `${text}, ${obstacle.name}${m > 0 ? ', second motion' : ''}`;
  const sides = useSides();
  const slides = motion.kind === 'slide';
  const way = wayOf(slides ? motion.way : motion.axis);
  const options = [...(Object.keys(WAYS) as Way[]), ...(way === 'slantwise' ? ['slantwise' as const] : [])].map(
    (value) => ({ value, label: sides(slides ? value : `about the axis ${value}`) }),
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
          onClick={() => applyEdit(`${obstacle.name} stands still`, (system) => withoutMotion(system, i, m))}
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
              hint="0 or less: against the way it travels."
            />
            <KnownField label={of(`From rest to ${motion.toName}`)} path={at('to_m')} />
          </>
        ) : (
          <>
            <KnownField label={of('Hinge, from the datum forward')} path={at('x_m')} />
            <KnownField label={of(sides('Hinge, from the datum to port'))} path={at('y_m')} />
            <KnownField label={of('Hinge, above the datum')} path={at('z_m')} />
            <KnownField label={of(`From rest to ${motion.fromName}`)} path={at('from_deg')} />
            <KnownField label={of(`From rest to ${motion.toName}`)} path={at('to_deg')} />
          </>
        )}
      </FieldGrid>
    </Box>
  );
}
