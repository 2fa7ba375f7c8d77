import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";
import "@fontsource-variable/atkinson-hyperlegible-next";
import "antd/dist/reset.css";
import "virtual:palette.css";
import "./app/base.css";
import "./i18n";
import { DeskProviders } from "./app/DeskProviders";
import { Providers } from "./app/Providers";
import { router } from "./app/router";

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <Providers>
        <DeskProviders>
          <RouterProvider router={router} />
        </DeskProviders>
      </Providers>
    </StrictMode>,
  );
}
