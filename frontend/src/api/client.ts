import createClient from "openapi-fetch";

import type { components, paths } from "./gen/schema";
import { namedOnce, ONCE_HEADER } from "./once";

type Schemas = components["schemas"];
export type Report = Schemas["ReportOut"];
export type Place = Schemas["Place"];
export type Breath = Report["breaths"][number];
export type Verdict = Report["verdicts"][number];
export type Mark = Verdict["marks"][number];
export type Take = Schemas["TakeOut"];
export type Today = Schemas["TodayOut"];
export type Lesson = NonNullable<Today["lesson"]>;
export type Seat = Lesson["seats"][number];
export type Me = Schemas["Me"];
export type Check = Schemas["CheckOut"];
export type Result = Schemas["ResultOut"];
export type Earlier = Schemas["EarlierOut"];
export type Card = Schemas["CardOut"];
export type Edits = Schemas["EditsIn"];
export type State = Verdict["state"];
export type ClassNow = Schemas["ClassOut"];
export type ClassList = Schemas["ListOut"];
export type ListRow = Schemas["ListRow"];
export type Sits = Schemas["SitsOf"];
export type Member = Schemas["MemberOut"];
export type Group = Schemas["GroupOut"];
export type ClassChanges = Partial<Schemas["ChangesIn"]>;
export type FirstIn = Schemas["FirstIn"];
export type LadderCard = Schemas["LadderCard"];
export type LadderOut = Schemas["LadderOut"];
export type MirrorOut = Schemas["MirrorOut"];
export type FaceOut = Schemas["FaceOut"];
export type ReadyLine = Schemas["ReadyLine"];
export type Felt = Take["felt"];
export type Method = Schemas["MethodOut"];
export type JudgedRow = Schemas["JudgedRowOut"];
export type ExemptionChange = Schemas["ExemptionChangeOut"];
export type CueRecord = Schemas["CueRecordOut"];
export type Repetitions = Schemas["RepetitionsOut"];
export type Fault = Pick<NonNullable<Report["cue"]>, "criterion" | "side">;
export type Helps = Schemas["HelpsOut"];
export type Ticks = Schemas["TicksOut"];
/** Places are pairs, x and y. */
export type Drawing = Omit<Schemas["DrawingOut"], "at_px" | "to_px"> & { at_px: number[]; to_px: number[] };
export type Backup = Schemas["BackupOut"];
export type Preview = Schemas["PreviewOut"];
export type Examples = Schemas["ExamplesOut"];
export type Proposed = Schemas["ProposedOut"];
export type RuleChanges = Schemas["RuleChangesOut"];
export type MethodIn = Schemas["MethodIn"];
export type Bench = Schemas["BenchOut"];
export type Section = Schemas["SectionOut"];
export type Run = Schemas["RunOut"];
export type BenchCard = Schemas["BenchCardOut"];
export type BenchStep = Schemas["Step"];
export type BenchNote = Schemas["NoteOut"];
export type Staff = Schemas["StaffOut"];
export type LineDrawing = Schemas["Drawing"];
export type LineShape = Schemas["Shape"];
export type Firsts = Schemas["FirstsOut"];
export type Rung = Schemas["RungOut"];
export type Care = Schemas["CareOut"];
export type CareTask = Schemas["CareTaskOut"];
export type Passport = Schemas["PassportOut"];
export type BenchRules = Schemas["BenchRulesOut"];
export type Outcome = Schemas["TryIn"]["outcome"];
export type Heard = Schemas["HeardOut"];
export type Tap = Schemas["TapIn"];
export type LessonIn = Schemas["LessonIn"];

/** A refusal by the server: a code for the program, a sentence for the person. */
export class Refusal extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly status: number,
  ) {
    super(message);
  }
}

const UNREACHABLE = "Brevin does not answer. Look whether it is still running, then try again.";
let csrf = "";

export const setCsrf = (token: string) => {
  csrf = token;
};
export const csrfHeader = () => ({ "X-CSRFToken": csrf });

/** A tap reaches the server though the page is left or loaded anew at once. */
export const TAP = { keepalive: true } as const;

export const client = createClient<paths>({ baseUrl: "/" });
client.use({
  onRequest: ({ request }) => {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", csrf);
    return request;
  },
  onResponse: async ({ response }) => {
    if (!response.ok) throw await refusalOf(response);
    return response;
  },
  onError: () => new Refusal("unreachable", UNREACHABLE, 0),
});
client.use(namedOnce()); // after the other, so that it hears of an answer before that turns it into a refusal

async function refusalOf(response: Response): Promise<Refusal> {
  try {
    const { code, message } = await response.json();
    return new Refusal(code, message, response.status);
  } catch {
    return new Refusal("unreachable", UNREACHABLE, response.status);
  }
}

/** The body of an answer; the client has thrown already where there is none. */
export function body<T>(answer: { data?: T }): T {
  if (answer.data === undefined) throw new Refusal("unreachable", UNREACHABLE, 0);
  return answer.data;
}

type Upload = {
  file: File;
  seat: Seat;
  lessonId: number;
  kept: { key: string; first_inhale_s: number; felt?: Felt; set?: number } | null;
  once?: { withoutIt?: boolean; fromFront?: boolean } | null;
  came: number | null;
  name: string;
  onShare: (share: number) => void;
};

/** Sends the clip of the student on a chair, telling how much has gone; came: its bytes, where all of them came while it was filmed; name: under which it
 * is sent, and sent again. Fetch cannot tell, so this uses the older request. */
export function upload({ file, seat, lessonId, kept, once, came, name, onShare }: Upload): Promise<Take> {
  const query = new URLSearchParams({
    student_id: String(seat.student.id),
    seat_id: String(seat.id),
    ...(seat.check.id ? { asked_id: String(seat.check.id) } : {}), // as it was when the count began
    lesson_id: String(lessonId),
    file_name: file.name,
    ...(kept
      ? { sent_as: kept.key, first_inhale_s: kept.first_inhale_s.toFixed(3), felt: kept.felt ?? "", set_number: String(kept.set ?? 0) }
      : {}),
    ...(once?.withoutIt ? { without_it: "true" } : {}),
    ...(once?.fromFront ? { from_front: "true" } : {}),
    ...(came === null ? {} : { came_bytes: String(came) }),
  });
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open("POST", `/api/takes?${query}`);
    request.setRequestHeader("X-CSRFToken", csrf);
    request.setRequestHeader("Content-Type", "application/octet-stream");
    request.setRequestHeader(ONCE_HEADER, name);
    request.upload.onprogress = (event) => event.lengthComputable && onShare(event.loaded / event.total);
    request.onerror = () => reject(new Refusal("unreachable", UNREACHABLE, 0));
    request.onload = () => {
      const answer = parsed(request.responseText);
      if (request.status === 201 || request.status === 200) resolve(answer as Take);
      else reject(new Refusal(String(answer.code ?? "unreachable"), String(answer.message ?? UNREACHABLE), request.status));
    };
    request.send(came === null ? file : null);
  });
}

function parsed(text: string): Record<string, unknown> {
  try {
    return JSON.parse(text);
  } catch {
    return {};
  }
}
