import "./nonce";
import "./styles.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { Tooltip } from "radix-ui";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { Problem } from "../api/client";
import { Toasts } from "../ui/Toasts";
import { App } from "./App";
import { startTheme } from "../ui/theme";

startTheme();

const client: QueryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 60_000,
      refetchOnWindowFocus: false,
      retry: (failures, error) =>
        error instanceof Problem && (error.status === 0 || error.status === 503) ? failures < 3 : false,
    },
  },
});

// A session that has ended shows the sign-in page, wherever it is noticed.
client.getQueryCache().subscribe((event) => {
  if (
    event.type === "updated" &&
    event.action.type === "error" &&
    event.action.error instanceof Problem &&
    event.action.error.status === 401
  )
    void client.invalidateQueries({ queryKey: ["me"] });
});

const root = document.getElementById("root");
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <Tooltip.Provider delayDuration={500}>
          <BrowserRouter>
            <Toasts>
              <App />
            </Toasts>
          </BrowserRouter>
        </Tooltip.Provider>
      </QueryClientProvider>
    </StrictMode>,
  );
