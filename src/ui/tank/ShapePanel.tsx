'use client';

import { Box } from '@chakra-ui/react';
import { shapeMesh, type ShapeDocument } from '@/core/document';
import { END_SHAPES, type EndShape, type ExtrudeAxis } from '@/core/geometry';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { FieldGrid, Panel } from '../parts/Panel';
import { setValue, useValue } from '../state/editor';
import { ProfileEditor } from './ProfileEditor';
import { asKind, type ShapeKind } from './shapeKinds';

const KIND_WORDS: Readonly<Record<ShapeKind, string>> = {
  box: 'box', prism: 'profile, extruded', loft: 'from one profile to another', cylinder: 'cylinder with ends', cone: 'cone or tapered tube',
};

const AXIS_WORDS: Readonly<Record<ExtrudeAxis, string>> = { x: 'fore and aft', y: 'side to side', z: 'upright' };
const END_WORDS: Readonly<Record<EndShape, string>> = { flat: 'flat', hemispherical: 'half ball', elliptical: '2:1 elliptical', torispherical: 'dished (torispherical)' };

const SHAPE = ['tanks', 0, 'shape'] as const;

/** What the tank looks like inside, and the sizes that make it so. */
export function ShapePanel() {
  const shape = useValue((system) => system.tanks[0]!.shape);
  const mesh = shapeMesh(shape);
  return (
    <Panel title="Inside shape" testId="sizes">
      <Box data-path={SHAPE.join('.')}>
        <FieldGrid>
          <Select label="Shape" value={shape.kind} options={(Object.keys(KIND_WORDS) as ShapeKind[]).map((value) => ({ value, label: KIND_WORDS[value] }))} onChange={(kind) => setValue('shape', SHAPE, asKind(shape, kind))} />
          {shape.kind !== 'box' && <Select label="Runs" value={shape.axis} options={(['x', 'y', 'z'] as const).map((value) => ({ value, label: AXIS_WORDS[value] }))} onChange={(axis) => setValue('which way it runs', [...SHAPE, 'axis'], axis)} />}
          <ShapeSizes shape={shape} />
          <KnownField label="Fill limit" path={['tanks', 0, 'fillLimit_ratio']} role="share" />
        </FieldGrid>
        {shape.kind === 'prism' && <ProfileEditor title="Profile" path={[...SHAPE, 'profile']} points={shape.profile} axis={shape.axis} />}
        {shape.kind === 'loft' && (
          <Box display="grid" gap="4" gridTemplateColumns={{ base: '1fr', xl: '1fr 1fr' }}>
            <ProfileEditor title="Near profile" path={[...SHAPE, 'near']} points={shape.near} axis={shape.axis} />
            <ProfileEditor title="Far profile" path={[...SHAPE, 'far']} points={shape.far} axis={shape.axis} />
          </Box>
        )}
        {shape.kind === 'loft' && <Box fontSize="sm" color="soft" mt="2">Panels that twist are reckoned as ruled surfaces. Folding them flat changes the volume.</Box>}
        {!mesh.ok && <Box role="alert" color="stop" fontWeight="600" mt="2">{mesh.error.detail}</Box>}
      </Box>
    </Panel>
  );
}

function ShapeSizes({ shape }: { readonly shape: ShapeDocument }) {
  const at = (key: string) => [...SHAPE, key];
  switch (shape.kind) {
    case 'box':
      return (
        <>
          <KnownField label="Inside length" path={at('length_m')} role="tape" />
          <KnownField label="Inside width" path={at('width_m')} role="tape" />
          <KnownField label="Inside height" path={at('height_m')} role="tape" />
        </>
      );
    case 'prism':
    case 'loft':
      return <KnownField label="Inside length" path={at('length_m')} role="tape" />;
    case 'cylinder':
      return (
        <>
          <KnownField label="Inside diameter" path={at('diameter_m')} role="tape" />
          <KnownField label="Straight shell" path={at('shell_m')} role="tape" />
          <EndSelect label={shape.axis === 'z' ? 'Lower end' : 'Near end'} at="nearEnd" value={shape.nearEnd} />
          <EndSelect label={shape.axis === 'z' ? 'Upper end' : 'Far end'} at="farEnd" value={shape.farEnd} />
        </>
      );
    case 'cone':
      return (
        <>
          <KnownField label={shape.axis === 'z' ? 'Diameter below' : 'Near diameter'} path={at('nearDiameter_m')} role="tape" />
          <KnownField label={shape.axis === 'z' ? 'Diameter above' : 'Far diameter'} path={at('farDiameter_m')} role="tape" />
          <KnownField label="Inside length" path={at('length_m')} role="tape" />
        </>
      );
  }
}

const EndSelect = ({ label, at, value }: { readonly label: string; readonly at: 'nearEnd' | 'farEnd'; readonly value: EndShape }) => (
  <Select label={label} value={value} options={END_SHAPES.map((end) => ({ value: end, label: END_WORDS[end] }))} onChange={(end) => setValue(label, [...SHAPE, at], end)} />
);
