/** Edits of the marks on a picture. */
import { z } from 'zod';
import { english, say } from '../../messages/index.ts';
import { markKinds } from '../../trueup/index.ts';
import { type Job, markSchema, type Picture, pointSchema } from '../schema.ts';
import { anyText, text } from '../schema-parts.ts';
import { CommandError, command } from './command-kind.ts';
import { pictureId, withPicture } from './picture-commands.ts';

const markIds = { pictureId, markId: text(64) };

export const markCommands = {
  'add-mark': command(
    { pictureId, mark: markSchema },
    ({ mark }) => markKinds[mark.kind].label,
    (job, { pictureId: id, mark }) =>
      withPicture(job, id, (picture) => {
        if (picture.locked) throw new CommandError('locked', say.job.lockedToMark());
        return { ...picture, marks: [...picture.marks, mark] };
      }),
  ),
  'move-mark': command({ ...markIds, points: z.array(pointSchema).min(2).max(200) }, english.job.movingAMark, (job, { points, ...ids }) =>
    withMark(job, ids, (mark) => {
      if (mark.points.length !== points.length) throw new CommandError('no-mark', say.job.wrongNumberOfPoints());
      return { ...mark, points };
    }),
  ),
  state: command(
    { ...markIds, index: z.int().min(0).max(1), text: anyText(200), value: z.number().nonnegative().max(1e9) },
    english.job.aTypedLength,
    (job, { index, text: typed, value, ...ids }) =>
      withMark(job, ids, (mark) => {
        if (index >= mark.stated.length) throw new CommandError('no-mark', say.job.noSuchDimension());
        return { ...mark, stated: mark.stated.map((s, k) => (k === index ? { text: typed, value } : s)) };
      }),
  ),
  'set-box-fit': command(
    { ...markIds, boxFit: z.enum(['contained', 'covering', 'each-side']) },
    english.job.howTheBoxIsFilled,
    (job, { boxFit, ...ids }) => withMark(job, ids, (mark) => ({ ...mark, boxFit })),
  ),
  'remove-mark': command(markIds, english.job.removingAMark, (job, ids) => withMark(job, ids, () => null)),
};

function withMark(
  job: Job,
  ids: { pictureId: string; markId: string },
  change: (mark: Picture['marks'][number]) => Picture['marks'][number] | null,
): Job {
  return withPicture(job, ids.pictureId, (picture) => {
    if (!picture.marks.some((m) => m.id === ids.markId)) throw new CommandError('no-mark', say.job.markGone());
    return { ...picture, marks: picture.marks.flatMap((m) => (m.id === ids.markId ? (change(m) ?? []) : m)) };
  });
}
