import x11, { type Display, type Property, type XClient, type XEvent } from 'x11';

/** Asks for the clipboard as a program does by ICCCM 2.4, and reads the property it came in. */
export class ClipboardReader {
  private constructor(
    private readonly X: XClient,
    private readonly window: number,
  ) {}

  static async open(name: string): Promise<ClipboardReader> {
    const opened = await new Promise<Display>((resolve, reject) =>
      x11.createClient({ display: name }, (error, d) => (error ? reject(error) : resolve(d))),
    );
    const { client: X, screen } = opened;
    // The package has one table of atoms for all connections.
    X.atoms = { ...X.atoms };
    const window = X.AllocID();
    X.CreateWindow(window, screen[0]?.root ?? 0, 0, 0, 1, 1, 0, 0, 0, 0, {});
    return new ClipboardReader(X, window);
  }

  atom(name: string): Promise<number> {
    return new Promise((resolve) => this.X.InternAtom(false, name, (_, atom) => resolve(atom)));
  }

  write(property: number, type: number, data: Buffer): void {
    this.X.ChangeProperty(0, this.window, property, type, 32, data);
  }

  async convert(target: number, property: number): Promise<number> {
    const clipboard = await this.atom('CLIPBOARD');
    const answered = new Promise<number>((resolve) => {
      const hear = (event: XEvent): void => {
        if (event.name !== 'SelectionNotify') return;
        this.X.off('event', hear);
        resolve(event.property);
      };
      this.X.on('event', hear);
    });
    this.X.ConvertSelection(this.window, clipboard, target, property, 0);
    return answered;
  }

  read(property: number): Promise<Property> {
    return new Promise((resolve) =>
      this.X.GetProperty(0, this.window, property, 0, 0, 1 << 20, (_, value) => resolve(value)),
    );
  }

  /** What comes in increments (ICCCM 2.7.2): each is there once the one before is deleted. */
  async rest(property: number): Promise<Buffer> {
    const pieces: Buffer[] = [];
    for (;;) {
      this.X.DeleteProperty(this.window, property);
      let piece = await this.read(property);
      while (piece.type === 0) piece = await this.read(property);
      if (piece.data.length === 0) return Buffer.concat(pieces);
      pieces.push(piece.data);
    }
  }

  /** Since when its owner has had it, on the X server's clock; 0 when nobody has it. */
  async since(): Promise<number> {
    const [timestamp, place] = await Promise.all([this.atom('TIMESTAMP'), this.atom('SINCE')]);
    if (!(await this.convert(timestamp, place))) return 0;
    return (await this.read(place)).data.readUInt32LE(0);
  }

  close(): void {
    this.X.terminate();
  }
}
