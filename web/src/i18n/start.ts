import i18next from "i18next";
import { initReactI18next } from "react-i18next";

/** Begins with the texts of the pages that are served. */
export function speak(english: object): void {
  i18next.use(initReactI18next).init({
    lng: "en",
    fallbackLng: "en",
    showSupportNotice: false,
    resources: { en: { translation: english } },
    interpolation: { escapeValue: false },
  });
  document.documentElement.lang = i18next.language;
}

/** Adds the texts of a page that comes later, by their first words. */
export function alsoSay(english: Record<string, object>): void {
  for (const [name, texts] of Object.entries(english))
    i18next.addResourceBundle("en", "translation", { [name]: texts });
}
