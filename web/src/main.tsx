import { notifyManager, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { hearOfOthers } from "./api/events";
import { keepAnswers, PAIRED } from "./api/kept";
import { App } from "./app/App";
import { Boundary } from "./app/Boundary";
import { startTheme } from "./app/theme";
import { afterPress, watchPresses } from "./press";
import "./styles.css";

startTheme();
watchPresses();
notifyManager.setScheduler((act) => afterPress(() => setTimeout(act, 0)));
const queries = new QueryClient({
  defaultOptions: {
    queries: {
      retry: 1,
      refetchOnWindowFocus: true,
      networkMode: "always", // the computer is in this network: the internet does not matter
      ...(PAIRED ? { gcTime: Number.POSITIVE_INFINITY } : {}),
    },
    mutations: { networkMode: "always" },
  },
});
hearOfOthers(queries);
const root = document.getElementById("root");
void keepAnswers(queries).then(() => {
  if (!root) return;
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <BrowserRouter>
          <Boundary>
            <App />
          </Boundary>
        </BrowserRouter>
      </QueryClientProvider>
    </StrictMode>,
  );
});
