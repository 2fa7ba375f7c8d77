import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import "@fontsource-variable/atkinson-hyperlegible-next";
import "antd/dist/reset.css";
import "virtual:palette.css";
import "./app/base.css";

import "./i18n/phone";
import { PhoneApp } from "./app/PhoneApp";
import { Providers } from "./app/Providers";

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <Providers>
        <PhoneApp />
      </Providers>
    </StrictMode>,
  );
}
