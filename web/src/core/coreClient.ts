import type { Schemas } from "../api/client";

interface Reply {
  id: number;
  answer?: string;
  error?: string;
}

const waiting = new Map<number, { resolve: (answer: string) => void; reject: (error: Error) => void }>();
let worker: Worker | undefined;
let calls = 0;

function theWorker(): Worker {
  if (!worker) {
    worker = new Worker(new URL("./worker.ts", import.meta.url), { type: "module" });
    worker.addEventListener("message", (event: MessageEvent<Reply>) => {
      const { id, answer, error } = event.data;
      const call = waiting.get(id);
      waiting.delete(id);
      if (answer !== undefined) call?.resolve(answer);
      else call?.reject(new Error(error ?? "The core gave no answer."));
    });
  }
  return worker;
}

function call<T>(method: string, request: unknown): Promise<T> {
  const id = ++calls;
  return new Promise<string>((resolve, reject) => {
    waiting.set(id, { resolve, reject });
    const body = request instanceof Uint8Array ? request : JSON.stringify(request);
    theWorker().postMessage({ id, method, body });
  }).then((answer) => JSON.parse(answer) as T);
}

/** Starts loading the core, so that it is warm when it is needed. */
export function warmUp(): void {
  theWorker();
}

export const core = {
  readKeyText: (text: string) => call<Schemas["KeyReading"]>("ReadKeyText", { text }),
  fillShelf: (shelf: Schemas["Shelf"]) => call<boolean>("FillShelf", shelf),
  bench: (request: Schemas["BenchRequest"]) => call<Schemas["BenchState"]>("Bench", request),
  outlook: (request: Schemas["OutlookRequest"]) => call<Schemas["KeyOutlook"][]>("Outlook", request),
  loadFlora: (pack: Uint8Array) => call<string>("LoadFlora", pack),
  sift: (request: Schemas["SiftRequest"]) => call<Schemas["SiftResponse"]>("Sift", request),
  contrast: (request: Schemas["ContrastRequest"]) => call<Schemas["ContrastResult"]>("Contrast", request),
  confirm: (request: Schemas["ConfirmRequest"]) => call<Schemas["ConfirmResult"]>("Confirm", request),
  planVisits: (request: Schemas["VisitsRequest"]) => call<Schemas["VisitsResponse"]>("PlanVisits", request),
  moveVisit: (request: Schemas["MoveVisitRequest"]) => call<Schemas["MovedVisit"]>("MoveVisit", request),
  standings: (request: Schemas["StandingRequest"]) => call<Schemas["QuestionStanding"][]>("Standings", request),
  year: (request: Schemas["SeasonRequest"]) => call<Schemas["SeasonResponse"]>("Year", request),
  giveaways: (request: Schemas["GiveawayRequest"]) => call<Schemas["GiveawayResponse"]>("Giveaways", request),
  describe: (request: Schemas["DescribeRequest"]) => call<Schemas["DescribedTaxon"][]>("Describe", request),
  near: (request: Schemas["NearRequest"]) => call<string[]>("Near", request),
  measure: (request: Schemas["MeasureRequest"]) => call<Schemas["MeasureResponse"]>("Measure", request),
  statements: (hash: string) => call<Schemas["CoupletReadings"][]>("Statements", hash),
  walk: (request: Schemas["WalkRequest"]) => call<Schemas["WalkState"]>("Walk", request),
};
