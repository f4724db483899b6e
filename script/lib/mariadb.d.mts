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
export function usersOf(folder: string): number[];
export function use(folder: string, pid?: number): void;
export function leave(folder: string, options?: { pid?: number; keep?: boolean }): Promise<void>;
export function runningPid(at: Layout): number | null;
export interface Layout {
  home: string;
  data: string;
  socket: string;
  users: string;
  portFile: string;
}
export function layout(folder: string): Layout;
