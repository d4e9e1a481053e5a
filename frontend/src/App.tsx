import { useEffect, useState } from "react";
import { Navigate, Route, Routes, useLocation, useNavigate } from "react-router";

import type { Me } from "./api/client";
import { useGoAlong } from "./api/programmes";
import { useMe, useSignOut, useToday } from "./api/queries";
import { useTold } from "./api/told";
import { useKeys } from "./design/keys";
import { Question } from "./design/Question";
import { Shell } from "./design/Shell";
import { Message } from "./design/Message";
import { Guarded } from "./Guarded";
import { BenchPage } from "./bench/BenchPage";
import { CarePage } from "./bench/CarePage";
import { NotesPage } from "./bench/NotesPage";
import { StepsPage } from "./bench/StepsPage";
import { CardsPage } from "./cards/CardsPage";
import { ClassPage } from "./class/ClassPage";
import { FilmPage } from "./film/FilmPage";
import { FirstStart } from "./first/FirstStart";
import { MethodPage } from "./method/MethodPage";
import { MirrorPage } from "./mirror/MirrorPage";
import { Invited } from "./people/Invited";
import { PeoplePage } from "./people/PeoplePage";
import { Programmes } from "./people/Programmes";
import { JoinPhone } from "./phone/JoinPhone";
import { PhoneRoom } from "./phone/PhoneRoom";
import { SignIn } from "./signin/SignIn";
import { StudentPage } from "./student/StudentPage";
import { TakePage } from "./take/TakePage";
import { TodayPage } from "./today/TodayPage";
import { UploadsProvider, useDropGuard, useUploads } from "./shared/uploads";

/** The door first, then the rooms. */
export function App() {
  const me = useMe();
  const at = useLocation().pathname;
  if (me.isPending) return null;
  if (me.error && !me.data)
    return (
      <Message
        title="Brevin does not answer"
        text="Look whether it is still running on the teacher's laptop, then try again."
        onRetry={() => me.refetch()}
      />
    );
  if (at === "/phone") return <JoinPhone />;
  if (at === "/invited") return <Invited />;
  if (me.data?.empty) return <FirstStart />;
  if (!me.data || me.data.name === null) return <SignIn />;
  if (me.data.role === "phone")
    return (
      <UploadsProvider>
        <Guarded>
          <PhoneRoom />
        </Guarded>
      </UploadsProvider>
    );
  return (
    <UploadsProvider>
      <Rooms me={me.data} />
    </UploadsProvider>
  );
}

const SCHEME = "brevin-scheme";

function Rooms({ me }: { me: Me }) {
  const { may } = me;
  const programme = me.programme?.name ?? "";
  const today = useToday();
  const signOut = useSignOut();
  const uploads = useUploads();
  const [asking, setAsking] = useState(false);
  useTold();
  useDropGuard();
  const go = useNavigate();
  const [chalk, setChalk] = useState(() => localStorage.getItem(SCHEME) === "chalk");
  const at = useLocation().pathname;
  const filming = /^\/(film\/|mirror)/.test(at); // seen by the class, whatever the teacher's own page looks like
  const inClass = /^\/bench\/[a-z]+\/(together|away)/.test(at); // the step cards are read by the class
  useGoAlong(me.programme?.id, filming);
  useEffect(() => {
    document.documentElement.dataset.scheme = chalk || filming || inClass ? "chalk" : "paper";
  }, [chalk, filming, inClass]);
  const turn = () => {
    localStorage.setItem(SCHEME, chalk ? "paper" : "chalk");
    setChalk(!chalk);
  };
  const leave = () => (uploads.busy ? setAsking(true) : signOut.mutate());
  useKeys("Everywhere", [
    { key: "h", does: "home: Today", run: () => go("/") },
    { key: "b", does: "the band: Class", run: () => go("/class") },
    { key: "j", does: "count cards", run: () => go("/cards") },
    { key: "y", does: "how you teach", run: () => go("/teaching") },
    { key: "g", does: "get ready: the instrument bench", run: () => go("/bench"), off: filming },
    { key: "d", does: "light or dark", run: turn },
    { key: "q", does: "sign out", run: leave },
    { key: "?", does: "this list", run: () => undefined },
  ]);
  if (filming)
    return (
      <Guarded>
        <Routes>
          <Route path="/film/:seat" element={<FilmPage />} />
          <Route path="/mirror" element={<MirrorPage />} />
        </Routes>
      </Guarded>
    );
  return (
    <Shell
      group={<Programmes me={me} busy={uploads.busy} />}
      who={me.name ?? ""}
      people={may.includes("people")}
      onSignOut={leave}
      onScheme={turn}
    >
      {today.error && today.data && (
        <p role="status">What you see is from a moment ago: {today.error.message} Nothing is lost meanwhile.</p>
      )}
      <Guarded>
        <Routes>
          <Route path="/" element={<TodayPage chalk={chalk} />} />
          <Route path="/class" element={<ClassPage programme={programme} may={may.includes("class")} />} />
          <Route path="/teaching" element={<MethodPage may={may.includes("rules")} />} />
          <Route path="/people" element={<PeoplePage />} />
          <Route path="/cards" element={<CardsPage may={may.includes("class")} />} />
          <Route path="/bench" element={<BenchPage may={may.includes("rules")} />} />
          <Route path="/bench/notes/:student" element={<NotesPage />} />
          <Route path="/bench/care/:card" element={<CarePage />} />
          <Route path="/bench/:card/:phase" element={<StepsPage />} />
          <Route path="/student/:id" element={<StudentPage chalk={chalk} />} />
          <Route path="/take/:id" element={<TakePage chalk={chalk} />} />
          <Route path="*" element={<Navigate to="/" replace />} />
        </Routes>
      </Guarded>
      <Question
        isOpen={asking}
        onClose={() => setAsking(false)}
        title="A clip is still being sent"
        text="Who signs out now loses it, and it has to be sent again. It takes a moment only."
        does="Sign out and lose it"
        keeps="Wait for it"
        onDo={() => signOut.mutate()}
      />
    </Shell>
  );
}
