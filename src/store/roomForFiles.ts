/** Files of a batch in the browser's own file system (WHATWG File System): they survive a reload and are never all in memory. */
export interface RoomForFiles {
  write(name: string, file: Blob): Promise<void>;
  /** Null when there is no such file. */
  read(name: string): Promise<File | null>;
  /** A stream that writes a file; it is there once it is closed. */
  stream(name: string): Promise<WritableStream<Uint8Array>>;
  clear(): Promise<void>;
}

/** A folder of the browser's own file system, by its name. @throws Error where the browser has none */
export function roomForFiles(name: string): RoomForFiles {
  const root = () => navigator.storage.getDirectory();
  const folder = async () => (await root()).getDirectoryHandle(name, { create: true });
  const handle = async (file: string, create: boolean) => (await folder()).getFileHandle(file, { create });
  return {
    async write(file, blob) {
      const to = await (await handle(file, true)).createWritable();
      await to.write(blob);
      await to.close();
    },
    async read(file) {
      return handle(file, false).then(
        (found) => found.getFile(),
        () => null,
      );
    },
    async stream(file) {
      return (await handle(file, true)).createWritable() as unknown as Promise<WritableStream<Uint8Array>>;
    },
    async clear() {
      await (await root()).removeEntry(name, { recursive: true }).catch(() => undefined);
    },
  };
}
