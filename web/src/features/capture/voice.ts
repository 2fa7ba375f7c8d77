/** Says it aloud, in place of what is being said: who stands three metres away reads nothing. Silent where the phone has no voice. */
export function say(words: string): void {
  if (typeof speechSynthesis === "undefined") return;
  speechSynthesis.cancel();
  const said = new SpeechSynthesisUtterance(words);
  said.lang = document.documentElement.lang;
  speechSynthesis.speak(said);
}

export function hush(): void {
  if (typeof speechSynthesis !== "undefined") speechSynthesis.cancel();
}
