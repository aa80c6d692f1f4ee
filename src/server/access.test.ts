import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { beforeEach, describe, expect, it } from 'vitest';
import { database, listDevices, sendAway } from '@/db';
import { COOKIE, deviceOf, fromNetwork, newCode, tryCode } from './access';

process.env.GASLINE_DATA = mkdtempSync(path.join(tmpdir(), 'gasline-access-'));
const NOW = 1_800_000_000_000;
let run = 0;
/** Each test is a device of its own, so that none waits for another's wrong codes. */
let from = '';
beforeEach(() => {
  from = `device ${run++}`;
});

const cookieOf = (): string => {
  const tried = tryCode(newCode(NOW).code, 'Phone', from, NOW);
  if (!tried.ok) throw new Error(tried.detail);
  return tried.cookie.split(';')[0]!;
};

describe('another device', () => {
  it('is let in by the code, once, and gets a cookie that scripts and other sites do not', () => {
    const { code } = newCode(NOW);
    expect(code).toMatch(/^[A-HJ-NP-RT-Z2-46-9]{8}$/);
    const tried = tryCode(` ${code.toLowerCase()} `, 'Phone', from, NOW);
    expect(tried).toMatchObject({
      ok: true,
      cookie: expect.stringMatching(
        /^gasline-device=[0-9a-f]{32}\.[0-9a-f]{64}; HttpOnly; SameSite=Strict; Path=\/; Max-Age=\d+$/,
      ) as string,
    });
    expect(tryCode(code, 'Another', `${from} b`, NOW)).toMatchObject({ ok: false, code: 'none' });
    expect(listDevices(database()).map(({ name }) => name)).toContain('Phone');
  });

  it('a code ends after ten minutes, and with the next one', () => {
    const first = newCode(NOW).code;
    expect(tryCode(first, 'Late', from, NOW + 10 * 60_000 + 1)).toMatchObject({ ok: false, code: 'none' });
    const second = newCode(NOW).code;
    newCode(NOW);
    expect(tryCode(second, 'Old', from, NOW)).toMatchObject({ ok: false, code: 'wrong' });
  });

  it('wrong codes slow down whoever tries, ever more, and no one else', () => {
    const { code } = newCode(NOW);
    let now = NOW;
    const waits: number[] = [];
    for (let i = 0; i < 5; i++) {
      expect(tryCode('WRONGWRO', 'x', from, now)).toMatchObject({ ok: false, code: 'wrong' });
      const slow = tryCode(code, 'x', from, now + 1);
      expect(slow).toMatchObject({ ok: false, code: 'slow' });
      waits.push((slow as { wait_s: number }).wait_s);
      now += waits.at(-1)! * 1000 + 1;
    }
    expect(waits).toEqual([1, 2, 4, 8, 16]);
    expect(tryCode(code, 'Other', `${from} b`, now)).toMatchObject({ ok: true });
  });

  it('after ten wrong ones a code is void, whoever tried', () => {
    const { code } = newCode(NOW);
    for (let i = 0; i < 9; i++)
      expect(tryCode('WRONGWRO', 'x', `${from} ${i}`, NOW)).toMatchObject({
        code: 'wrong',
        detail: 'That is not the code.',
      });
    expect(tryCode('WRONGWRO', 'x', `${from} 9`, NOW)).toMatchObject({
      code: 'wrong',
      detail: expect.stringContaining('no longer works') as string,
    });
    expect(tryCode(code, 'x', `${from} y`, NOW)).toMatchObject({ ok: false, code: 'none' });
  });

  it('counts by its signature and while it stands on the list', () => {
    const cookie = cookieOf();
    const id = deviceOf(cookie, NOW);
    expect(id).toMatch(/^[0-9a-f]{32}$/);
    expect(deviceOf(`a=1; ${cookie}; b=2`, NOW)).toBe(id);
    const [value, signature] = cookie.slice(COOKIE.length + 1).split('.') as [string, string];
    const other = `${value.slice(0, -1)}${value.endsWith('0') ? '1' : '0'}`;
    for (const forged of [
      `${COOKIE}=${other}.${signature}`,
      `${COOKIE}=${value}.${'0'.repeat(64)}`,
      `${COOKIE}=${value}`,
      `${COOKIE}=.${signature}`,
      `${COOKIE}=${value}.${signature}0`,
      '',
      undefined,
    ])
      expect(deviceOf(forged, NOW)).toBeUndefined();
    expect(sendAway(database(), id!)).toBe(true);
    expect(deviceOf(cookie, NOW)).toBeUndefined();
  });

  it('is noted when it is seen', () => {
    const cookie = cookieOf();
    const id = deviceOf(cookie, NOW)!;
    deviceOf(cookie, NOW + 3_600_000);
    expect(listDevices(database()).find((device) => device.id === id)?.seenAt_ms).toBe(NOW + 3_600_000);
  });

  it('sees nothing before it is let in, and never what stays with the machine', () => {
    const cookie = cookieOf();
    for (const path of ['/pair', '/api/pair', '/_next/static/chunks/a.js', '/icon.svg'])
      expect(fromNetwork(path, undefined, NOW)).toEqual({ enters: true });
    for (const path of ['/', '/systems/a', '/compare', '/pairs', '/_next/data/x']) {
      expect(fromNetwork(path, undefined, NOW)).toMatchObject({ enters: false, status: 303, detail: '/pair' });
      expect(fromNetwork(path, cookie, NOW)).toEqual({ enters: true });
    }
    for (const path of ['/api/systems', '/api/pair/x', '/api/rig/1'])
      expect(fromNetwork(path, undefined, NOW)).toMatchObject({ status: 401 });
    expect(fromNetwork('/api/systems', cookie, NOW)).toEqual({ enters: true });
    for (const path of [
      '/data',
      '/api/data',
      '/api/data/restore',
      '/api/data/x.db',
      '/data.rsc',
      '/DATA',
      '/data.segments/_tree',
      '/api/devices',
      '/api/devices/1',
    ])
      expect(fromNetwork(path, cookie, NOW)).toMatchObject({ enters: false, status: 403 });
  });
});
