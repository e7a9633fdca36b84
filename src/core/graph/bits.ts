/** A set of whole numbers from 0 up to below `length`, as bits of words. */
export class Bits {
  private readonly words: Uint32Array;

  constructor(readonly length: number) {
    this.words = new Uint32Array(Math.ceil(length / 32));
  }

  add(i: number): void {
    this.words[i >>> 5] = this.words[i >>> 5]! | (1 << (i & 31));
  }

  addAll({ words }: Bits): void {
    for (let w = 0; w < words.length; w++) this.words[w] = this.words[w]! | words[w]!;
  }

  has(i: number): boolean {
    return ((this.words[i >>> 5]! >>> (i & 31)) & 1) === 1;
  }

  /** How many numbers are in it. */
  get size(): number {
    let n = 0;
    for (const word of this.words) n += ones(word);
    return n;
  }

  /** Whether all numbers of another one of its length are in it. */
  holds({ words }: Bits): boolean {
    for (let w = 0; w < words.length; w++) if ((words[w]! & ~this.words[w]!) !== 0) return false;
    return true;
  }

  /** How many numbers it shares with another one of its length. */
  shared({ words }: Bits): number {
    let n = 0;
    for (let w = 0; w < words.length; w++) n += ones(words[w]! & this.words[w]!);
    return n;
  }

  /** The numbers that are not in another one of its length. */
  without({ words }: Bits): Bits {
    const made = new Bits(this.length);
    for (let w = 0; w < words.length; w++) made.words[w] = this.words[w]! & ~words[w]!;
    return made;
  }
}

/** Ones in a word of 32 bits. Source: H. S. Warren, Hacker's Delight, section 5-1. */
function ones(word: number): number {
  let x = word - ((word >>> 1) & 0x55555555);
  x = (x & 0x33333333) + ((x >>> 2) & 0x33333333);
  return (((x + (x >>> 4)) & 0x0f0f0f0f) * 0x01010101) >>> 24;
}
