/** Every page of the application asks the one place that decides who may do what; for its routes see `tests/server/access.test.ts`. */
import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import { owned, requirePermission } from '../../apps/web/src/server/access.ts';

const app = fileURLToPath(new URL('../../apps/web/src/app', import.meta.url));
const files = readdirSync(app, { recursive: true, encoding: 'utf8' });

describe('access', () => {
  it.each(files.filter((f) => f.endsWith('page.tsx')))('page %s asks it first', (file) => {
    expect(readFileSync(`${app}/${file}`, 'utf8')).toContain('requirePermission(');
  });
  it("lets through only what belongs to the person's workshop", async () => {
    const person = await requirePermission('read-job');
    expect(owned(person, { workshopId: person.workshopId }, 'job')).toEqual({ workshopId: person.workshopId });
    expect(() => owned(person, { workshopId: '00000000-0000-4000-8000-000000000002' }, 'job')).toThrow(
      expect.objectContaining({ status: 404 }),
    );
    expect(() => owned(person, null, 'job')).toThrow(expect.objectContaining({ status: 404 }));
  });
});
