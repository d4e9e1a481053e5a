import { useEffect, useState } from "react";
import { Navigate, Route, Routes, useNavigate } from "react-router";

import { useMe, useSignOut, useToday } from "./api/queries";
import { useTold } from "./api/told";
import { useKeys } from "./design/keys";
import { Shell } from "./design/Shell";
import { Message } from "./design/Message";
import { SignIn } from "./signin/SignIn";
import { TakePage } from "./take/TakePage";
import { TodayPage } from "./today/TodayPage";

/** The door first, then the rooms. */
export function App() {
  const me = useMe();
  if (me.isPending) return null;
  if (me.error)
    return (
      <Message
        title="Brevin does not answer"
        text="Look whether it is still running on the teacher's laptop, then try again."
        onRetry={() => me.refetch()}
      />
    );
  return me.data.name === null ? <SignIn /> : <Rooms who={me.data.name} />;
}

const SCHEME = "brevin-scheme";

function Rooms({ who }: { who: string }) {
  const today = useToday();
  const signOut = useSignOut();
  useTold();
  const go = useNavigate();
  const [chalk, setChalk] = useState(() => localStorage.getItem(SCHEME) === "chalk");
  useEffect(() => {
    document.documentElement.dataset.scheme = chalk ? "chalk" : "paper";
  }, [chalk]);
  const turn = () => {
    localStorage.setItem(SCHEME, chalk ? "paper" : "chalk");
    setChalk(!chalk);
  };
  useKeys("Everywhere", [
    { key: "h", does: "home: Today", run: () => go("/") },
    { key: "d", does: "light or dark", run: turn },
    { key: "q", does: "sign out", run: () => signOut.mutate() },
    { key: "?", does: "this list", run: () => undefined },
  ]);
  return (
    <Shell group={today.data?.lesson?.group_name ?? ""} who={who} onSignOut={() => signOut.mutate()} onScheme={turn}>
      <Routes>
        <Route path="/" element={<TodayPage chalk={chalk} />} />
        <Route path="/take/:id" element={<TakePage />} />
        <Route path="*" element={<Navigate to="/" replace />} />
      </Routes>
    </Shell>
  );
}
