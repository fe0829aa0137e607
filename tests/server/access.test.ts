/** Every route of the application, asked by someone who may do nothing: each refuses, and none has touched the database before. */
import { readdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { expect, it, vi } from 'vitest';
import { HttpError } from '@/server/http-error';
import { answer } from './requests.ts';

vi.mock('@/server/access', async (original) => ({
  ...(await original<typeof import('@/server/access')>()),
  requirePermission: async () => {
    throw new HttpError(403, 'not-allowed', 'You may not do this.');
  },
}));
vi.mock('@/server/database', () => ({
  database: () => {
    throw new Error('the database is asked before it is known who asks');
  },
}));

const app = fileURLToPath(new URL('../../apps/web/src/app', import.meta.url));
const routes = readdirSync(app, { recursive: true, encoding: 'utf8' }).filter((file) => file.endsWith('route.ts'));
const methods = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE', 'HEAD', 'OPTIONS'] as const;
const id = '00000000-0000-4000-8000-000000000003';

it.each(routes)('%s', async (file) => {
  const module = (await import(/* @vite-ignore */ `${app}/${file}`)) as Partial<Record<(typeof methods)[number], never>>;
  const handled = methods.filter((method) => method in module);
  expect(handled.length).toBeGreaterThan(0);
  for (const method of handled) {
    const params = { id, level: '0', column: '0', row: '0' };
    const { status, body } = await answer(module[method] as never, method, { params, ...(method === 'GET' ? {} : { body: {} }) });
    expect({ method, status, body }).toMatchObject({ method, status: 403, body: { code: 'not-allowed' } });
  }
});
