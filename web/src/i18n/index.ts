import i18next from "i18next";
import { initReactI18next } from "react-i18next";
import { en } from "./en";

i18next.use(initReactI18next).init({
  lng: "en",
  fallbackLng: "en",
  showSupportNotice: false,
  resources: { en: { translation: en } },
  interpolation: { escapeValue: false },
});

document.documentElement.lang = i18next.language;

export { i18next };
