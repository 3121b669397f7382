import { randomUUID } from 'node:crypto';
import { closeSync, ftruncateSync, openSync, readSync, unlinkSync, writeSync } from 'node:fs';
import type { MemoryFile, MemoryFiles } from 'x11';

/**
 * Files in memory that an X server writes pixels into; it gets their descriptor, so they need no
 * name. The package has such of its own, but lets go of them only while the server answers.
 */
export function memoryFiles(): MemoryFiles & { closeAll: () => void } {
  const open = new Set<MemoryFile>();
  const destroy = (file: MemoryFile) => {
    if (open.delete(file)) closeSync(file.fd);
  };
  return {
    flavor: 'fd',
    zeroCopy: false,
    create: (size) => {
      const path = `/dev/shm/rezzik-${randomUUID()}`;
      const fd = openSync(path, 'wx+', 0o600);
      unlinkSync(path);
      ftruncateSync(fd, size);
      const file = { fd, size, buffer: Buffer.alloc(size) };
      open.add(file);
      return file;
    },
    commit: ({ fd, buffer, size }, offset = 0, length = size - offset) =>
      void writeSync(fd, buffer, offset, length, offset),
    sync: ({ fd, buffer, size }, offset = 0, length = size - offset) =>
      void readSync(fd, buffer, offset, length, offset),
    destroy,
    closeAll: () => open.forEach(destroy),
  };
}
