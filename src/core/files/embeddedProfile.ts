import { unzlibSync } from 'fflate';
import { ascii, blocksOf, viewOf } from './blocks';
import { joined } from './joined';

const SEGMENT = 'ICC_PROFILE\0';
/** Largest profile that is unpacked, in bytes: table profiles of printers have a few MB. */
const LARGEST = 16 << 20;

/** The ICC profile of a JPEG, a PNG or a WebP (ICC.1:2022, annex B; RFC 9649); null when it has none, or it is damaged. */
export function embeddedProfile(file: Uint8Array): Uint8Array | null {
  const parts: [number, Uint8Array][] = [];
  for (const { type, data } of blocksOf(file)) {
    if (type === 'IDAT') break;
    if (type === 'ICCP') return data;
    if (type === 'iCCP') return unpacked(data);
    // Number of the part, number of parts, then what is in it.
    if (type === 'e2' && ascii(data, 0, SEGMENT.length) === SEGMENT) parts.push([data[SEGMENT.length], data.subarray(SEGMENT.length + 2)]);
  }
  if (parts.length === 0) return null;
  return joined(...parts.sort(([a], [b]) => a - b).map(([, data]) => data));
}

/** A name, a zero, the kind of packing, and the packed profile (PNG, 3rd ed., 11.3.2.3). */
function unpacked(chunk: Uint8Array): Uint8Array | null {
  const end = chunk.indexOf(0);
  if (end < 0) return null;
  try {
    return unzlibSync(chunk.subarray(end + 2), { out: new Uint8Array(Math.min(LARGEST, 1100 * chunk.length)) });
  } catch {
    return null;
  }
}

/** True for a profile whose colours go by a table, not by primaries and curves alone (ICC.1:2022, 8.3). */
export function isTable(profile: Uint8Array): boolean {
  if (profile.length < 132) return false;
  const view = viewOf(profile);
  const count = Math.min(view.getUint32(128), Math.floor((profile.length - 132) / 12));
  return Array.from({ length: count }, (_, i) => ascii(profile, 132 + 12 * i, 4)).includes('A2B0');
}
