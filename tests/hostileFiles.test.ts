import { describe, expect, it } from 'vitest';
import { seeded } from '@/core/seeded';
import { csvs, stls, tally } from '../drill/imports';

describe('files that something happened to', () => {
  it('300 logs, catalogues and meshes: none breaks a reader, and what is taken is taken by the document too (seeded)', () => {
    const sum = tally();
    csvs(seeded(51), 130, sum);
    stls(seeded(52), 140, sum);
    // How long each takes is the drill's business.
    expect(sum.odd.filter((odd) => !/ \d+ ms$/.test(odd))).toEqual([]);
    expect(sum.tried).toBeGreaterThanOrEqual(300);
    // The drill's own files are among them: a reader that takes nothing proves nothing.
    expect(sum.taken).toBeGreaterThan(5);
  });
});
