/** An uploaded file as the form reader gives it, kept on the disk or in memory. */
export interface UploadedOnDisk {
  readonly filename: string;
  readonly path: string;
}

export interface UploadedInMemory {
  /** Name in the form, its UTF-8 bytes read as Latin-1. */
  readonly originalname: string;
  /** Bytes. */
  readonly size: number;
  readonly buffer: Buffer;
}
