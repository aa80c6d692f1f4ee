import { readFileSync } from 'node:fs';
import { loadKernel } from '../src/core/geometry';
import { parseSystem } from '../src/core/document';
import { evaluateSystem, numbersOf, templatesOf, calibrationResult, fitDrawing } from '../src/core/evaluate';
import { judge } from '../src/core/rules';
import { messageText } from '../src/core/units';
import { check } from '../src/cli/check';
import { tank } from '../src/cli/tank';
import { flow } from '../src/cli/flow';
import { gauge } from '../src/cli/gauge';
import { ports } from '../src/cli/ports';
import { range } from '../src/cli/range';
import { fit } from '../src/cli/fit';
await loadKernel();
type Tree = any;
const schema = JSON.parse(readFileSync('docs/format/system-v6.schema.json', 'utf8'));
type Leaf = { enum?: unknown[]; type?: unknown; known?: boolean };
const leaves = new Map<string, Leaf[]>();
const put = (at: string, leaf: Leaf) => leaves.set(at, [...(leaves.get(at) ?? []), leaf]);
function walk(s: Tree, at: string): void {
  if (s.anyOf || s.oneOf) { for (const one of [...(s.anyOf ?? []), ...(s.oneOf ?? [])]) walk(one, at); return; }
  if (s.properties) {
    if (s.properties.value && s.properties.origin) { put(at, { known: true }); return; }
    for (const [k, v] of Object.entries(s.properties)) walk(v, at ? `${at}.${k}` : k); return;
  }
  if (s.items) { walk(s.items, `${at}[]`); return; }
  put(at, { enum: s.enum ?? (s.const !== undefined ? [s.const] : undefined), type: s.type });
}
walk(schema, '');
const SKIP = /(^|\.)(id|name|note|file|format|version|at|author|text)$|^built|^photos/;
const docs: [string, Tree][] = ['tests/fixtures/box-boat', 'demo/crab-boat', 'demo/snow-vehicle', 'demo/forest-trailer', 'demo/hill-climb-car'].map((f) => [f, JSON.parse(readFileSync(`${f}.json`, 'utf8'))]);
function instances(doc: Tree, at: string): (string | number)[][] {
  let found: { node: Tree; path: (string | number)[] }[] = [{ node: doc, path: [] }];
  for (const step of at.split('.')) {
    const key = step.replace(/(\[\])+$/, ''); const depth = (step.length - key.length) / 2;
    found = found.flatMap(({ node, path }) => (node && typeof node === 'object' && key in node ? [{ node: node[key], path: [...path, key] }] : []));
    for (let d = 0; d < depth; d++) found = found.flatMap(({ node, path }) => (Array.isArray(node) ? node.map((n, i) => ({ node: n, path: [...path, i] })) : []));
  }
  return found.map(({ path }) => path);
}
const get = (d: Tree, p: (string | number)[]): Tree => p.reduce((a, k) => a[k], d);
const set = (d: Tree, p: (string | number)[], v: unknown): Tree => { const c = structuredClone(d); const last = p.at(-1)!; p.slice(0, -1).reduce((a, k) => a[k], c)[last] = v; return c; };
function mutations(v: Tree, leaf: Leaf[]): unknown[] {
  if (v && typeof v === 'object' && 'value' in v) return [v.value * 1.3 + 0.011, v.value * 0.6, v.value - 5, v.value + 30, v.value * 20].map((value) => ({ ...v, value }));
  if (typeof v === 'number') return [v * 1.3 + 0.011, v * 0.6, v + 1, v + 5, v - 1];
  if (typeof v === 'boolean') return [!v];
  const options = [...new Set(leaf.flatMap((l) => l.enum ?? []))].filter((o) => o !== v);
  return options.slice(0, 6);
}
const quick = (system: Tree): string => { const e = evaluateSystem(system, 'numbers', 'without-fit'); if (!e.ok) return JSON.stringify(e.error); return JSON.stringify(numbersOf(system, e.value)); };
const full = (system: Tree, withFit: boolean): string => {
  const e = evaluateSystem(system, 'full', withFit ? 'with-fit' : 'without-fit'); if (!e.ok) return JSON.stringify(e.error);
  const verbs = withFit ? [check, fit] : [tank, flow, gauge, ports, range];
  const out: unknown[] = verbs.map((v) => { try { return v.run(system, e.value, {}); } catch (x) { return String(x); } });
  if (!withFit) { out.push(system.tanks.map((t: Tree, i: number) => t.calibrations.map((_: unknown, k: number) => { const r = calibrationResult(system, i, k); return r.ok ? { l: r.value.lines, m: r.value.measured } : r; }))); const { findings } = judge(system, e.value); out.push(findings.map((f: any) => [f.id, messageText(f.what, 'metric'), f.why, f.mend])); }
  return JSON.stringify(out, (k, v) => (v instanceof Float64Array || v instanceof Uint32Array ? [...v] : v));
};
const base = new Map<string, string>();
const baseOf = (name: string, doc: Tree, stage: string): string => { const k = name + stage; if (!base.has(k)) base.set(k, stage === 'q' ? quick(doc) : full(doc, stage === 'f')); return base.get(k)!; };
const list = [...leaves.keys()].filter((at) => !SKIP.test(at));
const none: string[] = []; const dead: string[] = []; let acts = 0;
const T0 = Date.now(); const [from, to] = [Number(process.argv[2] ?? 0), Number(process.argv[3] ?? 9e9)];
for (const at of list.slice(from, to)) {
  const spots = docs.flatMap(([name, doc]) => instances(doc, at).slice(0, 3).map((path) => ({ name, doc, path }))).slice(0, 8);
  if (spots.length === 0) { none.push(at); continue; }
  let live = false;
  for (const stage of ['q', 'n', 'f']) {
    for (const { name, doc, path } of stage === 'f' ? spots.slice(0, 3) : spots.slice(0, 6)) {
      for (const value of mutations(get(doc, path), leaves.get(at)!).slice(0, stage === 'q' ? 5 : 3)) {
        const next = set(doc, path, value);
        const parsed = parseSystem(next); if (!parsed.ok) continue;
        try { live = (stage === 'q' ? quick(next) : full(next, stage === 'f')) !== baseOf(name, doc, stage); } catch { live = true; }
        if (live) break;
      }
      if (live) break;
    }
    if (live) break;
  }
  if (live) acts++; else { dead.push(at); console.log('DEAD', at, ((Date.now() - T0) / 1000).toFixed(0)); }
}
console.log('acts', acts, 'dead', dead.length, 'no instance', none.length, none.join(' '));
