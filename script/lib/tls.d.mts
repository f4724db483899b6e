export function ownNames(more?: readonly string[]): string[];
export function certificates(
  folder: string,
  names: readonly string[],
): { key: Buffer; cert: Buffer; authority: Buffer };
