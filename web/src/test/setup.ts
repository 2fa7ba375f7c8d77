// Words and days as somebody in Britain reads them, wherever the tests run.
Object.defineProperty(navigator, "languages", { value: ["en-GB"], configurable: true });

// The browser of the tests lays nothing out: no media query holds, and nobody is told of a change.
const never = (media: string) => ({
  media,
  matches: false,
  addListener: () => {},
  removeListener: () => {},
  addEventListener: () => {},
  removeEventListener: () => {},
});
window.matchMedia = never as unknown as typeof window.matchMedia;

// No server either: what a test does not answer is refused at once, without a try at the network.
const refused: typeof fetch = () => Promise.reject(new TypeError("no server in tests"));
globalThis.fetch = refused;
window.fetch = refused;
