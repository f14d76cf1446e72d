/** "0.9 MB", "1.2 GB": how large a file is. */
export function size(bytes: number): string {
  return bytes >= 1e9
    ? `${(bytes / 1e9).toFixed(1)} GB`
    : `${Math.max(bytes / 1e6, 0.1).toFixed(1)} MB`
}
