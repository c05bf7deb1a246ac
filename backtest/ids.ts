import { v5 } from 'uuid';

const SPACE = '6f1c1f0e-9d1b-5a53-8b43-5b0a3d4a7c11';

/** A world calls things by names of its own; a studio’s records by ids. The same name gets the same id. */
export class Ids {
  private readonly names = new Map<string, string>();

  of(kind: string, name: string): string {
    const id = v5(`${kind} ${name}`, SPACE);
    this.names.set(id, name);
    return id;
  }

  /** What the world calls it. */
  nameOf(id: string): string {
    const name = this.names.get(id);
    if (name === undefined) throw new Error('an id that was never given');
    return name;
  }
}
