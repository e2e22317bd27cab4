/** Parts one behind another. */
export function joined(...parts: Uint8Array[]): Uint8Array<ArrayBuffer> {
  const out = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}

/** The bytes of a text of plain letters. */
export const letters = (text: string): Uint8Array => Uint8Array.from(text, (ch) => ch.charCodeAt(0));
