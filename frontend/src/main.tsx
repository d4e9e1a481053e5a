import "@fontsource/source-sans-3/400.css";
import "@fontsource/source-sans-3/600.css";
import "@fontsource/source-sans-3/700.css";
import "@fontsource/source-sans-3/800.css";

import { MutationCache, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";

import { Refusal } from "./api/client";
import { listenEarly } from "./api/told";
import { App } from "./App";
import { GlobalStyle } from "./design/GlobalStyle";
import { KeyBoard } from "./design/keys";
import { looksAgain } from "./design/looksAgain";
import { Guarded } from "./Guarded";

const unanswered = (error: unknown) => error instanceof Refusal && error.code === "unreachable";

const queries: QueryClient = new QueryClient({
  mutationCache: new MutationCache({
    onError: (error) => void (unanswered(error) && queries.invalidateQueries()), // it may have been done all the same: look
  }),
  defaultOptions: {
    queries: {
      retry: (count, error) => count < 2 && !(error instanceof Refusal && error.status >= 400 && error.status < 500),
      refetchOnWindowFocus: false,
      staleTime: 1_000, // what was waited for is not asked for again by the part of the page that shows it; changes are told
    },
  },
});

queries.getQueryCache().subscribe((event) => {
  const error = event.query.state.error;
  // signed out meanwhile: ask who is signed in, and the door appears
  if (event.type === "updated" && error instanceof Refusal && error.code === "signed_out" && event.query.queryKey[0] !== "me")
    void queries.invalidateQueries({ queryKey: ["me"] });
});

looksAgain();
listenEarly(queries);
createRoot(document.getElementById("page")!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <GlobalStyle />
      <BrowserRouter>
        <KeyBoard>
          <Guarded>
            <App />
          </Guarded>
        </KeyBoard>
      </BrowserRouter>
    </QueryClientProvider>
  </StrictMode>,
);
