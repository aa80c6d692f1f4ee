import { dot, type Vec3 } from '../geometry';
import type { FittingLoss, LinkElement, NetworkLink, NetworkNode } from '../network';
import { adapterRow } from '../reference/joins';
import { fittingKs, ROUGHNESS, type FittingKey } from '../reference/losses';
import { endsOfComponent, kindOf, MIDDLE, type Hydraulics } from '../components';
import { endKey } from '../plan/circuits';
import type { PickupModel, PortModel } from './compileTank';
import type { ComponentDocument, LineDocument } from '../plan/schema';
import { inletNode, linkName, type FlowInputs, type TankLevel } from './networkParts';

/**
 * Where a line lets out into a tank: under the surface it is joined to the
 * liquid both ways; over it the liquid falls, and what it falls is lost and
 * cannot come back.
 */
export function mouthElements(level: TankLevel, { document, point_m }: PortModel, inputs: FlowInputs): LinkElement[] {
  const length_m = document.drop_m?.value ?? 0;
  const mouth: Vec3 = [point_m[0], point_m[1], point_m[2] - length_m];
  return outInto(level, mouth, { bore_m: document.bore_m.value, length_m }, inputs);
}

/** The same of a mouth anywhere in a tank, with the tube that leads to it. */
export function outInto(
  { up, offset_m }: TankLevel,
  mouth: Vec3,
  tube: { readonly bore_m: number; readonly length_m: number },
  inputs: FlowInputs,
): LinkElement[] {
  const over_m = dot(up, mouth) - offset_m;
  const way: LinkElement = {
    kind: 'line',
    ...tube,
    roughness_m: ROUGHNESS['drawn-tube'].roughness_m,
    fittings: [fittingLoss('exit', 1, inputs)],
  };
  return over_m <= 0
    ? [way]
    : [way, { kind: 'check', opens_Pa: inputs.fluid.density_kgPerM3 * inputs.state.gravity.magnitude_mPerS2 * over_m }];
}

/** So many fittings of a kind, by the method that the plan chose. */
export const fittingLoss = (key: FittingKey, count: number, { system }: FlowInputs): FittingLoss => ({
  ...fittingKs(key, system.practice.losses),
  count,
});

/** A pickup from its inlet up its tube. */
export const pickupElement = ({ document }: PickupModel, inputs: FlowInputs, tubeLength_m: number): LinkElement => ({
  kind: 'line',
  bore_m: document.bore_m.value,
  length_m: tubeLength_m,
  roughness_m: ROUGHNESS['drawn-tube'].roughness_m,
  fittings: [fittingLoss(document.kind === 'bottom-outlet' ? 'entrance-sharp' : 'entrance-inward', 1, inputs)],
});

/** A line with its fittings and the adapters at its ends. */
export function lineElements(line: LineDocument, inputs: FlowInputs): LinkElement[] {
  const fittings = line.fittings.map(({ fitting, count }) => fittingLoss(fitting, count, inputs));
  // Parts screwed together lose a little at the joint, as a union does.
  const costsNothing = line.length_m.value === 0 && fittings.every(({ count }) => count === 0);
  return [
    {
      kind: 'line',
      bore_m: line.bore_m.value,
      length_m: line.length_m.value,
      roughness_m: ROUGHNESS[line.wall].roughness_m,
      fittings: costsNothing ? [fittingLoss('swivel', 1, inputs)] : fittings,
    },
    ...[...line.from.adapters, ...line.to.adapters].map((key) => adapterElement(key, line.bore_m.value, inputs)),
  ];
}

/** An adapter: its narrowing and widening by Borda and Carnot, on its own bore, and its turn. */
function adapterElement(key: string, lineBore_m: number, inputs: FlowInputs): LinkElement {
  const { bore_m, form } = adapterRow(key)!;
  const share = Math.min(1, bore_m / lineBore_m) ** 2;
  const turn =
    form === '90' ? [fittingLoss('elbow-90', 1, inputs)] : form === '45' ? [fittingLoss('elbow-45', 1, inputs)] : [];
  return {
    kind: 'line',
    bore_m,
    length_m: 0,
    roughness_m: 0,
    fittings: [{ k1: 160, kInfinity: 0.5 * (1 - share) + (1 - share) ** 2, sized: false, count: 1 }, ...turn],
  };
}

/** The ends of a part as nodes, at its height. */
export function componentNodes(part: ComponentDocument, height_m: number): NetworkNode[] {
  const { ends, isOpenToAir, hasMiddle } = kindOf(part);
  if (isOpenToAir) return [{ id: inletNode(part.id), name: part.name, height_m, fixedGauge_Pa: 0 }];
  return [
    ...endsOfComponent(part).map((end) => ({
      id: endKey({ item: part.id, end }),
      name: `${part.name}, ${ends[end]}`,
      height_m,
    })),
    ...(hasMiddle ? [{ id: linkName(part, MIDDLE), name: part.name, height_m }] : []),
  ];
}

/** With the gas that comes out of it all the time. */
export const blowing = (part: ComponentDocument, nodes: NetworkNode[]): NetworkNode[] => {
  const blows = kindOf(part).blows_m3PerS?.(part);
  return blows === undefined ? nodes : nodes.map((node) => ({ ...node, outflow_m3PerS: -blows }));
};

/** What flow meets in a part. */
export const componentLinks = (part: ComponentDocument, inputs: FlowInputs): NetworkLink[] =>
  kindOf(part)
    .links(part, hydraulicsOf(inputs))
    .map(({ suffix, from, to, elements }) => ({
      id: linkName(part, suffix),
      name: part.name,
      from: linkName(part, from),
      to: linkName(part, to),
      elements,
    }));

/** What the losses of parts depend on. */
export const hydraulicsOf = (inputs: FlowInputs): Hydraulics => ({
  fitting: (key, count) => fittingLoss(key, count, inputs),
  viscosity_PaS: inputs.fluid.viscosity_PaS,
  supply_V: inputs.state.supply_V,
  tank: (id) => {
    const level = inputs.levels.find(({ tank }) => tank.document.id === id);
    return level && { volume_m3: level.volume_m3, gross_m3: level.tank.gross_m3 };
  },
});
