/** The part of the package x11 that Rezzik uses. */
declare module 'x11' {
  type Done<T> = (error: Error | null | undefined, value: T) => unknown;

  interface Visual {
    red_mask: number;
    green_mask: number;
    blue_mask: number;
  }

  interface ScreenInfo {
    root: number;
    pixel_width: number;
    pixel_height: number;
    root_depth: number;
    root_visual: number;
    depths: Record<number, Record<number, Visual>>;
  }

  interface Geometry {
    windowid: number;
    xPos: number;
    yPos: number;
    width: number;
    height: number;
    borderWidth: number;
    depth: number;
  }

  interface Property {
    type: number;
    format: number;
    bytesAfter: number;
    data: Buffer;
  }

  interface XEvent {
    name: string;
    type: number;
    wid: number;
    keycode: number;
    buttons: number;
    time: number;
    x: number;
    y: number;
    rootx: number;
    rooty: number;
    owner: number;
    requestor: number;
    selection: number;
    target: number;
    property: number;
    atom: number;
    state: number;
    /** Of Damage's events: of which damage, and the box around what was drawn on so far. */
    damage: number;
    area: { x: number; y: number; w: number; h: number };
    /** Of XInput's events: which key, and how it came. */
    detail: number;
    flags: number;
  }

  interface Extension {
    majorOpcode: number;
  }

  /** What of a drawable was drawn on. */
  interface Damage extends Extension {
    ReportLevel: { BoundingBox: number };
    Create(damage: number, drawable: number, level: number): void;
    Destroy(damage: number): void;
    /** What is noted so far is forgotten; with 0 for both regions, all of it. */
    Subtract(damage: number, repair: number, parts: number): void;
  }

  interface Fixes extends Extension {
    GetCursorImageAndName(
      done: Done<{
        x: number;
        y: number;
        width: number;
        height: number;
        xhot: number;
        yhot: number;
        cursorImage: Buffer;
        cursorName: string;
      }>,
    ): void;
  }

  interface Composite extends Extension {
    Redirect: { Automatic: number; Manual: number };
    RedirectSubwindows(window: number, how: number): void;
    NameWindowPixmap(window: number, pixmap: number): void;
  }

  interface Segment {
    buffer: Buffer;
    getImage(
      drawable: number,
      x: number,
      y: number,
      width: number,
      height: number,
      planes: number,
      format: number,
      offset: number,
      done: (error: Error | null) => void,
    ): void;
    detach(done?: () => void): void;
  }

  interface SharedMemory extends Extension {
    usable(done: (error: null, isUsable: boolean) => void): void;
    createSegment(bytes: number, done: (error: Error | null, segment: Segment) => void): void;
  }

  interface XTest extends Extension {
    ButtonPress: number;
    ButtonRelease: number;
    MotionNotify: number;
    FakeInput(
      type: number,
      detail: number,
      time: number,
      window: number,
      x: number,
      y: number,
    ): void;
  }

  interface RawInput extends Extension {
    /** What the server has of XInput 2; null for none. */
    xi2: object | null;
    XISelectEvents(window: number, wish: { deviceId: number; mask: string[] }): void;
  }

  interface XClient {
    on(event: 'event', act: (event: XEvent) => void): this;
    on(event: 'error', act: (error: Error) => void): this;
    /** Names of atoms and their numbers, as far as they are known. */
    atoms: Record<string, number>;
    stream: { destroyed: boolean; destroy(): void; on(event: 'close', act: () => void): unknown };
    seq_num: number;
    replies: Record<number, [(bytes: Buffer, flag: number) => unknown, Done<never>]>;
    pack_stream: { put(bytes: Buffer): void; submit(expectsReply?: boolean): void };
    AllocID(): number;
    ReleaseID(id: number): void;
    terminate(): void;
    require(name: 'fixes', done: Done<Fixes>): void;
    require(name: 'composite', done: Done<Composite>): void;
    require(name: 'randr', done: Done<Extension>): void;
    require(name: 'shm', done: Done<SharedMemory>): void;
    require(name: 'damage', done: Done<Damage>): void;
    require(name: 'xtest', done: Done<XTest>): void;
    require(name: 'xinput', done: Done<RawInput>): void;
    GetModifierMapping(done: Done<number[][]>): void;
    InternAtom(onlyIfExists: boolean, name: string, done: Done<number>): void;
    GetAtomName(atom: number, done: Done<string>): void;
    QueryTree(
      window: number,
      done: Done<{ root: number; parent: number; children: number[] }>,
    ): void;
    GetGeometry(drawable: number, done: Done<Geometry>): void;
    GetWindowAttributes(
      window: number,
      done: Done<{ visual: number; klass: number; mapState: number; overrideRedirect: number }>,
    ): void;
    TranslateCoordinates(
      from: number,
      to: number,
      x: number,
      y: number,
      done: Done<{ child: number; destX: number; destY: number }>,
    ): void;
    GetProperty(
      remove: number,
      window: number,
      name: number,
      type: number,
      offset: number,
      length: number,
      done: Done<Property>,
    ): void;
    ChangeProperty(
      mode: number,
      window: number,
      name: number,
      type: number,
      units: number,
      data: Buffer,
    ): void;
    DeleteProperty(window: number, name: number): void;
    ChangeWindowAttributes(window: number, values: Record<string, number>): void;
    GetInputFocus(done: Done<{ revertTo: number; focus: number }>): void;
    QueryPointer(
      window: number,
      done: Done<{
        child: number;
        rootX: number;
        rootY: number;
        childX: number;
        childY: number;
        keyMask: number;
      }>,
    ): void;
    GetImage(
      format: number,
      drawable: number,
      x: number,
      y: number,
      width: number,
      height: number,
      planes: number,
      done: Done<{ depth: number; visualId: number; data: Buffer }>,
    ): void;
    CreatePixmap(id: number, drawable: number, depth: number, width: number, height: number): void;
    FreePixmap(id: number): void;
    CreateGC(id: number, drawable: number, values: Record<string, number>): void;
    FreeGC(id: number): void;
    CopyArea(
      from: number,
      to: number,
      gc: number,
      x: number,
      y: number,
      toX: number,
      toY: number,
      width: number,
      height: number,
    ): void;
    CreateWindow(
      id: number,
      parent: number,
      x: number,
      y: number,
      width: number,
      height: number,
      border: number,
      depth: number,
      kind: number,
      visual: number,
      values: Record<string, number>,
    ): void;
    MapWindow(id: number): void;
    DestroyWindow(id: number): void;
    GetKeyboardMapping(first: number, count: number, done: Done<number[][]>): void;
    GrabKey(
      window: number,
      ownerEvents: number,
      modifiers: number,
      key: number,
      pointerMode: number,
      keyboardMode: number,
      done: Done<unknown>,
    ): void;
    UngrabKey(window: number, key: number, modifiers: number): void;
    GrabPointer(
      window: number,
      ownerEvents: number,
      mask: number,
      pointerMode: number,
      keyboardMode: number,
      confineTo: number,
      cursor: number,
      time: number,
      done: Done<number>,
    ): void;
    GrabKeyboard(
      window: number,
      ownerEvents: number,
      time: number,
      pointerMode: number,
      keyboardMode: number,
      done: Done<number>,
    ): void;
    UngrabPointer(time: number): void;
    UngrabKeyboard(time: number): void;
    OpenFont(id: number, name: string): void;
    PolyLine(coordMode: number, drawable: number, gc: number, points: number[]): void;
    PolyRectangle(drawable: number, gc: number, rects: number[]): void;
    PolyFillRectangle(drawable: number, gc: number, rects: number[]): void;
    ImageText8(drawable: number, gc: number, x: number, y: number, text: string): void;
    SendClientMessage(
      destination: number,
      window: number,
      type: number,
      format: number,
      data: number[],
    ): void;
    off(event: 'event', act: (event: XEvent) => void): this;
    SetSelectionOwner(owner: number, selection: number, time: number): void;
    ConvertSelection(
      requestor: number,
      selection: number,
      target: number,
      property: number,
      time: number,
    ): void;
    GetSelectionOwner(selection: number, done: Done<number>): void;
    SendEvent(destination: number, propagate: number, mask: number, event: object): void;
  }

  interface Display {
    screen: ScreenInfo[];
    screenNum: number;
    client: XClient;
    format: Record<number, { bits_per_pixel: number; scanline_pad: number }>;
    image_byte_order: number;
    max_request_length: number;
    min_keycode: number;
    max_keycode: number;
  }

  interface MemoryFile {
    fd: number;
    size: number;
    buffer: Buffer;
  }

  /** Where the package gets memory from that it shares with the X server. */
  interface MemoryFiles {
    flavor: 'fd';
    zeroCopy: boolean;
    create(size: number): MemoryFile;
    commit(file: MemoryFile, offset?: number, length?: number): void;
    sync(file: MemoryFile, offset?: number, length?: number): void;
    destroy(file: MemoryFile): void;
  }

  interface Options {
    display: string;
    shm?: MemoryFiles;
  }

  const x11: {
    createClient(options: Options, done: Done<Display>): XClient;
    eventMask: Record<string, number>;
    keySyms: Record<string, { code: number }>;
  };
  export default x11;
  export type {
    Composite,
    Damage,
    Display,
    Done,
    Extension,
    Fixes,
    Geometry,
    MemoryFile,
    MemoryFiles,
    Property,
    RawInput,
    Segment,
    SharedMemory,
    XClient,
    XEvent,
    XTest,
  };
}
