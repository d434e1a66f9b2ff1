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
    // Browsers give a file's path only for chosen folders.
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

/** Files that are added together, and their kind. */
export interface DropPart {
  readonly kind: 'paths' | 'model' | 'shot' | 'unknown';
  readonly files: readonly File[];
}

const MODELS = /\.(glb|gltf|obj|stl|ply|bvh|zip)$/i;

/**
 * Files of a drop, one by one: a drawing or a table is paths, a mesh is a model, an OBJ depends on its contents;
 * other files go with the models that may need them.
 */
export async function partsOf(files: readonly File[]): Promise<DropPart[]> {
  const beside: File[] = [];
  const parts: DropPart[] = [];
  for (const file of files) {
    if (/\.(svg|csv)$/i.test(file.name)) parts.push({ kind: 'paths', files: [file] });
    else if (/\.shot\.json$/i.test(file.name)) parts.push({ kind: 'shot', files: [file] });
    else if (MODELS.test(file.name)) parts.push({ kind: await kindOfMesh(file), files: [file] });
    else beside.push(file);
  }
  if (!parts.some(({ kind }) => kind === 'model'))
    return beside.length === 0 ? parts : [...parts, { kind: 'unknown', files: beside }];
  const needs = (part: DropPart) => part.kind === 'model' && /\.(glb|gltf|obj)$/i.test(part.files[0].name);
  return parts.map((part) => (needs(part) ? { ...part, files: [...part.files, ...beside] } : part));
}

async function kindOfMesh(file: File): Promise<'paths' | 'model'> {
  const hasFaces = !/\.obj$/i.test(file.name) || /^[ \t]*f[ \t]/m.test(await file.text());
  return hasFaces ? 'model' : 'paths';
}
