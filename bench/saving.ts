/**
 * What a save costs the server: its processor's time and the bytes sent, in a job of 20,000 segments. The reference is
 * the same server reading the same job whole.
 */
import { readdirSync, readFileSync } from 'node:fs';

const ticksPerSecond = 100;

/** Processor time of a process and its children, ms; Linux counts in hundredths of a second. */
function processorMs(pid: number): number {
  const stats = readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .flatMap((name) => {
      try {
        const words = readFileSync(`/proc/${name}/stat`, 'utf8').split(') ')[1]?.split(' ') ?? [];
        return [{ pid: Number(name), parent: Number(words[1]), ticks: Number(words[11]) + Number(words[12]) }];
      } catch {
        // It has ended meanwhile.
        return [];
      }
    });
  const family = new Set([pid]);
  for (let grown = true; grown; ) {
    const children = stats.filter((p) => family.has(p.parent) && !family.has(p.pid));
    for (const child of children) family.add(child.pid);
    grown = children.length > 0;
  }
  return (stats.filter((p) => family.has(p.pid)).reduce((sum, { ticks }) => sum + ticks, 0) * 1000) / ticksPerSecond;
}

const segmentsEach = 100;
const point = (k: number, x: number, out = 0) => {
  const angle = (2 * Math.PI * k) / segmentsEach;
  const radius = (k % 2 === 0 ? 10 : 8) + out;
  return { x: x + radius * Math.cos(angle), y: radius * Math.sin(angle) };
};
/** A cog of a hundred straight segments; one of its points moved out. */
const cog = (x: number, moved = 0) => ({
  kind: 'path',
  path: {
    start: point(0, x),
    segments: Array.from({ length: segmentsEach }, (_, k) => ({
      kind: 'line',
      to: point((k + 1) % segmentsEach, x, k === 40 ? moved : 0),
    })),
    closed: true,
  },
});
const drawn = (k: number) => ({ id: `c${k}`, name: `Cog ${k}`, purpose: 'cut', leftOut: false, source: cog(25 * k), live: [] });

/** @param pid of the server, or of what started it */
export async function measureSaving(address: string, pid: number): Promise<void> {
  const send = async (method: string, path: string, body?: object) => {
    const answer = await fetch(`${address}${path}`, {
      method,
      ...(body ? { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } } : {}),
    });
    if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${await answer.text()}`);
    return (await answer.json()) as { id: string; revision: number };
  };
  const { id } = await send('POST', '/api/jobs', { name: 'Cogs' });
  const does = (base: number, ...commands: object[]) =>
    send('POST', `/api/jobs/${id}/edits`, { base, steps: commands.map((command) => ({ step: 'do', command })) });
  let { revision } = await does(1, ...Array.from({ length: 200 }, (_, k) => ({ do: 'draw', drawn: drawn(k) })));
  const saves = 60;
  const move = async (k: number) => {
    ({ revision } = await does(revision, { do: 'redraw', drawnId: `c${k % 200}`, source: cog(25 * (k % 200), 0.1 + 0.01 * k) }));
  };
  for (let k = 0; k < 10; k++) await move(k);
  const [beforeSaves, began] = [processorMs(pid), performance.now()];
  for (let k = 10; k < 10 + saves; k++) await move(k);
  const [perSave, wall] = [(processorMs(pid) - beforeSaves) / saves, (performance.now() - began) / saves];
  const beforeReads = processorMs(pid);
  const reads = 20;
  for (let k = 0; k < reads; k++) await send('GET', `/api/jobs/${id}`);
  const perRead = (processorMs(pid) - beforeReads) / reads;
  console.log(
    `one point moved: ${perSave.toFixed(1)} ms of the server's processor, ${wall.toFixed(1)} ms until the answer; ` +
      `${(perSave / perRead).toFixed(2)} times reading the job whole (${perRead.toFixed(1)} ms)`,
  );
  await fetch(`${address}/api/jobs/${id}`, { method: 'DELETE' });
}
