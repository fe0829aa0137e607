/** What a kind of edit is made of: the fields that it is sent with, what undo calls it, and what it does. */
import type { z } from 'zod';
import { type Message, SaidError } from '../../messages/index.ts';
import type { Job } from '../schema.ts';

export class CommandError extends SaidError {
  constructor(
    readonly code:
      | 'no-picture'
      | 'no-mark'
      | 'no-piece'
      | 'no-process'
      | 'process-there'
      | 'no-drawing'
      | 'marks-coincide'
      | 'in-one-line'
      | 'locked'
      | 'too-many',
    message: Message,
  ) {
    super(message);
  }
}

export interface CommandKind<F extends z.ZodRawShape> {
  readonly fields: F;
  label(fields: z.infer<z.ZodObject<F>>): string;
  /** @throws CommandError where it cannot be done; the job stays as it was */
  apply(job: Job, fields: z.infer<z.ZodObject<F>>): Job;
}

export const command = <F extends z.ZodRawShape>(
  fields: F,
  label: string | ((fields: z.infer<z.ZodObject<F>>) => string),
  apply: CommandKind<F>['apply'],
): CommandKind<F> => ({ fields, label: typeof label === 'string' ? () => label : label, apply });
