// The parts of the File System Access interface (WICG) that TypeScript's DOM library leaves out.

interface FileSystemPermissionWish {
  mode: 'read' | 'readwrite';
}

interface FileSystemHandle {
  queryPermission(wish: FileSystemPermissionWish): Promise<PermissionState>;
  requestPermission(wish: FileSystemPermissionWish): Promise<PermissionState>;
}

interface Window {
  showDirectoryPicker?: (wish: {
    id?: string;
    mode?: 'read' | 'readwrite';
  }) => Promise<FileSystemDirectoryHandle>;
}
