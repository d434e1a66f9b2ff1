/** "1 path", "2 paths". */
export function counted(count: number, noun: string): string {
  return `${count} ${noun}${count === 1 ? '' : 's'}`;
}

/** "900 bytes", "12.5 kB", "3.1 MB". */
export function sizeInWords(bytes: number): string {
  if (bytes < 1e3) return `${bytes} bytes`;
  return bytes < 1e6 ? `${(bytes / 1e3).toFixed(1)} kB` : `${(bytes / 1e6).toFixed(1)} MB`;
}
