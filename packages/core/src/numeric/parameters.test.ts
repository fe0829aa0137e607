import { afterEach, expect, it, vi } from 'vitest';

afterEach(() => {
  vi.unstubAllGlobals();
  vi.resetModules();
});

it('keeps a stage’s constants as they stand, and varies those that a bench names, counts to whole numbers', async () => {
  const table = {
    noise: { value: 0.7, unit: 'px', meaning: 'How far off a hand is.' },
    arm: { value: 10, unit: 'points', meaning: 'How far a direction is read.' },
    weight: { value: 4, unit: 'residuals', meaning: 'What is known beforehand.' },
  };
  const plain = await import('./parameters.ts');
  expect(plain.parametersOf(table)).toEqual({ noise: 0.7, arm: 10, weight: 4 });
  vi.resetModules();
  vi.stubGlobal('parameterFactors', { noise: 0.5, arm: 1.26 });
  const bench = await import('./parameters.ts');
  expect(bench.parametersOf(table)).toEqual({ noise: 0.35, arm: 13, weight: 4 });
});
