/**
 * A colour profile for grey with a plain exponent, as small as one can be.
 * Source: ICC.1:2010, §7.2 (header), §7.3 (tags), §10.5 (curveType), §10.24 (XYZType)
 */
export function greyProfile(exponent: number): Buffer {
  const text = 'Grey';
  const name = Buffer.alloc(90 + text.length + 1);
  name.write('desc', 0, 'latin1');
  name.writeUInt32BE(text.length + 1, 8);
  name.write(text, 12, 'latin1');
  const curve = Buffer.alloc(14);
  curve.write('curv', 0, 'latin1');
  curve.writeUInt32BE(1, 8);
  curve.writeUInt16BE(Math.round(exponent * 256), 12);
  const white = Buffer.concat([Buffer.from('XYZ \0\0\0\0', 'latin1'), D50]);
  const tags: [string, Buffer][] = [
    ['desc', name],
    ['wtpt', white],
    ['kTRC', curve],
    ['cprt', Buffer.from('text\0\0\0\0none\0', 'latin1')],
  ];
  const table = Buffer.alloc(4 + 12 * tags.length);
  table.writeUInt32BE(tags.length, 0);
  let at = HEADER + table.length;
  const bodies = tags.map(([sign, body], i) => {
    table.write(sign, 4 + 12 * i, 'latin1');
    table.writeUInt32BE(at, 8 + 12 * i);
    table.writeUInt32BE(body.length, 12 + 12 * i);
    const padded = Buffer.concat([body, Buffer.alloc((4 - (body.length % 4)) % 4)]);
    at += padded.length;
    return padded;
  });
  const header = Buffer.alloc(HEADER);
  header.writeUInt32BE(at, 0);
  header.writeUInt32BE(VERSION, 8);
  header.write('mntrGRAYXYZ ', 12, 'latin1');
  header.write('acsp', 36, 'latin1');
  D50.copy(header, 68);
  return Buffer.concat([header, table, ...bodies]);
}

const HEADER = 128;
const VERSION = 0x02200000;
/** The light that profiles are reckoned in: X, Y, Z as 16.16. */
const D50 = Buffer.from('0000f6d6000100000000d32d', 'hex');
