/** What was typed into fields and could not be read, by path. */
export class UnreadTexts {
  all: Readonly<Record<string, string>> = {};

  /** Keeps a text, or forgets it (null). @returns false when it was so already. */
  keep(path: string, text: string | null): boolean {
    if (text === null ? !(path in this.all) : this.all[path] === text) return false;
    const { [path]: _old, ...rest } = this.all;
    this.all = text === null ? rest : { ...rest, [path]: text };
    return true;
  }

  /** @param prefix start of paths. @returns false when there was none. */
  forget(prefix: string): boolean {
    const left = Object.fromEntries(Object.entries(this.all).filter(([path]) => !path.startsWith(prefix)));
    const some = Object.keys(left).length < Object.keys(this.all).length;
    if (some) this.all = left;
    return some;
  }
}
