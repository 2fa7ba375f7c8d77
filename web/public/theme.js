// Before anything is drawn: the theme chosen in this browser, else the device's own. Not part of the page's script, which comes later.
(() => {
  const kept = localStorage.getItem("orthomer-theme");
  const dark = matchMedia("(prefers-color-scheme: dark)").matches;
  document.documentElement.dataset.theme = kept === "night" || (kept !== "paper" && dark) ? "night" : "paper";
})();
