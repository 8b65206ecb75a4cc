import { queryOptions } from "@tanstack/react-query";
import { answerOf, api, type Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { orKept, queryClient } from "../../offline/queries";
import { chosenDevice } from "./chosenDevice";

type Fix = Schemas["PositionFix"];

/** What tells positions: this device, a receiver on a cable that speaks NMEA 0183, or a simulated one that works in such a way. */
export type Receiver = "device" | "cable" | `simulated:${string}`;

/** What came from it: a position, or why there is none. */
export type Heard = { fix: Fix; trouble?: undefined } | { fix?: undefined; trouble: string };

/** How stand-ins for devices may work; none where there are none. */
export const standInsServed = queryOptions({
  queryKey: ["stand-ins"],
  staleTime: Infinity,
  queryFn: () => orKept<string[]>("stand-ins", () => answerOf((signal) => api.GET("/api/v1/stand-ins", { signal }))),
});

const chosenReceiver = chosenDevice<Receiver>("receiver");

export const chooseReceiver = chosenReceiver.choose;

/** The receiver that was chosen; nothing where none was. */
export const useChosenReceiver = chosenReceiver.useChosen;

/** How stand-ins are to work by the choice of the receiver; nothing where that says nothing of them. */
export const moodOf = (chosen: Receiver | null) =>
  chosen?.startsWith("simulated:") ? chosen.slice("simulated:".length) : undefined;

async function receiver(): Promise<Receiver> {
  const moods = await queryClient.ensureQueryData(standInsServed).catch(() => []);
  return chosenReceiver.used(chosenReceiver.now(), moods, "device");
}

const EVERY_MS = 2_000;
const NO_POSITION = "No position just now.";

/** Listens to the receiver until the answer is called. */
export function listen(placeId: string, heard: (it: Heard) => void): () => void {
  let stop: (() => void) | undefined;
  let isOver = false;
  const begin = () => {
    void receiver().then((it) => {
      if (isOver) return;
      stop?.();
      stop =
        it === "device"
          ? device(heard)
          : it === "cable"
            ? cable(heard)
            : simulated(it.split(":")[1] ?? "", placeId, heard);
    });
  };
  begin();
  const forget = chosenReceiver.subscribe(begin);
  return () => {
    isOver = true;
    forget();
    stop?.();
  };
}

function device(heard: (it: Heard) => void): () => void {
  if (!("geolocation" in navigator)) {
    heard({ trouble: "This device has no receiver." });
    return () => undefined;
  }
  const watch = navigator.geolocation.watchPosition(
    ({ coords, timestamp }) =>
      heard({
        fix: {
          latitude: coords.latitude,
          longitude: coords.longitude,
          accuracyMetres: coords.accuracy,
          seconds: timestamp / 1000,
        },
      }),
    ({ code }) =>
      heard({
        trouble: code === 1 ? "This browser may not ask where you are: allow it in its settings." : NO_POSITION,
      }),
    { enableHighAccuracy: true, maximumAge: 5_000, timeout: 30_000 },
  );
  return () => navigator.geolocation.clearWatch(watch);
}

function simulated(mood: string, placeId: string, heard: (it: Heard) => void): () => void {
  let after: number | undefined;
  let isBusy = false;
  const sentences = talk(heard, (seconds) => (after = seconds));
  const ask = async () => {
    if (isBusy || !placeId) return;
    isBusy = true;
    try {
      const text = await answerOf<string>((signal) =>
        api.GET("/api/v1/stand-ins/receiver", {
          params: { query: { place: placeId, mood, after } },
          parseAs: "text",
          signal,
        }),
      );
      const lines = text.split("\r\n").filter(Boolean);
      if (lines.length > 0) await sentences(lines);
      else heard({ trouble: NO_POSITION });
    } catch {
      heard({ trouble: NO_POSITION });
    }
    isBusy = false;
  };
  void ask();
  const timer = setInterval(() => void ask(), EVERY_MS);
  return () => clearInterval(timer);
}

// A receiver says the date in other sentences than the position: the last one that did is said again before what follows.
function talk(heard: (it: Heard) => void, until?: (seconds: number) => void) {
  let dated = "";
  return async (lines: string[]) => {
    const { fixes, isLost } = await core.nmea({ lines: dated ? [dated, ...lines] : lines });
    dated = lines.findLast((it) => it.slice(3, 6) === "RMC") ?? dated;
    const fix = fixes.at(-1);
    if (fix) until?.(fix.seconds);
    if (isLost) heard({ trouble: "The receiver has lost the sky." });
    else if (fix) heard({ fix: dated ? fix : { ...fix, seconds: Date.now() / 1000 } });
  };
}

/** A port as Web Serial has it. */
interface Port {
  readable: ReadableStream<Uint8Array> | null;
  open: (options: { baudRate: number }) => Promise<void>;
  close: () => Promise<void>;
}

interface Ports {
  getPorts: () => Promise<Port[]>;
  requestPort: () => Promise<Port>;
}

const ports = () => (navigator as Navigator & { serial?: Ports }).serial;

/** Whether this browser can read a receiver on a cable. */
export const canUseCable = () => ports() !== undefined;

/** Lets a person choose the port of the receiver. */
export async function chooseCable(): Promise<void> {
  await ports()?.requestPort();
  chooseReceiver("cable");
}

// What NMEA 0183 prescribes.
const BAUD = 4_800;

// A port is opened once, whoever listens: where one is and the track of the way are told by the same receiver.
let wire: { listeners: Set<(it: Heard) => void>; stop: () => void } | undefined;
let isShut: Promise<void> = Promise.resolve();

function cable(heard: (it: Heard) => void): () => void {
  if (!wire) {
    const listeners = new Set<(it: Heard) => void>();
    const stop = readCable((it) => {
      for (const each of listeners) each(it);
    });
    wire = { listeners, stop };
  }
  const own = wire;
  own.listeners.add(heard);
  return () => {
    own.listeners.delete(heard);
    if (own.listeners.size > 0) return;
    own.stop();
    if (wire === own) wire = undefined;
  };
}

function readCable(heard: (it: Heard) => void): () => void {
  let isOver = false;
  let reader: ReadableStreamDefaultReader<Uint8Array> | undefined;
  const sentences = talk(heard);
  const before = isShut;
  const read = async () => {
    await before;
    if (isOver) return;
    const port = (await ports()?.getPorts())?.[0];
    if (!port) return heard({ trouble: "No receiver is on the cable: choose its port under Devices." });
    await port.open({ baudRate: BAUD });
    if (!port.readable) return;
    const letters = new TextDecoder();
    let rest = "";
    reader = port.readable.getReader();
    for (;;) {
      const { value, done } = await reader.read();
      if (done || isOver) break;
      const lines = (rest + letters.decode(value, { stream: true })).split(/\r?\n/);
      rest = lines.pop() ?? "";
      if (lines.length > 0) await sentences(lines);
    }
    reader.releaseLock();
    await port.close();
  };
  isShut = read().catch((error: unknown) =>
    heard({
      trouble: `The receiver on the cable can’t be read: ${error instanceof Error ? error.message : String(error)}`,
    }),
  );
  return () => {
    isOver = true;
    void reader?.cancel().catch(() => undefined);
  };
}
