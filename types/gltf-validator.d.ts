declare module 'gltf-validator' {
  /** Validates the bytes of a GLB or glTF file; severity 0 is an error. */
  export function validateBytes(bytes: Uint8Array): Promise<{
    issues: {
      numErrors: number;
      numWarnings: number;
      messages: { severity: number; code: string; message: string; pointer: string }[];
    };
  }>;
}
