/** An amount of memory in words: "12 kB", "3.4 MB", "28 MB". */
export function bytesText(bytes: number): string {
  const n = Math.max(0, bytes);
  if (n < 100 * 1024) return `${Math.ceil(n / 1024)} kB`;
  return `${(n / 2 ** 20).toFixed(n < 10 * 2 ** 20 ? 1 : 0)} MB`;
}
