/** The text of a file a person chose; refused where it is larger than `limit` bytes. */
export async function readTextFile(file: File, limit: number): Promise<string> {
  if (file.size > limit) {
    const megabytes = (bytes: number) => `${(bytes / 1e6).toFixed(1)} MB`;
    throw new Error(`${file.name}: has ${megabytes(file.size)}; at most ${megabytes(limit)} are taken.`);
  }
  return file.text();
}
