import { assumed } from '../schema/known';
import type { PortDocument } from './schema';

export type Cap = NonNullable<PortDocument['cap']>;
export type CapKind = Cap['kind'];

/** What each kind of cap is called. */
export const CAP_WORDS: Readonly<Record<CapKind, string>> = {
  plain: 'plain, tight',
  drilled: 'with a hole',
  screw: 'with a hole and a screw that shuts it',
  barb: 'with a barb for a vent hose',
  'in-only': 'lets air in only',
  'both-ways': 'lets air in, and pressure out',
};

/** Common practice: a valved cap lets air in from some 0.5 kPa, and out from some 7. */
const OPENS_IN_PA = assumed(500, 300);
const OPENS_OUT_PA = assumed(7000, 3000);
/** Common practice: 1.2 mm (3/64 in) feeds a heater, 3 mm (1/8 in) a carburettor. */
const HOLE_M = assumed(0.003, 0.001);

/** A cap of a kind as it is begun with, keeping its hole where it has one. */
export const newCap = (kind: CapKind, old?: Cap): Cap => ({
  kind,
  ...(kind === 'plain' ? {} : { hole_m: old?.hole_m ?? HOLE_M }),
  ...(kind === 'in-only' || kind === 'both-ways' ? { opensIn_Pa: old?.opensIn_Pa ?? OPENS_IN_PA } : {}),
  ...(kind === 'both-ways' ? { opensOut_Pa: old?.opensOut_Pa ?? OPENS_OUT_PA } : {}),
  ...(kind === 'screw' ? { shut: old?.shut ?? false } : {}),
});

/** A way for air through a cap that is on: how wide, and the pressure that opens it. */
export type CapWay = { readonly hole_m: number; readonly opens_Pa: number };

/**
 * How air goes through a cap while it is on; nothing where it is tight, or nobody has said how wide its hole is. While
 * it is off, the filler is open.
 */
export function capWays(cap: Cap | undefined): { readonly in?: CapWay; readonly out?: CapWay } {
  const hole_m = cap?.hole_m?.value;
  if (!cap || hole_m === undefined || cap.kind === 'plain' || (cap.kind === 'screw' && cap.shut === true)) return {};
  const way = (opens_Pa: number): CapWay => ({ hole_m, opens_Pa });
  if (cap.kind === 'in-only') return { in: way(cap.opensIn_Pa?.value ?? 0) };
  if (cap.kind === 'both-ways') return { in: way(cap.opensIn_Pa?.value ?? 0), out: way(cap.opensOut_Pa?.value ?? 0) };
  return { in: way(0), out: way(0) };
}

/** Whether air comes in by a port: by a vent, or through the cap of a filler. */
export const letsAirIn = ({ role, cap }: Pick<PortDocument, 'role' | 'cap'>): boolean =>
  role === 'vent' || (role === 'filler' && capWays(cap).in !== undefined);
/** Whether what builds up gets out by a port. */
export const letsAirOut = ({ role, cap }: Pick<PortDocument, 'role' | 'cap'>): boolean =>
  role === 'vent' || (role === 'filler' && capWays(cap).out !== undefined);
