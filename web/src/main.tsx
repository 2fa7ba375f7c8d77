import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";
import "@fontsource-variable/atkinson-hyperlegible-next";
import "antd/dist/reset.css";
import "./app/base.css";
import "./i18n";
import { Providers } from "./app/Providers";
import { router } from "./app/router";

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <Providers>
        <RouterProvider router={router} />
      </Providers>
    </StrictMode>,
  );
}
