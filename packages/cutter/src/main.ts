/**
 * Starts the stand-in cutter: `main.ts [PORT]`; 0 takes any free one. Says where it listens.
 */
import type { AddressInfo } from 'node:net';
import { cutterService } from './service.ts';

const service = cutterService();
service.listen(Number(process.argv[2] ?? 0), '127.0.0.1', () => {
  console.log(`listening on ${(service.address() as AddressInfo).port}`);
});
process.once('SIGTERM', () => process.exit(0));
