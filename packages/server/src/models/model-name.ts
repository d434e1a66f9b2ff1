/** The name of a model by its file: "field_hauler.glb" → "Field hauler". */
export function nameOf(fileName: string): string {
  const words =
    fileName
      .replace(/\.(glb|gltf)$/i, '')
      .replace(/[_-]+/g, ' ')
      .trim() || 'Model';
  return words[0].toUpperCase() + words.slice(1);
}
