/** Whether something failed because the disk is full or cannot be written to, however deep that is said. */
export function isDiskFull(error: unknown): boolean {
  for (let at = error; at instanceof Error; at = at.cause) {
    if (
      'code' in at &&
      typeof at.code === 'string' &&
      /^(?:SQLITE_FULL|SQLITE_READONLY|SQLITE_IOERR_WRITE|ENOSPC|EDQUOT|EROFS)/.test(at.code)
    )
      return true;
  }
  return false;
}
