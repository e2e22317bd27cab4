import { Zip, ZipPassThrough } from 'fflate';

/** Bytes of a file that are read at once. */
const CHUNK = 1 << 20;

/** Writes files into a zip one after another, as they are: pictures would not shrink. Never more than a part of one file is in memory. */
export async function zipInto(to: WritableStream<Uint8Array>, files: AsyncIterable<{ name: string; file: Blob }>): Promise<void> {
  const writer = to.getWriter();
  let failed: Error | null = null;
  const zip = new Zip((error, chunk) => {
    if (error) failed = error;
    else void writer.write(chunk.slice()).catch((reason: Error) => (failed ??= reason));
  });
  try {
    for await (const { name, file } of files) {
      const entry = new ZipPassThrough(name);
      zip.add(entry);
      for (let at = 0; at < file.size || at === 0; at += CHUNK) {
        const part = new Uint8Array(await file.slice(at, at + CHUNK).arrayBuffer());
        entry.push(part, at + CHUNK >= file.size);
        await writer.ready;
        if (failed) throw failed;
      }
    }
    zip.end();
    await writer.close();
  } catch (error) {
    await writer.abort(error).catch(() => undefined);
    throw error;
  }
}
