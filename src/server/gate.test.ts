import { describe, expect, it } from 'vitest';
import { seeded } from '@/core/seeded';
import { turnedAway, type Asked } from './gate';

const asked = (over: Partial<{ method: string; url: string; headers: Record<string, string> }> = {}): Asked => {
  const headers: Record<string, string> = { host: '127.0.0.1:3000', ...over.headers };
  return { method: over.method ?? 'GET', url: over.url ?? '/', header: (name) => headers[name] };
};
const statusOf = (over: Parameters<typeof asked>[0], addresses: string[] = []): number | undefined =>
  turnedAway(asked(over), addresses)?.status;

describe('who is let through', () => {
  it.each(['127.0.0.1', '127.0.0.1:3000', 'localhost', 'LocalHost:8080', '[::1]:3000'])('a request to %s', (host) => {
    expect(statusOf({ headers: { host } })).toBeUndefined();
  });

  it.each([
    'evil.example',
    '127.0.0.1.evil.example',
    'localhost.evil.example',
    '127.0.0.2',
    '192.168.1.5:3000',
    'localhost:x',
    'localhost:3000@evil.example',
    '',
    '0.0.0.0',
    '[::]',
  ])('not one to “%s”, whatever it asks for', (host) => {
    for (const url of ['/', '/api/systems', '/_next/static/x.js', '/api/rig/1'])
      expect(statusOf({ url, headers: { host } })).toBe(421);
    expect(turnedAway(asked({ headers: { host } }))?.detail).toMatch(/this machine only/);
  });

  it('an address of this machine only where the network is answered', () => {
    expect(statusOf({ headers: { host: '192.168.1.5:3000' } }, ['192.168.1.5'])).toBeUndefined();
    expect(statusOf({ headers: { host: '192.168.1.6:3000' } }, ['192.168.1.5'])).toBe(421);
  });

  it.each<[string, string, Record<string, string>, number | undefined]>([
    ['POST', '/api/systems', { origin: 'http://127.0.0.1:3000' }, undefined],
    ['POST', '/api/systems', {}, undefined],
    ['POST', '/api/systems', { origin: 'http://127.0.0.1:9999' }, 403],
    ['PUT', '/api/systems/a', { origin: 'http://evil.example' }, 403],
    ['POST', '/api/systems', { origin: 'null' }, 403],
    ['POST', '/api/systems', { origin: '%' }, 403],
    ['POST', '/api/systems', { 'sec-fetch-site': 'same-origin' }, undefined],
    ['POST', '/api/systems', { 'sec-fetch-site': 'same-site' }, 403],
    ['DELETE', '/api/systems/a', { 'sec-fetch-site': 'cross-site' }, 403],
    ['GET', '/api/systems', { 'sec-fetch-site': 'cross-site' }, 403],
    ['GET', '/api/systems', { 'sec-fetch-site': 'none' }, undefined],
    // A link on another site may open a page.
    ['GET', '/systems/a', { 'sec-fetch-site': 'cross-site' }, undefined],
  ])('%s %s with %o: %s', (method, url, headers, status) => {
    expect(statusOf({ method, url, headers })).toBe(status);
  });

  it.each<[string, string, number]>([
    ['TRACE', '/', 405],
    ['OPTIONS', '/api/systems', 405],
    ['CONNECT', '/', 405],
    ['PATCH', '/api/systems/a', 405],
    ['', '/', 405],
    ['GET', '/%', 400],
    ['GET', '/api/systems/%zz', 400],
    ['GET', '/%c0%af', 400],
    ['GET', '//evil.example/', 400],
    ['GET', 'http://evil.example/', 400],
    ['GET', '', 400],
    ['GET', '/a%00b', 400],
    ['GET', '/a%0d%0ab', 400],
    ['GET', '/..%5c..%5c', 400],
    ['GET', '/_next/static/..%2f..%2fdata', 400],
    ['GET', '/a/../data', 400],
    ['GET', '/a/%2e%2e/data', 400],
    ['GET', '/a//data', 400],
    ['GET', `/${'a'.repeat(5000)}`, 414],
  ])('%s %s is %s', (method, url, status) => {
    expect(statusOf({ method, url })).toBe(status);
  });

  it('whatever comes is let through or turned away with a 4xx and a sentence (seeded)', () => {
    const chance = seeded(14);
    const some = (letters: string, most: number): string =>
      Array.from(
        { length: Math.floor(chance.uniform() * most) },
        () => letters[Math.floor(chance.uniform() * letters.length)],
      ).join('');
    for (let i = 0; i < 2000; i++) {
      const turned = turnedAway(
        asked({
          method: some('GETPOSTHEAD \u0000', 6),
          url: some('/%.\\?#:@abc09\u0000é', 24),
          headers: {
            host: some('localhost127.0:[]%@ ', 14),
            origin: some('http://%null:0127.', 20),
            'sec-fetch-site': some('same-originone', 12),
          },
        }),
      );
      if (turned)
        expect(turned.status >= 400 && turned.status < 500 && turned.detail.endsWith('.'), JSON.stringify(turned)).toBe(
          true,
        );
    }
  });
});
