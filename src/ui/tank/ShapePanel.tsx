'use client';

import { Box } from '@chakra-ui/react';
import { withValue } from '@/core/plan';
import { shapeMesh } from '@/core/model';
import { asVessel } from '@/core/plan/jobs';
import { VESSELS, vesselOf } from '@/core/reference/vessels';
import { shapeKind } from '@/core/shapes';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { applyEdit, setValue, useValue } from '../state/editor';
import { useShown } from '../state/results';
import { openTank, useTank } from '../state/tankChoice';
import { KeepLitres } from './KeepLitres';
import { apart } from './tankEdits';
import { Profiles, ShapeFields } from './ShapeFields';
import { StlImport } from './StlImport';

/** The tank's first body, and what is true of the whole: where it is measured, how far it is filled. */
export function ShapePanel() {
  const t = useTank();
  const T = ['tanks', t] as const;
  const shape = useValue((system) => system.tanks[t]!.shape);
  const tankId = useValue((system) => system.tanks[t]!.id);
  const dimensions = useValue((system) => system.tanks[t]!.dimensions);
  // As it is bought: another size makes it a tank of its own.
  const bought = useValue(({ tanks }) => {
    const tank = tanks[t]!;
    return VESSELS.find((row) => JSON.stringify(asVessel(tank, row).shape) === JSON.stringify(tank.shape))?.key ?? '';
  });
  const mesh = shapeMesh(shape);
  return (
    <Panel
      title="Shape"
      testId="sizes"
      aside={
        <StlImport into="shape" onTake={(system, taken) => withValue(system, ['tanks', openTank(), 'shape'], taken)} />
      }
    >
      <ShapeFields
        shape={shape}
        path={[...T, 'shape']}
        side={dimensions === 'inside' ? 'Inside' : 'Outside'}
        hasProfiles={false}
      >
        <Select
          label="Bought vessel"
          value={bought}
          options={[
            { value: '', label: 'none: made to size' },
            ...VESSELS.map(({ key, name }) => ({ value: key, label: name })),
          ]}
          onChange={(key) => {
            const vessel = vesselOf(key);
            if (vessel)
              applyEdit(vessel.name, (system) => ({
                ...system,
                tanks: system.tanks.map((tank, k) => (k === openTank() ? asVessel(tank, vessel) : tank)),
              }));
          }}
        />
        <Select
          label="Sizes are measured"
          value={dimensions}
          options={[
            { value: 'inside', label: 'inside the walls' },
            { value: 'outside', label: 'outside the walls' },
          ]}
          onChange={(value) => setValue('where sizes are measured', [...T, 'dimensions'], value)}
        />
        <KnownField path={[...T, 'fillLimit_ratio']} />
      </ShapeFields>
      <SharedWall t={t} />
      {shapeKind(shape).sizes.length > 0 && <KeepLitres key={tankId} t={t} />}
      {mesh.ok ? (
        <BodyFault />
      ) : (
        <Box role="alert" color="stop" fontWeight="600" mt="2">
          {mesh.error.detail}
        </Box>
      )}
    </Panel>
  );
}

/** With which tank it is one shell, and that their wall is counted there. */
function SharedWall({ t }: { readonly t: number }) {
  const other = useValue(({ tanks }) => tanks.find(({ id }) => id === tanks[t]!.sharesWallWith)?.name);
  if (other === undefined) return null;
  return (
    <Box mt="2" display="flex" gap="3" alignItems="center" flexWrap="wrap" data-testid="shared-wall">
      <Box flex="1">
        One shell with <b>{other}</b>; the wall between them is counted there.
      </Box>
      <Button
        onClick={() =>
          applyEdit('walls of its own', (system) => ({
            ...system,
            tanks: system.tanks.map((tank, k) => (k === t ? apart(tank) : tank)),
          }))
        }
      >
        Give it walls of its own
      </Button>
    </Box>
  );
}

/** The profiles of the tank, where its shape has any. */
export function ProfilesPanel() {
  const t = useTank();
  const shape = useValue((system) => system.tanks[t]!.shape);
  if ((shapeKind(shape).profiles ?? []).length === 0) return null;
  return (
    <Panel
      title="Profile"
      {...(shape.kind === 'loft'
        ? {
            aside: (
              <Box color="soft">
                Panels that twist are reckoned as ruled surfaces; folding them flat changes the volume.
              </Box>
            ),
          }
        : {})}
    >
      <Profiles shape={shape} path={['tanks', t, 'shape']} />
    </Panel>
  );
}

/** Why the bodies together make no tank. */
function BodyFault() {
  const error = useShown(({ results }) =>
    results && !results.ok && results.error.code === 'bad-shape' ? results.error : undefined,
  );
  return error ? (
    <Box role="alert" color="stop" fontWeight="600" mt="2">
      {error.at}: {error.detail}
    </Box>
  ) : null;
}
