/** The faults that are planted to try the tests stand for lines that are there: each can be planted, once, and names tests that are there. */
import { existsSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';
import { plantedFaults } from '../planted-faults.mjs';

const inProject = (path: string): string => fileURLToPath(new URL(`../../${path}`, import.meta.url));

it.each(plantedFaults)('$what: it can be planted', ({ file, right, wrong, tests }) => {
  expect(readFileSync(inProject(file), 'utf8').split(right)).toHaveLength(2);
  expect(wrong).not.toBe(right);
  expect(tests.filter((path) => !existsSync(inProject(path)))).toEqual([]);
});
