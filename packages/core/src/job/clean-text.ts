/**
 * In: a text as a person typed or pasted it, or as a file names itself. Out: the same without what no database, XML file or
 * machine takes: halves of surrogate pairs, NUL and other control characters. Line breaks and tabs become spaces.
 * Rests on: XML 1.0 (fifth edition), production 2, "Char".
 */

export function cleanText(raw: string): string {
  let clean = '';
  // A string is walked by code points: a lone surrogate comes as one of its own.
  for (const character of raw) {
    const code = character.codePointAt(0) as number;
    if (code === 9 || code === 10 || code === 13) clean += ' ';
    else if (!isRefused(code)) clean += character;
  }
  return clean;
}

const isRefused = (code: number): boolean =>
  code < 0x20 || (code >= 0x7f && code <= 0x9f) || (code >= 0xd800 && code <= 0xdfff) || (code & 0xfffe) === 0xfffe;
