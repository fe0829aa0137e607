import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { kernels, moduleOf } from '../../scripts/kernel-bytes.ts';

it.each(kernels)('the bytes of $text are those of its text', async ({ text, module }) => {
  expect(readFileSync(module, 'utf8')).toBe(await moduleOf(readFileSync(text, 'utf8')));
});
