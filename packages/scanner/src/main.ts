/**
 * Starts the stand-in scanner: `main.ts PORT ORIGIN [ORIGIN ...]`; says where it listens.
 */
import type { AddressInfo } from 'node:net';
import { scannerService } from './service.ts';

const [port, ...origins] = process.argv.slice(2);
const server = scannerService(origins);
server.listen(Number(port ?? 0), '127.0.0.1', () => console.log(`listening on ${(server.address() as AddressInfo).port}`));
