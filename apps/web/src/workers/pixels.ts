/**
 * Raw pixels from the server, with the share that has come.
 */
import { words } from '@/words';
export async function fetchBytes(address: string, length: number, onShare: (share: number) => void): Promise<Uint8Array> {
  const response = await fetch(address);
  if (!response.ok || !response.body) throw new Error(words.workers.thePictureCouldNotBeRead);
  const bytes = new Uint8Array(length);
  let gone = 0;
  const reader = response.body.getReader();
  for (let part = await reader.read(); !part.done; part = await reader.read()) {
    bytes.set(part.value, gone);
    gone += part.value.length;
    onShare(gone / length);
  }
  return bytes;
}
