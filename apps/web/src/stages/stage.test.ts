/** What the stages say of themselves in the bar at the top. */
import { applyCommand, emptyJob, newPicture } from '@nuvet/core/job';
import { newEntry } from '@nuvet/core/processes';
import { expect, it } from 'vitest';
import { stageStates } from './stage';

const drawn = applyCommand(emptyJob('Weir'), {
  do: 'draw',
  drawn: {
    id: 'a',
    name: 'Plate',
    purpose: 'cut',
    leftOut: false,
    source: { kind: 'figure', figure: { kind: 'circle', centre: { x: 0, y: 0 }, radius: 20 } },
    live: [],
  },
});

it('nothing is proved while the outlines are still being checked', () => {
  const checking = stageStates(drawn, null, [], true);
  expect(checking.prove).toEqual({ text: 'checking', status: 'open' });
  expect(checking['make-ready']).toEqual({ text: 'waiting for checks', status: 'open' });
  const checked = stageStates(drawn, null, [], false);
  expect(checked.prove).toEqual({ text: 'no problems', status: 'good' });
});

it('Make ready names the processes of the job, or that there is none', () => {
  const as = (...names: string[]) => {
    const processes = names.map((name) => newEntry(name, name, drawn));
    return stageStates({ ...drawn, making: { ...drawn.making, processes } }, null, [], false)['make-ready'].text;
  };
  expect([as('laser'), as('laser', 'paper'), as(), as('of another day')]).toEqual([
    'laser',
    'laser, paper',
    'no process yet',
    'no process yet',
  ]);
});

it('a size that rests on the file alone is to be looked at', () => {
  const picture = newPicture({ id: '6f2f3a1e-8f5e-4f5f-9b1a-0c9a4f6d2b10', name: 'x.png', widthPx: 900, heightPx: 600, resolution: { dpi: 300, source: 'png', trusted: true } }); // biome-ignore format: one line
  const sized = applyCommand(emptyJob('Weir'), { do: 'bring-in', picture });
  expect(stageStates(sized, picture.id, null, true)['true-up']).toEqual({ text: '0.0847 mm per px, from the file', status: 'look' });
});
