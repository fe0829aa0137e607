/**
 * A line of text to a machine, both ways: TCP here. A controller on a serial port needs another of these.
 */
import { connect } from 'node:net';
import { words } from '../words/index.ts';

export interface CutterLine {
  write(line: string): unknown;
  close(): void;
}

export interface LineHandlers {
  readonly onLine: (line: string) => void;
  /** The line is gone, for a reason in plain words. */
  readonly onGone: (why: string) => void;
}

/** A listing of what is burnt is the longest answer, characters. */
const longestLine = 8_000_000;

/** @param address HOST:PORT */
export function tcpLine(address: string, { onLine, onGone }: LineHandlers): CutterLine {
  const [host, port] = [address.slice(0, address.lastIndexOf(':')), Number(address.slice(address.lastIndexOf(':') + 1))];
  const socket = connect({ host, port });
  socket.setEncoding('utf8');
  socket.setNoDelay(true);
  let parts: string[] = [];
  let length = 0;
  let isOver = false;
  /** Told once, whatever comes after. */
  const over = (why: string) => {
    if (isOver) return;
    isOver = true;
    socket.destroy();
    onGone(why);
  };
  socket.on('data', (part: string) => {
    const lines = part.split('\n');
    for (const [k, text] of lines.entries()) {
      if (isOver) return;
      parts.push(text);
      length += text.length;
      if (length > longestLine) return over(words.server.theCutterSendsLinesLongerThan);
      if (k === lines.length - 1) return;
      const line = parts.join('');
      [parts, length] = [[], 0];
      try {
        onLine(line);
      } catch {
        over(words.server.theCutterGaveAnAnswerThat);
      }
    }
  });
  socket.on('error', () => over(words.server.theCutterDoesNotAnswerIs));
  socket.on('close', () => over(words.server.theCutterHasHungUp));
  return {
    write: (line) => !isOver && socket.write(`${line}\n`),
    close: () => {
      isOver = true;
      socket.destroy();
    },
  };
}
