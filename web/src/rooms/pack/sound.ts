let audio: AudioContext | null = null;

/** A short tone; nothing where the browser makes no sound. */
export function ring() {
  try {
    audio ??= new AudioContext();
    const [tone, loudness] = [audio.createOscillator(), audio.createGain()];
    tone.frequency.value = 880;
    loudness.gain.setValueAtTime(0.12, audio.currentTime);
    loudness.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + 0.35);
    tone.connect(loudness).connect(audio.destination);
    tone.start();
    tone.stop(audio.currentTime + 0.35);
  } catch {
    // Without sound the word and the bar say it.
  }
}
