import { useEffect, useSyncExternalStore } from "react";
import { v7 as uuid } from "uuid";
import { today } from "../../api/today";
import type { Schemas } from "../../api/client";
import { send } from "../../offline/outbox";
import { keep, kept } from "../../offline/store";
import { listen, type Heard } from "./receiver";
import { announceTrack, onTrackChange, RUNNING } from "./trackMark";

/** A track that runs on this device. */
export interface Running {
  visitId: string;
  trackId: string;
  placeId: string;
  recorder: Schemas["PersonReference"];
  day: string;
  /** Whether it rests while nobody searches. */
  isHeld?: boolean;
}

/** The positions that weren’t sent yet. */
interface Buffer {
  startedAt: string;
  points: Schemas["TrackPoint"][];
}

const WANTED = "garten.track-wanted";
const bufferOf = (trackId: string) => `track:${trackId}`;

const SOURCE = "receiver";
// A position is noted so often; so many make a piece.
const EVERY_SECONDS = 5;
const PIECE = 60;

let buffer: Buffer | undefined;
let trouble = "";

let read: { text: string; it: Running | undefined } = { text: "", it: undefined };

function running(): Running | undefined {
  const text = localStorage.getItem(RUNNING) ?? "";
  if (text !== read.text) read = { text, it: text ? (JSON.parse(text) as Running) : undefined };
  return read.it;
}

function set(it: Running | undefined): void {
  if (it) localStorage.setItem(RUNNING, JSON.stringify(it));
  else localStorage.removeItem(RUNNING);
  announceTrack();
}

/** Begins the track of a visit; one that runs ends. */
export async function beginTrack(it: Omit<Running, "trackId">): Promise<void> {
  localStorage.setItem(WANTED, "yes");
  await endTrack();
  set({ ...it, trackId: uuid() });
}

/** Begins the track of a visit that begins now, if the last one had a track. */
export async function beginTrackAsBefore(it: Omit<Running, "trackId">): Promise<void> {
  if (localStorage.getItem(WANTED) !== null) await beginTrack(it);
}

/** Ends the track that runs: what wasn’t sent yet is sent. */
export async function endTrack(): Promise<void> {
  const it = running();
  if (!it) return;
  await flush(it);
  set(undefined);
}

/** Ends it because somebody doesn’t want one. */
export async function stopTrack(): Promise<void> {
  localStorage.removeItem(WANTED);
  await endTrack();
}

/** Lets it rest, or go on, where it is of this visit. */
export function holdTrack(visitId: string, isHeld: boolean): void {
  const it = running();
  if (it?.visitId !== visitId) return;
  void flush(it);
  set({ ...it, isHeld });
}

async function flush(it: Running): Promise<void> {
  const held = buffer ?? (await kept<Buffer>(bufferOf(it.trackId)));
  buffer = undefined;
  if (held && held.points.length > 0)
    // It is in the outbox before the device forgets it: a piece that is there twice adds nothing to a track, one that is lost is a gap.
    await send({
      kind: "keepTrack",
      id: uuid(),
      trackId: it.trackId,
      siteVisitId: it.visitId,
      recorder: it.recorder,
      startedAt: held.startedAt,
      points: held.points,
      source: SOURCE,
      file: "",
    });
  // What was noted while it was sent stays on the device.
  await keep(bufferOf(it.trackId), buffer);
  announceTrack();
}

/** The track that runs on this device, with what wasn’t sent of it and why there is no position just now. */
export function useRunningTrack() {
  const it = useSyncExternalStore(onTrackChange, running);
  const unsent = useSyncExternalStore(onTrackChange, () => buffer);
  const says = useSyncExternalStore(onTrackChange, () => trouble);
  return { running: it, unsent, trouble: it ? says : "" };
}

/** The piece that wasn’t sent yet, as it will be. */
export const pieceOf = (it: Running, unsent: Buffer): Schemas["TrackPiece"] => ({
  id: it.trackId,
  trackId: it.trackId,
  recorder: it.recorder.name,
  startedAt: unsent.startedAt,
  source: SOURCE,
  points: unsent.points,
  file: "",
});

/** Notes the track that runs, on whatever page one is. One place of the program calls it. */
export function useTrackNoted(): void {
  const { running: it } = useRunningTrack();
  const trackId = it?.trackId;
  const isOn = it !== undefined && !it.isHeld;
  useEffect(() => {
    const track = running();
    if (!trackId || !track) return;
    // Of yesterday: somebody forgot to end it.
    if (track.day !== today()) {
      void endTrack();
      return;
    }
    // What an earlier page noted and didn’t send.
    if (!buffer) void flush(track);
    const hide = () => {
      if (document.visibilityState === "hidden") void flush(track);
    };
    document.addEventListener("visibilitychange", hide);
    return () => document.removeEventListener("visibilitychange", hide);
  }, [trackId]);
  useEffect(() => {
    const track = running();
    if (!isOn || !track) return;
    let last = 0;
    const take = (heard: Heard) => {
      if (heard.trouble !== undefined) {
        if (trouble !== heard.trouble) {
          trouble = heard.trouble;
          announceTrack();
        }
        return;
      }
      const { latitude, longitude, accuracyMetres, seconds } = heard.fix;
      trouble = "";
      if (Math.abs(seconds - last) < EVERY_SECONDS) return;
      last = seconds;
      const began = buffer ? Date.parse(buffer.startedAt) / 1000 : seconds;
      const startedAt = buffer?.startedAt ?? new Date(seconds * 1000).toISOString();
      const since = Math.round((seconds - began) * 10) / 10;
      // A receiver whose clock was set back begins a new piece.
      const before = since < (buffer?.points.at(-1)?.seconds ?? 0) ? undefined : buffer;
      const point = {
        latitude: Number(latitude.toFixed(7)),
        longitude: Number(longitude.toFixed(7)),
        accuracyMetres: Math.round(accuracyMetres * 10) / 10 || 0.1,
        seconds: before ? since : 0,
      };
      buffer = {
        startedAt: before ? startedAt : new Date(seconds * 1000).toISOString(),
        points: [...(before?.points ?? []), point],
      };
      if (buffer.points.length >= PIECE) void flush(track);
      else void keep(bufferOf(track.trackId), buffer);
      announceTrack();
    };
    // One tab notes it.
    const over = new AbortController();
    const ended = new Promise<void>((resolve) => over.signal.addEventListener("abort", () => resolve()));
    navigator.locks
      .request("garten-track", { signal: over.signal }, async () => {
        const stop = listen(track.placeId, take);
        await ended;
        stop();
      })
      .catch(() => undefined);
    return () => {
      over.abort();
      // Ended in another tab, which has sent what was noted.
      if (running()?.trackId !== track.trackId) buffer = undefined;
    };
  }, [isOn, trackId]);
}
