export const DATABASE: string;
export class Plain extends Error {}
export function freePort(): Promise<number>;
export interface Started {
  url: string;
  socket: string;
  password: string;
  port: number;
  started: boolean;
}
export function start(folder: string, flags?: string[]): Promise<Started>;
export function stop(folder: string, signal?: NodeJS.Signals): Promise<boolean>;
export function reset(folder: string): Promise<void>;
