/** Numbers from 0 to `below`, the same for the same seed. */
export function dice(seed: number): (below: number) => number {
  let state = (seed * 2654435761 + 1) >>> 0;
  return (below) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return Math.floor((state / 2 ** 32) * below);
  };
}
