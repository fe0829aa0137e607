/**
 * A line of text to a machine, both ways: TCP here. A controller on a serial port needs another of these.
 */
import { connect } from 'node:net';

export interface CutterLine {
  write(line: string): void;
  hangUp(): void;
}

export interface Ears {
  readonly onLine: (line: string) => void;
  /** The line is gone, for a reason in plain words. */
  readonly onGone: (why: string) => void;
}

/** @param address HOST:PORT */
export function tcpLine(address: string, { onLine, onGone }: Ears): CutterLine {
  const [host, port] = [address.slice(0, address.lastIndexOf(':')), Number(address.slice(address.lastIndexOf(':') + 1))];
  const socket = connect({ host, port });
  socket.setEncoding('utf8');
  socket.setNoDelay(true);
  let rest = '';
  socket.on('data', (part: string) => {
    const lines = (rest + part).split('\n');
    rest = lines.pop() ?? '';
    for (const line of lines) onLine(line);
  });
  socket.on('error', () => onGone('The cutter does not answer. Is it switched on?'));
  socket.on('close', () => onGone('The cutter has hung up.'));
  return { write: (line) => socket.write(`${line}\n`), hangUp: () => socket.destroy() };
}
