/** A point or direction in plan, mm. x along AB, y towards CD. */
export interface Vec2 {
  x: number;
  y: number;
}
export const sub = (a: Vec2, b: Vec2): Vec2 => ({ x: a.x - b.x, y: a.y - b.y });
export const add = (a: Vec2, b: Vec2): Vec2 => ({ x: a.x + b.x, y: a.y + b.y });
export const scale = (a: Vec2, k: number): Vec2 => ({ x: a.x * k, y: a.y * k });
export const dot = (a: Vec2, b: Vec2): number => a.x * b.x + a.y * b.y;
export const cross = (a: Vec2, b: Vec2): number => a.x * b.y - a.y * b.x;
export const norm = (a: Vec2): number => Math.hypot(a.x, a.y);
export const unit = (a: Vec2): Vec2 => scale(a, 1 / norm(a));
export const distance = (a: Vec2, b: Vec2): number => norm(sub(a, b));
export const degrees = (rad: number): number => (rad * 180) / Math.PI;
export const radians = (deg: number): number => (deg * Math.PI) / 180;
