import { spawn } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { createSystem, dataFile, findSystem, listRevisions, openDatabase, openStore } from '@/db';
import { connectionOf } from '@/db/connection';
import { seeded, type Chance } from '@/core/seeded';
import { crabBoat } from '../bench/largeSystem';
import { filed, served } from '../bench/served';
import type { Drill } from './index';

const ID = 'drilled';

/** What the data shows after a kill: what was lost of what had been answered, and what is half or damaged. */
function lookedAt(
  folder: string,
  id: string,
  acknowledged: number,
): { readonly lost: boolean; readonly half: boolean; readonly corrupt: boolean } {
  const db = openDatabase(dataFile(folder));
  try {
    const corrupt = connectionOf(db).pragma('quick_check(1)', { simple: true }) !== 'ok';
    const found = findSystem(db, id);
    if (!found.ok) return { lost: true, half: found.error.code === 'unreadable', corrupt };
    const { revision, document } = found.value;
    const last = listRevisions(db, id)[0]?.revision;
    const says = revision === 1 ? '' : `revision ${revision}`;
    return { lost: revision < acknowledged, half: document.description !== says || last !== revision, corrupt };
  } finally {
    connectionOf(db).close();
  }
}

const tally = () => ({ kills: 0, acknowledged: 0, lost: 0, half: 0, corrupt: 0 });
type Tally = ReturnType<typeof tally>;

function add(sum: Tally, seen: ReturnType<typeof lookedAt>, acknowledged: number): void {
  sum.kills++;
  sum.acknowledged += acknowledged;
  sum.lost += Number(seen.lost);
  sum.half += Number(seen.half);
  sum.corrupt += Number(seen.corrupt);
}

const said = ({ kills, acknowledged, lost, half, corrupt }: Tally, what: string) => ({
  figures: `${kills} hard kills of ${what} during ${acknowledged} acknowledged saves: ${lost} lost, ${half} half-written, ${corrupt} damaged`,
  passed: lost + half + corrupt === 0 && acknowledged > kills,
});

/**
 * Kills what writes to the data, a process of its own, at some moment between its first answer and a fifth of a second
 * later.
 */
export const writerKills: Drill = {
  name: 'kills',
  async run(share, seed) {
    const chance = seeded(seed);
    const folder = mkdtempSync(path.join(tmpdir(), 'gasline-drill-'));
    const store = openStore(folder, Date.now());
    if (!store.ok) throw new Error(store.error.detail);
    const boat = { ...crabBoat(), description: '' };
    writeFileSync(path.join(folder, 'document.json'), JSON.stringify(boat));
    createSystem(store.value, ID, boat, Date.now());
    connectionOf(store.value).close();
    const sum = tally();
    let before = 1;
    for (let i = 0; i < 1000 * share; i++) {
      const last = await killedAfter(folder, chance, before);
      add(sum, lookedAt(folder, ID, last), last - before);
      before = last;
    }
    return said(sum, 'the writer');
  },
};

function killedAfter(folder: string, chance: Chance, before: number): Promise<number> {
  const writer = spawn(process.execPath, [process.env.GASLINE_DRILL_WRITER!, folder, ID], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let heard = '';
  let begun = false;
  writer.stdout.on('data', (text: Buffer) => {
    heard += text.toString();
    if (begun) return;
    begun = true;
    setTimeout(() => writer.kill('SIGKILL'), 200 * chance.uniform());
  });
  // Only whole lines were said.
  return new Promise((done, failed) =>
    writer.on('close', (code, signal) => {
      // One that ended by itself was not killed, and proves nothing.
      if (signal !== 'SIGKILL') failed(new Error(`the writer ended by itself with ${code}`));
      else done(Number(heard.slice(0, heard.lastIndexOf('\n')).split('\n').at(-1)) || before);
    }),
  );
}

/** Kills the whole server while pages save. */
export const serverKills: Drill = {
  name: 'server-kills',
  async run(share, seed) {
    const chance = seeded(seed + 1);
    const sum = tally();
    const boat = { ...crabBoat(), description: '' };
    for (let i = 0; i < Math.max(1, 40 * share); i++) {
      await served(async ({ url, folder, pid }) => {
        const id = await filed(url, boat);
        let acknowledged = 1;
        const until = performance.now() + 50 + 600 * chance.uniform();
        const killer = setTimeout(() => process.kill(pid, 'SIGKILL'), until - performance.now());
        try {
          for (;;) {
            const answer = await fetch(`${url}/api/systems/${id}`, {
              method: 'PUT',
              headers: { 'content-type': 'application/json', 'if-match': String(acknowledged) },
              body: JSON.stringify({ ...boat, description: `revision ${acknowledged + 1}` }),
            });
            if (!answer.ok) throw new Error(String(answer.status));
            acknowledged = ((await answer.json()) as { revision: number }).revision;
          }
        } catch {
          clearTimeout(killer); // it is gone
        }
        await new Promise((resolve) => setTimeout(resolve, 50));
        add(sum, lookedAt(folder, id, acknowledged), acknowledged - 1);
      });
    }
    return said(sum, 'the server');
  },
};
