/** The files of a drop, those in folders with where they lay in them. */
export async function droppedFiles(items: DataTransferItemList): Promise<File[]> {
  // Entries are gone once the event is over, so they are all taken first.
  const entries = Array.from(items, (item) => ({ entry: item.webkitGetAsEntry(), file: item.getAsFile() }));
  const lists = await Promise.all(
    entries.map(({ entry, file }) => (entry?.isDirectory ? filesIn(entry) : file ? [file] : [])),
  );
  return lists.flat();
}

async function filesIn(entry: FileSystemEntry): Promise<File[]> {
  if (entry.isFile) {
    const file = await new Promise<File>((resolve, reject) =>
      (entry as FileSystemFileEntry).file(resolve, reject),
    );
    // The browser tells where a file lay only of folders that were chosen.
    Object.defineProperty(file, 'webkitRelativePath', { value: entry.fullPath.replace(/^\//, '') });
    return [file];
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  const found: File[] = [];
  for (;;) {
    // It gives a hundred at a time.
    const some = await new Promise<FileSystemEntry[]>((resolve, reject) =>
      reader.readEntries(resolve, reject),
    );
    if (some.length === 0) return found;
    for (const one of some) found.push(...(await filesIn(one)));
  }
}

/** What a drop is taken for. */
export type DropKind = 'paths' | 'model' | 'shot' | 'unknown';

/** A drawing or a table is paths; anything with a model in it is a model; an OBJ is what it holds. */
export async function kindOfDrop(files: readonly File[]): Promise<DropKind> {
  const ends = (ending: RegExp) => files.some(({ name }) => ending.test(name));
  if (files.length === 1 && ends(/\.(svg|csv)$/i)) return 'paths';
  if (ends(/\.shot\.json$/i)) return 'shot';
  const obj = files.find(({ name }) => /\.obj$/i.test(name));
  if (obj) return /^[ \t]*f[ \t]/m.test(await obj.text()) ? 'model' : 'paths';
  return ends(/\.(glb|gltf|stl|ply|bvh|zip)$/i) ? 'model' : 'unknown';
}
