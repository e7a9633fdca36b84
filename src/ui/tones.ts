/** Tones of the three outcomes: agree one low soft note, disagree two rising ones, overload a click; noted is silence. */
export type Tone = 'agree' | 'disagree' | 'overload';

let context: AudioContext | null = null;

/** Plays a tone unless sound is switched off. Never the only signal. */
export function playTone(tone: Tone, on: boolean): void {
  if (!on || typeof AudioContext === 'undefined') return;
  context ??= new AudioContext();
  const start = context.currentTime;
  if (tone === 'agree') note(context, 220, start, 0.18);
  else if (tone === 'disagree') {
    note(context, 440, start, 0.14);
    note(context, 587, start + 0.16, 0.18);
  } else note(context, 1200, start, 0.012);
}

function note(audio: AudioContext, hertz: number, at: number, seconds: number): void {
  const source = audio.createOscillator();
  const gain = audio.createGain();
  source.frequency.value = hertz;
  gain.gain.setValueAtTime(0.0001, at);
  gain.gain.exponentialRampToValueAtTime(0.12, at + 0.01);
  gain.gain.exponentialRampToValueAtTime(0.0001, at + seconds);
  source.connect(gain).connect(audio.destination);
  source.start(at);
  source.stop(at + seconds + 0.02);
}
