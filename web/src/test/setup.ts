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
