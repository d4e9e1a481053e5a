import { useQueryClient } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { ErrorBoundary, type FallbackProps } from "react-error-boundary";
import { useLocation, useNavigate } from "react-router";

import { Message } from "./design/Message";

/** A page that cannot be drawn says so in its own place: the way to the others, the keys and what is being sent go on. */
export function Guarded({ children }: { children: ReactNode }) {
  const at = useLocation().pathname;
  return (
    <ErrorBoundary FallbackComponent={Broken} resetKeys={[at]}>
      {children}
    </ErrorBoundary>
  );
}

function Broken({ error, resetErrorBoundary }: FallbackProps) {
  const go = useNavigate();
  const queries = useQueryClient();
  const anew = () => {
    void queries.resetQueries({ predicate: (query) => query.queryKey[0] !== "me" }); // the same answers would end in the same mistake
    resetErrorBoundary();
  };
  const at = useLocation().pathname;
  const toToday = () => (at === "/" ? anew() : go("/")); // another address is another try by itself
  const why = error instanceof Error ? error.message : String(error);
  return (
    <Message
      title="This page could not be drawn"
      text={`The mistake is Brevin's, not yours, and what was filmed and saved is kept. Try again; if it comes back, tell whoever looks after Brevin: \u201c${why}\u201d`}
      onRetry={anew}
      onGo={toToday}
      goes="Go to Today"
    />
  );
}
