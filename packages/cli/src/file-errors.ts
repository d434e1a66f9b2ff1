/** By the code of a file system's error what is wrong, as the end of a sentence. */
const REASONS: Readonly<Record<string, string>> = {
  ENOENT: 'there is no such file or folder',
  ENOTDIR: 'part of its path is not a folder',
  EISDIR: 'it is a folder',
  ELOOP: 'its links form a loop',
  ENAMETOOLONG: 'its name is too long',
  ENOSPC: 'the disk is full',
  EDQUOT: 'the disk is full',
  EACCES: 'permission is denied',
  EPERM: 'permission is denied',
  EROFS: 'the disk is read-only',
  EMFILE: 'too many files are open',
  EBUSY: 'another program uses it',
  ERR_FS_FILE_TOO_LARGE: 'it is over 2 GB',
  ERR_INVALID_ARG_VALUE: 'its name has a character that no file can have',
};

/** Says why a file cannot be used, for the end of a sentence. */
export function reasonOf(error: unknown): string {
  const { code, message } = error as NodeJS.ErrnoException;
  return REASONS[code ?? ''] ?? `${code ?? message}`;
}
