/** Two short tones, again every so many seconds, until stopped. A browser that was not touched yet stays silent. */
export function alarm(): () => void {
  if (typeof AudioContext === "undefined") return () => undefined;
  const audio = new AudioContext();
  const tone = (at: number, hertz: number) => {
    const oscillator = audio.createOscillator();
    const gain = audio.createGain();
    oscillator.frequency.value = hertz;
    gain.gain.setValueAtTime(0, at);
    gain.gain.linearRampToValueAtTime(0.2, at + 0.02);
    gain.gain.linearRampToValueAtTime(0, at + 0.22);
    oscillator.connect(gain).connect(audio.destination);
    oscillator.start(at);
    oscillator.stop(at + 0.25);
  };
  const ring = () => {
    tone(audio.currentTime + 0.02, 660);
    tone(audio.currentTime + 0.3, 880);
  };
  ring();
  const again = setInterval(ring, 4000);
  return () => {
    clearInterval(again);
    void audio.close();
  };
}
