import type { Handle, Vec2 } from '@helb/core';

/**
 * The thing that lies nearest to a place on paper; corners before lines, since they are harder to meet.
 * @param within so near it has to be, mm
 */
export function nearestHandle(handles: readonly Handle[], at: Vec2, within: number): Handle | undefined {
  let best: { handle: Handle; far: number } | undefined;
  for (const handle of handles) {
    const far = farFrom(handle.path, at) - (handle.path.length === 1 ? within / 3 : 0);
    if (far < within && (!best || far < best.far - 1e-9)) best = { handle, far };
  }
  return best?.handle;
}

function farFrom(path: readonly Vec2[], [x, y]: Vec2): number {
  const [first] = path;
  if (path.length === 1) return Math.hypot(x - first![0], y - first![1]);
  let least = Infinity;
  for (let k = 1; k < path.length; k++) {
    const [a, b] = [path[k - 1]!, path[k]!];
    const [u, v] = [b[0] - a[0], b[1] - a[1]];
    const square = u * u + v * v;
    const share = square > 0 ? Math.min(1, Math.max(0, ((x - a[0]) * u + (y - a[1]) * v) / square)) : 0;
    least = Math.min(least, Math.hypot(x - a[0] - share * u, y - a[1] - share * v));
  }
  return least;
}
