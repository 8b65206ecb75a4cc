import { Box, Button, ButtonBase, Link, Typography } from "@mui/material";
import { useEffect, useState } from "react";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { askEither, useHost } from "../../offline/hosts";
import { useHeldShelf } from "../../offline/shelf";
import { today } from "../../shared/calendar/day";

type Tool = Schemas["Tool"];
type Handling = Schemas["Handling"];

const AT_HAND = "garten.at-hand";
const tools = (Object.entries(words.tools) as [Tool, string][]).filter(([id]) => id !== "eye");
const handlings = Object.entries(words.handlings) as [Handling, string][];

export interface AtHand {
  tools: Tool[];
  most: Handling;
}

function remembered(): AtHand {
  const text = localStorage.getItem(AT_HAND);
  return text ? (JSON.parse(text) as AtHand) : { tools: ["lens", "ruler"], most: "touch" };
}

/** What is at hand, remembered on this device. */
export function useAtHand() {
  const [atHand, setAtHand] = useState(remembered);
  const change = (next: AtHand) => {
    localStorage.setItem(AT_HAND, JSON.stringify(next));
    setAtHand(next);
  };
  return { atHand, change };
}

/** What awaits one who starts each key today, with what is at hand. */
export function useOutlook(entries: string[] | undefined) {
  const shelf = useHeldShelf(NONE);
  const host = useHost(shelf.data !== undefined, "shelf");
  const asked = entries?.join();
  const { atHand, change } = useAtHand();
  const [outlook, setOutlook] = useState<Map<string, Schemas["KeyOutlook"]>>();
  useEffect(() => {
    if (asked === undefined) return;
    let current = true;
    const ask = async () => {
      const question = { day: today(), tools: atHand.tools, most: atHand.most, entries: asked.split(",") };
      const found = await askEither("outlook", question, host);
      if (current) setOutlook(new Map(found.map((it) => [it.keyVersion, it])));
    };
    // Without it the keys can be followed all the same.
    ask().catch(() => setOutlook(undefined));
    return () => {
      current = false;
    };
  }, [host, atHand, asked]);
  return { outlook, atHand, change };
}

const NONE: string[] = [];

/** The same in words. */
export function atHandWords(atHand: AtHand): string {
  const words = tools.filter(([id]) => atHand.tools.includes(id)).map(([, name]) => name);
  return `${words.length > 0 ? words.join(", ") : "the eye alone"}; ${handlings.find(([id]) => id === atHand.most)?.[1]}`;
}

/** What is at hand, and how far one may go with the plant. */
export function AtHandLine({ atHand, onChange }: { atHand: AtHand; onChange: (next: AtHand) => void }) {
  const [open, setOpen] = useState(false);
  const words = tools.filter(([id]) => atHand.tools.includes(id)).map(([, name]) => name);
  return (
    <Box sx={{ mb: 1 }}>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1, flexWrap: "wrap" }}>
        <Typography variant="body2" sx={{ flex: "1 1 16rem" }}>
          <strong>At hand:</strong> {words.length > 0 ? words.join(", ") : "the eye alone"} · allowed:{" "}
          {handlings.find(([id]) => id === atHand.most)?.[1]}
        </Typography>
        <Button onClick={() => setOpen(!open)} aria-expanded={open}>
          {open ? "Close" : "Change"}
        </Button>
      </Box>
      {open && (
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.75, mt: 1 }}>
          {tools.map(([id, name]) => {
            const on = atHand.tools.includes(id);
            return (
              <Toggle
                key={id}
                on={on}
                onClick={() =>
                  onChange({ ...atHand, tools: on ? atHand.tools.filter((t) => t !== id) : [...atHand.tools, id] })
                }
              >
                {name}
              </Toggle>
            );
          })}
          <Box sx={{ width: "100%" }} />
          {handlings.map(([id, name]) => (
            <Toggle key={id} on={atHand.most === id} onClick={() => onChange({ ...atHand, most: id })}>
              {name}
            </Toggle>
          ))}
          <Typography variant="caption" sx={{ width: "100%", color: "signal.caution" }}>
            △ Whether anything may be touched, picked or cut is for the law and the landowner to say; on a protected
            plant nothing is.
          </Typography>
        </Box>
      )}
    </Box>
  );
}

export function Toggle({ on, onClick, children }: { on: boolean; onClick: () => void; children: string }) {
  return (
    <ButtonBase
      aria-pressed={on}
      onClick={onClick}
      sx={{
        minHeight: 44,
        px: 1.5,
        border: on ? 2 : 1,
        borderColor: on ? "primary.main" : "text.secondary",
        bgcolor: on ? "signal.chosenWash" : "background.paper",
        fontWeight: on ? 700 : 400,
        fontSize: "1rem",
      }}
    >
      {on && "✓ "}
      {children}
    </ButtonBase>
  );
}

/** Which couplets of a key can't be answered today; another key for the season where there is one. */
export function OutlookOf(props: { it: Schemas["KeyOutlook"]; better?: Schemas["KeyOutlook"]; onBetter: () => void }) {
  const { it, better, onBetter } = props;
  const [open, setOpen] = useState(false);
  if (it.blocked.length === 0) {
    return (
      <Typography variant="body2" sx={{ color: "signal.support" }}>
        ● Every couplet can be answered today.
      </Typography>
    );
  }
  return (
    <Box>
      <Typography variant="body2">
        <Box component="span" sx={{ color: "signal.open", fontWeight: 700 }}>
          ◌ {it.blocked.length} of {it.couplets} couplets can’t be answered today
        </Box>
        ; {it.taxaBlocked} of {it.taxa} taxa lie behind them.{" "}
        <Link
          component="button"
          onClick={() => setOpen(!open)}
          aria-expanded={open}
          sx={{ verticalAlign: "baseline", minHeight: 24 }}
        >
          {open ? "Hide them" : "Which?"}
        </Link>
        {better && (
          <>
            {" "}
            For today:{" "}
            <Link
              component="button"
              onClick={onBetter}
              sx={{ verticalAlign: "baseline", fontWeight: 700, minHeight: 24 }}
            >
              {better.keyTitle}
            </Link>
            .
          </>
        )}
      </Typography>
      {open && (
        <Box component="ul" sx={{ m: 0, mt: 0.5, pl: 2.5 }}>
          {it.blocked.map((blocked) => (
            <Typography component="li" variant="body2" key={blocked.keyVersion + blocked.couplet}>
              {blocked.keyVersion !== it.keyVersion && <>{blocked.keyTitle}, </>}
              {blocked.couplet}: {blocked.characters.join(", ")} ({words.blockReasons[blocked.reason]};{" "}
              {blocked.taxaBehind} taxa)
            </Typography>
          ))}
        </Box>
      )}
    </Box>
  );
}
