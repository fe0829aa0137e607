import { measureMaking } from './making.ts';

await measureMaking(60);
