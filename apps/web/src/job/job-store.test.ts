/** The open job against a server played by the test: saving, undo across a reload, lost connections, other windows. */
import { applyCommand, documentOf, emptyJob, type Job, newPicture, type Picture } from '@nuvet/core/job';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { stageStates } from '../stages/stage';
import { createJobStore } from './job-store';
import type { Unsaved, UnsavedKeeper } from './unsaved';

const id = '6f2f3a1e-8f5e-4f5f-9b1a-0c9a4f6d2b10';
const picture = newPicture({ id, name: 'otter.png', widthPx: 900, heightPx: 600, resolution: { dpi: 300, source: 'png', trusted: true } });
const first = applyCommand(emptyJob('Otter'), { do: 'bring-in', picture });
const opened = (more: object = {}) => ({
  id,
  job: documentOf(first),
  revision: 5,
  done: ['the picture'],
  redoable: [],
  inBin: false,
  ...more,
});

interface Asked {
  save?: string;
  base: number;
  steps: { step: string; command?: { do: string } }[];
  wanted: boolean;
}
let asked: Asked[];
/** What the server does next; answers a save with the revision after it unless told otherwise. */
let answer: (body: Asked) => Promise<Response> | Response;
const saved = (body: Asked, more: object = {}) => Response.json({ revision: body.base + 1, ...more });

beforeEach(() => {
  vi.useFakeTimers();
  asked = [];
  answer = (body) => saved(body);
  vi.stubGlobal('fetch', async (_url: string, init?: { body?: string }) => {
    const body = init?.body ? (JSON.parse(init.body) as Asked) : ({ base: 0, steps: [], wanted: false } as Asked);
    if (init?.body) asked.push(body);
    return answer(body);
  });
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});
const rest = () => vi.advanceTimersByTimeAsync(50);

describe('the open job', () => {
  it('does an edit at once and saves it from the revision that it was opened at', async () => {
    const store = createJobStore(opened());
    store.getState().run({ do: 'rename', name: 'Float' });
    expect(store.getState()).toMatchObject({ job: { name: 'Float' }, saving: 'saving' });
    await rest();
    expect(store.getState().saving).toBe('saved');
    expect(asked).toMatchObject([{ base: 5, steps: [{ step: 'do', command: { do: 'rename', name: 'Float' } }], wanted: false }]);
  });
  it('a reply that is cut off on its way is asked for again, with the same id', async () => {
    const store = createJobStore(opened());
    answer = () => new Response('{"revis', { headers: { 'Content-Type': 'application/json' } });
    store.getState().run({ do: 'rename', name: 'Float' });
    await rest();
    expect(store.getState().saving).toBe('no-connection');
    answer = (body) => saved(body);
    await vi.advanceTimersByTimeAsync(600);
    expect(store.getState().saving).toBe('saved');
    expect(new Set(asked.map((a) => a.save)).size).toBe(1);
  });
  it('saves one after the other, what has gathered meanwhile together', async () => {
    let release: (() => void) | null = null;
    answer = (body) =>
      new Promise((resolve) => {
        release = () => resolve(saved(body));
      });
    const store = createJobStore(opened());
    for (const name of ['A', 'B', 'C']) store.getState().run({ do: 'rename', name });
    await rest();
    expect(asked.map((a) => a.steps.length)).toEqual([1]);
    answer = (body) => saved(body);
    (release as unknown as () => void)();
    await rest();
    expect(asked.map((a) => [a.base, a.steps.length])).toEqual([
      [5, 1],
      [6, 2],
    ]);
    expect(store.getState()).toMatchObject({ saving: 'saved', job: { name: 'C' } });
  });
  it('takes no step, and saves nothing, for an edit that changes nothing or is refused', async () => {
    const store = createJobStore(opened());
    store.getState().run({ do: 'rename', name: 'Otter' });
    store.getState().run({ do: 'remove-mark', pictureId: id, markId: 'gone' });
    await rest();
    expect(asked).toEqual([]);
    expect(store.getState().message).toBe('This mark is no longer there.');
    store.getState().dismiss();
    expect(store.getState().message).toBeNull();
  });
  it('undoes and redoes its own edits at once', async () => {
    const store = createJobStore(opened());
    store.getState().run({ do: 'set-unit', unit: 'in' });
    store.getState().undo();
    expect(store.getState()).toMatchObject({ job: { unit: 'mm' }, redoable: [{ label: 'the unit' }] });
    store.getState().redo();
    expect(store.getState().job.unit).toBe('in');
    await rest();
    expect(asked.flatMap((a) => a.steps.map((s) => s.step))).toEqual(['do', 'undo', 'redo']);
  });
  it('lets the server undo what was done before the page was loaded, and takes its job', async () => {
    answer = (body) => saved(body, { job: emptyJob('Otter') });
    const store = createJobStore(opened());
    store.getState().undo();
    await rest();
    expect(asked).toMatchObject([{ base: 5, steps: [{ step: 'undo' }], wanted: true }]);
    expect(store.getState()).toMatchObject({ job: { pictures: [] }, done: [], redoable: [{ label: 'the picture' }] });
    store.getState().undo();
    await rest();
    expect(asked).toHaveLength(1);
  });
  it('a new edit takes redo away', () => {
    const store = createJobStore(opened());
    store.getState().run({ do: 'set-unit', unit: 'in' });
    store.getState().undo();
    store.getState().run({ do: 'rename', name: 'Other' });
    expect(store.getState().redoable).toEqual([]);
  });
  it('keeps edits without a connection and saves them in order when it is back', async () => {
    answer = () => Promise.reject(new TypeError('fetch failed'));
    const store = createJobStore(opened());
    store.getState().run({ do: 'rename', name: 'A' });
    await rest();
    expect(store.getState().saving).toBe('no-connection');
    store.getState().run({ do: 'set-unit', unit: 'in' });
    answer = (body) => saved(body);
    asked = [];
    await vi.advanceTimersByTimeAsync(2000);
    expect(store.getState().saving).toBe('saved');
    expect(asked.flatMap((a) => a.steps.map((s) => s.command?.do))).toEqual(['rename', 'set-unit']);
  });
  it('stops at a change in another window, and does its own again on top when asked', async () => {
    answer = () => Response.json({ code: 'changed-elsewhere', message: 'This job was changed in another window.' }, { status: 409 });
    const store = createJobStore(opened());
    store.getState().run({ do: 'set-unit', unit: 'in' });
    await rest();
    expect(store.getState()).toMatchObject({ saving: 'changed-elsewhere', message: 'This job was changed in another window.' });
    const theirs: Job = { ...first, name: 'Named elsewhere' };
    answer = (body) =>
      body.steps.length > 0 ? saved(body) : Response.json(opened({ job: theirs, revision: 9, done: ['the picture', 'the name'] }));
    await store.getState().takeNewest(true);
    await rest();
    expect(store.getState()).toMatchObject({ job: { name: 'Named elsewhere', unit: 'in' }, saving: 'saved' });
    expect(asked.at(-1)).toMatchObject({ base: 9, steps: [{ command: { do: 'set-unit' } }] });
  });
  it('or lets its own go', async () => {
    answer = () => Response.json({ code: 'changed-elsewhere', message: 'x' }, { status: 409 });
    const store = createJobStore(opened());
    store.getState().run({ do: 'set-unit', unit: 'in' });
    await rest();
    answer = () => Response.json(opened({ revision: 9 }));
    await store.getState().takeNewest(false);
    expect(store.getState()).toMatchObject({ job: { unit: 'mm' }, saving: 'saved' });
  });
  it('does again what is left after its own undo, and nothing that was taken back', async () => {
    answer = () => Response.json({ code: 'changed-elsewhere', message: 'x' }, { status: 409 });
    const store = createJobStore(opened());
    store.getState().run({ do: 'set-unit', unit: 'in' });
    store.getState().undo();
    store.getState().run({ do: 'rename', name: 'Mine' });
    await rest();
    answer = (body) => (body.steps.length > 0 ? saved(body) : Response.json(opened({ revision: 9 })));
    asked = [];
    await store.getState().takeNewest(true);
    await rest();
    expect(store.getState()).toMatchObject({ job: { unit: 'mm', name: 'Mine' }, saving: 'saved' });
    expect(asked.flatMap((a) => a.steps.map((s) => s.command?.do))).toEqual(['rename']);
  });
  it('tries again by itself where the server or its database is away, and loses nothing', async () => {
    answer = () => Response.json({ code: 'database-away', message: 'away' }, { status: 503 });
    const store = createJobStore(opened());
    store.getState().run({ do: 'set-unit', unit: 'in' });
    await rest();
    expect(store.getState().saving).toBe('no-connection');
    answer = () => Response.json({ code: 'our-fault', message: 'x' }, { status: 500 });
    await vi.advanceTimersByTimeAsync(1000);
    expect(store.getState().saving).toBe('no-connection');
    answer = (body) => saved(body);
    store.getState().retry();
    await rest();
    expect(store.getState().saving).toBe('saved');
    // One save, sent three times by one name: the server can tell that it has it.
    expect(new Set(asked.map((a) => a.save)).size).toBe(1);
    expect(asked.length).toBeGreaterThan(2);
  });
  it('sets a step aside that the server refuses, names it, and saves all others', async () => {
    answer = (body) =>
      body.steps.some((s) => s.command?.do === 'set-unit')
        ? Response.json({ code: 'not-understood', message: 'Invalid request.' }, { status: 400 })
        : saved(body, body.wanted ? { job: { ...first, name: 'Kept' } } : {});
    const store = createJobStore(opened());
    store.getState().run({ do: 'rename', name: 'A' });
    store.getState().run({ do: 'set-unit', unit: 'in' });
    store.getState().run({ do: 'rename', name: 'B' });
    await rest();
    expect(store.getState().saving).toBe('saved');
    expect(store.getState().job.name).toBe('Kept');
    expect(store.getState().message).toMatch(
      /^One step could not be saved and was set aside: the unit\. Invalid request\. Everything else is saved\.$/,
    );
    const taken = asked.filter((a) => !a.steps.some((s) => s.command?.do === 'set-unit'));
    expect(taken.flatMap((a) => a.steps.map((s) => s.command?.do))).toEqual(['rename', 'rename']);
  });
  it('refuses a step with a place that no sheet has before it is done', async () => {
    const store = createJobStore(opened());
    const far = { x: 1e308, y: 0 };
    store.getState().run({ do: 'change-picture', pictureId: id, change: { place: far } });
    await rest();
    expect(asked.flatMap(({ steps }) => steps.map((s) => s.command?.do))).not.toContain('change-picture');
    expect(store.getState().message).toMatch(/out of range/);
    expect(store.getState().job.pictures[0]?.place).toEqual({ x: 0, y: 0 });
  });
  it('keeps what is not saved, and saves what a closed window left under its first name', async () => {
    let kept: Unsaved | null = null;
    const keeper: UnsavedKeeper = {
      takeOver: async () => ({
        base: 5,
        sending: { id, steps: [{ step: 'do', command: { do: 'set-unit', unit: 'in' } }] },
        steps: [{ step: 'do', command: { do: 'rename', name: 'Left' } }],
      }),
      keep: async (_job, unsaved) => {
        kept = unsaved;
      },
    };
    answer = () => Promise.reject(new TypeError('fetch failed'));
    const store = createJobStore(opened(), keeper);
    store.getState().run({ do: 'rename', name: 'A' });
    await rest();
    expect(kept).toMatchObject({ base: 5, sending: { steps: [{ command: { name: 'A' } }] } });
    answer = (body) =>
      body.steps.length > 0
        ? saved(body, body.wanted ? { job: { ...first, unit: 'in', name: 'Left' } } : {})
        : Response.json(opened({ revision: 7 }));
    store.getState().retry();
    await rest();
    expect(kept).toBeNull();
    asked = [];
    const next = createJobStore(opened(), keeper);
    await next.getState().takeOver();
    expect(asked.map((a) => [a.save === id, a.steps.map((s) => s.command?.do)])).toEqual([
      [true, ['set-unit']],
      [false, ['rename']],
    ]);
    expect(next.getState()).toMatchObject({ job: { unit: 'in', name: 'Left' }, saving: 'saved' });
    expect(kept).toBeNull();
  });
});

describe('what the stages say of themselves', () => {
  const known = (key: string, px: number, mm: number) => ({
    kind: 'known-length' as const,
    id: key,
    points: [
      { x: 0, y: 0 },
      { x: px, y: 0 },
    ],
    stated: [{ text: `${mm}`, value: mm }],
  });
  const texts = (job: Job) => Object.values(stageStates(job, null, [], false)).map((s) => s.text);
  const marked = (...marks: Picture['marks']): Job => ({ ...first, pictures: [{ ...picture, marks }] });
  it('with nothing brought in, only that', () => expect(texts(emptyJob('x'))).toEqual(['no picture yet', '', '', '', '']));
  it('where the scale comes from, and how far marks are off', () => {
    expect(texts(first)[1]).toBe('0.0847 mm per px, from the file');
    expect(texts({ ...first, pictures: [{ ...picture, resolution: null }] })[1]).toBe('size not known yet');
    expect(texts(marked(known('a', 900, 90)))[1]).toBe('0.1000 mm per px, by one length');
    expect(texts(marked(known('a', 900, 90), known('b', 900, 90.1)))[1]).toBe('0.1001 mm per px, off by 0.05 mm at most');
    expect(texts(marked(known('a', 900, 90), known('b', 900, 92)))[1]).toBe('0.1011 mm per px, marks disagree');
  });
  it('that files wait for the proof, and the proof for a trace', () =>
    expect(texts(marked(known('a', 900, 90))).slice(2)).toEqual(['not traced yet', 'not ready', 'waiting for checks']));
});
