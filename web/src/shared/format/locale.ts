// How the reader's own language writes numbers and days. Making a format takes longer than all else on a page, so each is made once.

/** The reader's own kind of the page's language, as in "en-GB" or "en-US". */
export function locale(): string {
  const language = document.documentElement.lang || "en";
  return navigator.languages?.find((own) => own.split("-")[0] === language) ?? navigator.language ?? language;
}

/** Makes a format once for each locale. */
export function perLocale<F>(make: (locale: string) => F): () => F {
  const made = new Map<string, F>();
  return () => {
    const own = locale();
    const known = made.get(own) ?? make(own);
    made.set(own, known);
    return known;
  };
}
