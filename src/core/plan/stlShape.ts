import { closedStl, plainName, sound, type StlCode, type StlUnit } from '../formats';
import { kernelVolume_m3, meshBounds, meshVolume, type Vec3 } from '../geometry';
import { failure, success, type Outcome } from '../outcome';
import { meshText, textMesh } from '../shapes';
import type { ShapeDocument } from './schema';

export type StlShape = {
  readonly shape: Extract<ShapeDocument, { kind: 'mesh' }>;
  /** Where its aft, starboard, lower corner lies in the file. */ readonly corner_m: Vec3;
};

/** The kernel works in single precision; on a body of many small faces its volume is good to this. */
const KERNEL_REL = 1e-3;
const MOST_FILE_CHARACTERS = 120;

/**
 * A shape from the bytes of an STL, as the document will hold it: checked after
 * its corners went into single precision and back, so that what is taken can be
 * saved; and its volume once more by the boolean kernel.
 * `loadKernel` must have come back.
 */
export function stlShape(bytes: Uint8Array, unit: StlUnit, file: string): Outcome<StlShape, StlCode | 'not-solid'> {
  const read = closedStl(bytes, unit);
  if (!read.ok) return read;
  const text = meshText(read.value);
  const held = textMesh(text);
  // Too small a body in this unit is told as that.
  const asRead = held.ok ? undefined : sound(read.value);
  if (asRead?.ok === false) return asRead;
  if (!held.ok)
    return failure(
      'flat',
      held.error.at,
      `In this unit its corners are too close together to be kept apart: its mesh ${held.error.detail}`,
    );
  const whole = sound(held.value);
  if (!whole.ok) return whole;
  const volume_m3 = meshVolume(whole.value);
  const byKernel_m3 = kernelVolume_m3(whole.value);
  if (byKernel_m3 === undefined || Math.abs(byKernel_m3 - volume_m3) > KERNEL_REL * volume_m3) {
    return failure(
      'not-solid',
      'mesh',
      byKernel_m3 === undefined
        ? 'The boolean kernel does not take the mesh for a solid. Where bodies touch in an edge or a corner alone, join or part them where they were drawn.'
        : `Two ways to its volume disagree: ${(volume_m3 * 1e3).toPrecision(4)} L by its faces, ${(byKernel_m3 * 1e3).toPrecision(4)} L by the boolean kernel. Save the mesh anew where it was drawn.`,
    );
  }
  return success({
    shape: { kind: 'mesh', file: plainName(file, MOST_FILE_CHARACTERS), ...text },
    corner_m: meshBounds(whole.value).min,
  });
}
