import { Box, Button, Link, Typography } from "@mui/material";
import { useEffect, useRef, useState, useSyncExternalStore, type ReactNode } from "react";
import { Link as RouterLink, NavigationType, Outlet, useLocation, useNavigationType } from "react-router";
import { takeAway } from "../shared/ui/takeAway";
import { useLocalWork, useSetBack, useWatched } from "../offline/queries";
import { beginNewer, isStartedFromHere, keepProgram, program } from "../offline/program";
import { clearedIsSeen, rescue, storeFailure, whatWasCleared, type Cleared } from "../offline/store";
import type { Look } from "../theme/theme";
import { useLook } from "../theme/LookChoice";
import { serif } from "../theme/theme";
import { ContextLine } from "./ContextLine";
import { plainSelect } from "./plainSelect";
import { BAR_HEIGHT, PartLine, RoomFoot, RoomLine } from "./RoomBar";
import { SearchGlass } from "./Search";
import { useMergedPlaces } from "./useMergedPlaces";

const lookNames: Record<Look, string> = { paper: "Paper", night: "Night", sun: "Bright sun" };

function LookField() {
  const { look, choose } = useLook();
  return (
    <Box
      component="select"
      aria-label="Look"
      value={look}
      onChange={(event) => choose(event.currentTarget.value as Look)}
      sx={plainSelect}
    >
      {Object.entries(lookNames).map(([value, name]) => (
        <option key={value} value={value}>
          {name}
        </option>
      ))}
    </Box>
  );
}

/** Something that a person has to see to, or may, across the page; never printed. */
function Notice({ role, isCalm, children }: { role: "alert" | "status"; isCalm?: boolean; children: ReactNode }) {
  return (
    <Box
      role={role}
      sx={{
        "@media print": { display: "none" },
        bgcolor: isCalm ? "signal.openWash" : "signal.cautionWash",
        borderBottom: 1,
        borderColor: "rule",
        px: { xs: 2, md: 3 },
        py: 1,
      }}
    >
      {children}
    </Box>
  );
}

const changes = (count: number) => (count === 1 ? "1 change" : `${count} changes`);

export function Frame() {
  const { connection, last } = useWatched();
  useMergedPlaces();
  const { outbox, refused, stuck } = useLocalWork();
  const failure = useSyncExternalStore(storeFailure.subscribe, storeFailure.now);
  const [cleared, setCleared] = useState<Cleared>();
  useEffect(() => {
    void whatWasCleared().then(setCleared, () => undefined);
  }, []);
  const back = cleared?.back ?? 0;
  const lost = (cleared?.waiting ?? 0) - back;
  const needsHand = refused.length + stuck.length;
  const { setBack, isSandbox, seen } = useSetBack();
  const { isNewer } = useSyncExternalStore(program.subscribe, program.now);
  // Kept once the server has said what it is: a sandbox is gone tomorrow.
  const isKeeping = isSandbox === false || isStartedFromHere;
  useEffect(() => {
    if (isKeeping) void keepProgram();
  }, [isKeeping]);
  // What others did meanwhile is fetched for where there is no signal.
  useEffect(() => {
    if (connection === "ready" && last !== undefined)
      void import("../features/along/catchUp").then(({ catchUp }) => catchUp(last)).catch(() => undefined);
  }, [connection, last]);
  const { pathname } = useLocation();
  const comes = useNavigationType();
  // Another page begins at its top; back and forward leave that to the browser.
  const shown = useRef(pathname);
  useEffect(() => {
    if (shown.current === pathname) return;
    shown.current = pathname;
    if (comes !== NavigationType.Pop) window.scrollTo(0, 0);
  }, [pathname, comes]);
  return (
    <Box sx={{ minHeight: "100dvh", display: "flex", flexDirection: "column" }}>
      <Link
        href="#content"
        sx={{
          position: "absolute",
          left: -9999,
          "&:focus": { left: 8, top: 8, zIndex: 10, bgcolor: "background.paper", p: 1 },
        }}
      >
        Skip to the content
      </Link>
      <Box
        component="header"
        sx={{
          "@media print": { display: "none" },
          display: "flex",
          flexWrap: { xs: "nowrap", sm: "wrap" },
          alignItems: "center",
          columnGap: { xs: 0.5, md: 2 },
          px: { xs: 1, md: 3 },
          borderBottom: 1,
          borderColor: "rule",
        }}
      >
        <Box component="span" sx={{ display: { xs: "none", sm: "flex" }, alignItems: "center", gap: 1, mr: 1 }}>
          <Box component="img" src="/leaf.svg" alt="" sx={{ width: 26, height: 26 }} />
          <Typography
            component="span"
            sx={{ fontFamily: serif, fontWeight: 650, fontSize: "1.25rem", display: { xs: "none", md: "inline" } }}
          >
            Garten
          </Typography>
        </Box>
        <RoomLine />
        <Box sx={{ flex: 1, display: { xs: "none", sm: "block" } }} />
        <ContextLine />
        <SearchGlass />
        <Box sx={{ display: { xs: "none", sm: "block" } }}>
          <LookField />
        </Box>
      </Box>
      <PartLine />
      <Box role="status" aria-live="polite">
        {(connection !== "ready" || outbox.length > 0) && (
          <Box sx={{ bgcolor: "signal.openWash", borderBottom: 1, borderColor: "rule", px: { xs: 2, md: 3 }, py: 1 }}>
            <Typography variant="body2">
              {connection === "away" ? (
                <>
                  <strong>◌ The database doesn’t answer.</strong> What you type and keep stays on this device and is
                  sent by itself when it is back.
                </>
              ) : connection === "unpaired" ? (
                <>
                  <strong>◌ The server doesn’t know this device.</strong> What is on it goes on working; what you keep
                  is sent once it is paired.{" "}
                  <Link component={RouterLink} to="/pair">
                    Pair this device
                  </Link>
                </>
              ) : connection === "outOfReach" ? (
                <>
                  <strong>◌ Out of reach of the server.</strong> What is on this device goes on working; what you keep
                  is sent by itself when you are back.
                </>
              ) : (
                <strong>◌ Sending what was kept on this device.</strong>
              )}
              {outbox.length > 0 && ` Waiting to be sent: ${outbox.length}.`}{" "}
              {outbox.length > 0 && connection !== "ready" && (
                <Link component={RouterLink} to="/hand">
                  Save a copy
                </Link>
              )}
            </Typography>
          </Box>
        )}
      </Box>
      {isSandbox && (
        <Box sx={{ bgcolor: "signal.chosenWash", borderBottom: 1, borderColor: "rule", px: { xs: 2, md: 3 }, py: 0.5 }}>
          <Typography variant="body2">
            <strong>A sandbox: the made-up island of Torvane.</strong> What is kept here is gone when it is ended.
          </Typography>
        </Box>
      )}
      {failure && (
        <Notice role="alert">
          <Typography variant="body2">
            <strong>✕ {failure}</strong>
          </Typography>
          <Button onClick={() => void rescue().then((text) => takeAway("garten-device.json", text))}>
            Export it as a file
          </Button>
        </Notice>
      )}
      {cleared && (
        <Notice role="alert">
          <Typography variant="body2">
            <strong>△ The browser has cleared what Garten kept on this device.</strong>{" "}
            {back > 0 &&
              `${changes(back)} that waited to be sent ${back === 1 ? "is" : "are"} back out of a second copy. `}
            {lost > 0 && (
              <>
                {changes(lost)} that waited to be sent went with it. A file that was saved brings it back:{" "}
                <Link component={RouterLink} to="/hand">
                  take it in
                </Link>
                .{" "}
              </>
            )}
            Take along again what you need without signal.
          </Typography>
          <Button
            onClick={() => {
              void clearedIsSeen();
              setCleared(undefined);
            }}
          >
            I have seen it
          </Button>
        </Notice>
      )}
      {setBack && (
        <Notice role="alert">
          <Typography variant="body2">
            {setBack.isAnother ? (
              <>
                <strong>△ This is another database than the one this device knew.</strong> What was recorded there isn’t
                here. What this device sent can be taken away as a file.
              </>
            ) : (
              <>
                <strong>△ The server was set back to a copy.</strong> What this device sent in the last months is sent
                again ({setBack.again}); what is there already counts once.
                {setBack.older ? ` ${setBack.older} older changes can be taken away as a file.` : ""}
              </>
            )}{" "}
            <Link component={RouterLink} to="/hand">
              What this device has sent
            </Link>
          </Typography>
          <Button onClick={seen}>I have seen it</Button>
        </Notice>
      )}
      {isNewer && (
        <Notice role="status" isCalm>
          <Typography variant="body2">
            <strong>○ A newer version of Garten is on this device.</strong> What you have in hand is kept; finish it
            first if you like.
          </Typography>
          <Button onClick={beginNewer}>Begin it now</Button>
        </Notice>
      )}
      {needsHand > 0 && pathname !== "/hand" && (
        <Notice role="status">
          <Typography variant="body2">
            <strong>✕ {needsHand === 1 ? "One change needs" : `${needsHand} changes need`} your hand.</strong>{" "}
            {needsHand === 1 ? "It isn’t" : "They aren’t"} kept by the server yet.{" "}
            <Link component={RouterLink} to="/hand" sx={{ fontWeight: 600 }}>
              Look at {needsHand === 1 ? "it" : "them"}
            </Link>
          </Typography>
        </Notice>
      )}
      <Box component="main" id="content" sx={{ flex: 1, minHeight: "calc(100dvh - 52px)" }}>
        <Outlet />
      </Box>
      <Box
        component="footer"
        sx={{
          "@media print": { display: "none" },
          px: { xs: 2, md: 3 },
          py: 1,
          // What stands last isn't hidden by the bar of the rooms.
          mb: { xs: `${BAR_HEIGHT}px`, sm: 0 },
          borderTop: 1,
          borderColor: "rule",
        }}
      >
        <Box sx={{ display: { sm: "none" } }}>
          <LookField />
        </Box>
        <Typography variant="caption" color="text.secondary">
          Garten is free software (MIT). <Link href="/licences.txt">Licences of what it is made with</Link>
        </Typography>
      </Box>
      <RoomFoot />
    </Box>
  );
}
