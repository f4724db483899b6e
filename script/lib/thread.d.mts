export function bundleThread(outfile: string): Promise<unknown>;
