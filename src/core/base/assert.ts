/** Throws a RangeError that names the allowed range and the value got. */
export function assertRange(name: string, value: number, low: number, high: number): void {
  if (!(value >= low && value <= high)) throw new RangeError(`${name}: expected ${low} to ${high}, got ${value}`);
}
