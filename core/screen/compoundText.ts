/**
 * Sets of characters by how they are designated (Compound Text Encoding, version 1.1, X Consortium:
 * §3 “Approved standard encodings”): the bytes after ESC, and what decodes their bytes in the upper
 * half. Those of 94 × 94 characters are the same in their EUC forms.
 */
const sets: Record<string, { half: 'lower' | 'upper'; decoder: string }> = {
  '(B': { half: 'lower', decoder: 'ascii' },
  '(J': { half: 'lower', decoder: 'ascii' },
  ')I': { half: 'upper', decoder: 'shift_jis' },
  '-A': { half: 'upper', decoder: 'iso-8859-1' },
  '-B': { half: 'upper', decoder: 'iso-8859-2' },
  '-C': { half: 'upper', decoder: 'iso-8859-3' },
  '-D': { half: 'upper', decoder: 'iso-8859-4' },
  '-F': { half: 'upper', decoder: 'iso-8859-7' },
  '-G': { half: 'upper', decoder: 'iso-8859-6' },
  '-H': { half: 'upper', decoder: 'iso-8859-8' },
  '-L': { half: 'upper', decoder: 'iso-8859-5' },
  '-M': { half: 'upper', decoder: 'iso-8859-9' },
  '-b': { half: 'upper', decoder: 'iso-8859-15' },
  '$(A': { half: 'lower', decoder: 'gb2312' },
  '$)A': { half: 'upper', decoder: 'gb2312' },
  '$(B': { half: 'lower', decoder: 'euc-jp' },
  '$)B': { half: 'upper', decoder: 'euc-jp' },
  '$(C': { half: 'lower', decoder: 'euc-kr' },
  '$)C': { half: 'upper', decoder: 'euc-kr' },
};

type Decode = (encoding: string, bytes: Uint8Array) => string;

const ESC = 0x1b;
/** UTF-8 between ESC % G and ESC % @, as X servers of today write it. */
const [UTF8, BACK] = ['%G', '%@'];

/**
 * Words in Compound Text, as older programs write their titles. A set that is not known changes
 * nothing: its bytes are read by the one before.
 * @param decode reads bytes in an encoding, by its name in the Encoding Standard
 */
export function compoundText(bytes: Uint8Array, decode: Decode): string {
  let [lower, upper] = ['ascii', 'iso-8859-1'];
  let [words, isUtf8] = ['', false];
  for (let at = 0; at < bytes.length;) {
    if (bytes[at] === ESC) {
      const end = bytes.findIndex((byte, i) => i > at + 1 && byte >= 0x30);
      if (end < 0) break;
      const name = String.fromCharCode(...bytes.subarray(at + 1, end + 1));
      const set = sets[name];
      if (set?.half === 'lower') lower = set.decoder;
      if (set?.half === 'upper') upper = set.decoder;
      if (name === UTF8 || name === BACK) isUtf8 = name === UTF8;
      at = end + 1;
      continue;
    }
    const isUpper = (bytes[at] as number) >= 0x80;
    const inRun = (byte: number) => byte !== ESC && (isUtf8 || byte >= 0x80 === isUpper);
    let end = at;
    while (end < bytes.length && inRun(bytes[end] as number)) end += 1;
    const run = bytes.subarray(at, end);
    words += isUtf8 ? decode('utf-8', run) : inSet(isUpper ? upper : lower, run, decode);
    at = end;
  }
  return words;
}

function inSet(set: string, run: Uint8Array, decode: Decode): string {
  if (set === 'ascii') return String.fromCharCode(...run);
  // In the lower half the same characters have their highest bit off.
  return decode(
    set,
    run.map((byte) => byte | 0x80),
  );
}
