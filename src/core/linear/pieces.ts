/** Numbers in one buffer: a typed array with a buffer to itself costs microseconds, a piece of a larger one a tenth of that. */
const CHUNK = 8192;

/** Hands out pieces of larger buffers, of zeros; what is long has a buffer to itself. */
function pieces<A extends Float64Array | Int32Array>(make: (n: number) => A): (n: number) => A {
  let chunk = make(CHUNK);
  let used = 0;
  return (n) => {
    if (n > CHUNK / 4) return make(n);
    if (used + n > CHUNK) {
      chunk = make(CHUNK);
      used = 0;
    }
    used += n;
    return chunk.subarray(used - n, used) as A;
  };
}

function filled<A extends Float64Array | Int32Array>(made: A, numbers: ArrayLike<number>): A {
  made.set(numbers);
  return made;
}

/** n zeros, a piece of a larger buffer. Not for what goes to another thread: that would take the whole buffer along. */
export const floats = pieces((n) => new Float64Array(n));

/** The same for integers. */
export const ints = pieces((n) => new Int32Array(n));

/** A copy of numbers as such a piece. */
export const floatsOf = (numbers: ArrayLike<number>): Float64Array => filled(floats(numbers.length), numbers);

/** A copy of integers as such a piece. */
export const intsOf = (numbers: ArrayLike<number>): Int32Array => filled(ints(numbers.length), numbers);
