/** The text of a file a person chose; refused where it is larger than `limit` bytes. */
export async function readTextFile(file: File, limit: number): Promise<string> {
  refuseLarge(file, limit);
  return file.text();
}

/** The bytes of a file a person chose; refused where there are more than `limit`. */
export async function readFileBytes(file: File, limit: number): Promise<Uint8Array> {
  refuseLarge(file, limit);
  return new Uint8Array(await file.arrayBuffer());
}

function refuseLarge(file: File, limit: number): void {
  if (file.size <= limit) return;
  const megabytes = (bytes: number) => `${(bytes / 1e6).toFixed(1)} MB`;
  throw new Error(`${file.name}: has ${megabytes(file.size)}; at most ${megabytes(limit)} are taken.`);
}
