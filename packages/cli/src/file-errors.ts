/** By the code of a file system's error what is wrong, as the end of a sentence. */
const REASONS: Readonly<Record<string, string>> = {
  ENOENT: 'there is no such file or folder',
  ENOTDIR: 'a part of its path is no folder',
  EISDIR: 'it is a folder',
  ELOOP: 'its links lead in a circle',
  ENAMETOOLONG: 'its name is too long',
  ENOSPC: 'the disk is full',
  EDQUOT: 'the disk is full',
  EACCES: 'this user has no right to',
  EPERM: 'this user has no right to',
  EROFS: 'the disk can only be read',
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
