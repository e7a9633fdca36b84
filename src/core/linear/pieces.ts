/** Numbers in one buffer: a typed array with a buffer to itself costs microseconds, a piece of a larger one a tenth of that. */
const CHUNK = 8192;

let doubles = new Float64Array(CHUNK);
let doublesUsed = 0;

/** n zeros, a piece of a larger buffer. Not for what goes to another thread: that would take the whole buffer along. */
export function floats(n: number): Float64Array {
  if (n > CHUNK / 4) return new Float64Array(n);
  if (doublesUsed + n > CHUNK) {
    doubles = new Float64Array(CHUNK);
    doublesUsed = 0;
  }
  doublesUsed += n;
  return doubles.subarray(doublesUsed - n, doublesUsed);
}

/** A copy of numbers as such a piece. */
export function floatsOf(numbers: ArrayLike<number>): Float64Array {
  const made = floats(numbers.length);
  made.set(numbers);
  return made;
}

let integers = new Int32Array(CHUNK);
let integersUsed = 0;

/** The same for integers. */
export function ints(n: number): Int32Array {
  if (n > CHUNK / 4) return new Int32Array(n);
  if (integersUsed + n > CHUNK) {
    integers = new Int32Array(CHUNK);
    integersUsed = 0;
  }
  integersUsed += n;
  return integers.subarray(integersUsed - n, integersUsed);
}

/** Integers as such a piece. */
export function intsOf(numbers: ArrayLike<number>): Int32Array {
  const made = ints(numbers.length);
  made.set(numbers);
  return made;
}
