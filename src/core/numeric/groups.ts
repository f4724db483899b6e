/** Things joined into groups, each known by one of its own. */
export class Groups {
  private readonly up = new Map<string, string>();

  constructor(ids: Iterable<string>) {
    for (const id of ids) this.up.set(id, id);
  }

  has(id: string): boolean {
    return this.up.has(id);
  }

  /** The one that stands for the group of `id`; the way to it is made shorter as it is gone. */
  of(id: string): string {
    let at = id;
    for (let next = this.up.get(at); next !== undefined && next !== at; next = this.up.get(at)) {
      this.up.set(at, this.up.get(next) ?? next);
      at = next;
    }
    return at;
  }

  join(a: string, b: string): void {
    this.up.set(this.of(a), this.of(b));
  }
}
