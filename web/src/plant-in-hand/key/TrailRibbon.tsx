import { leadLetter } from "../../shared/botany/leads";
import { Box, ButtonBase, Typography } from "@mui/material";
import type { ReactNode } from "react";
import { visuallyHidden } from "../../shared/ui/visuallyHidden";
import type { CoupletName, OpenCouplet, TrailStep } from "./useWalk";

interface Props {
  steps: TrailStep[];
  open?: OpenCouplet[];
  /** The couplet that is on the table now. */
  at?: CoupletName;
  /** Answers that the sheet has given, that it contradicts, and the weakest turn. */
  bySheet?: CoupletName[];
  against?: CoupletName[];
  /** Answers that were only fairly sure. */
  fairly?: CoupletName[];
  weakest?: CoupletName;
  /** Shares of the open paths. */
  shares?: (CoupletName & { shareInWords: string })[];
  onReopen?: (step: CoupletName) => void;
  onPath?: (path: CoupletName) => void;
}

const INDENT = 18;

/** The way through the keys as a path: answered couplets, forks where both leads stay open, and where it goes on. */
export function TrailRibbon({
  steps,
  open = [],
  at,
  bySheet = [],
  against = [],
  fairly = [],
  weakest,
  shares = [],
  onReopen,
  onPath,
}: Props) {
  const among = (list: CoupletName[], step: CoupletName) =>
    list.some((it) => it.keyVersion === step.keyVersion && it.couplet === step.couplet);
  const isAt = (keyVersion: string, couplet: string) => at?.keyVersion === keyVersion && at.couplet === couplet;
  const shareOf = (couplet: OpenCouplet) => {
    const path =
      open.length > 1 &&
      shares.find((it) => it.keyVersion === couplet.keyVersion && it.couplet === couplet.couplet.label);
    return path ? `, ${path.shareInWords}` : "";
  };
  return (
    <Box component="ol" aria-label="Trail" sx={{ listStyle: "none", m: 0, p: 0 }}>
      {steps.map((step) => (
        <Box component="li" key={step.keyVersion + step.couplet}>
          {step.entersKey && <KeyHead title={step.keyTitle} handOver={step !== steps[0]} />}
          <Node
            forks={step.forks}
            fork={step.lead === null}
            label={step.couplet}
            current={isAt(step.keyVersion, step.couplet)}
            onClick={onReopen && (() => onReopen(step))}
            name={`Couplet ${step.couplet} of ${step.keyTitle}: `}
          >
            {step.branch && <Branch from={step.branch} />}
            {weakest && among([weakest], step) && <Mark color="signal.conflict">▽ weakest turn</Mark>}
            {among(against, step) && <Mark color="signal.conflict">✕ the sheet says otherwise</Mark>}
            {among(fairly, step) && <Mark color="signal.open">? fairly sure</Mark>}
            {among(bySheet, step) && <Mark color="signal.support">● by the sheet</Mark>}
            {step.lead === null ? (
              <Box component="span" sx={{ color: "signal.open", fontWeight: 700 }}>
                can’t tell, {step.leads.length} leads open
              </Box>
            ) : (
              <>
                <strong>{leadLetter(step.lead)}</strong> {step.leads[step.lead]}
              </>
            )}
          </Node>
        </Box>
      ))}
      {open.map((couplet) => (
        <Box component="li" key={couplet.keyVersion + couplet.couplet.label}>
          {couplet.entersKey && <KeyHead title={couplet.keyTitle} handOver={steps.length > 0} />}
          <Node
            forks={couplet.branch ? 1 : 0}
            open
            label={couplet.couplet.label}
            current={isAt(couplet.keyVersion, couplet.couplet.label)}
            onClick={onPath && (() => onPath({ keyVersion: couplet.keyVersion, couplet: couplet.couplet.label }))}
            name={`Go on at couplet ${couplet.couplet.label} of ${couplet.keyTitle}: `}
          >
            {couplet.branch && <Branch from={couplet.branch} />}
            <Box component="span" sx={{ color: "text.secondary" }}>
              still to answer{shareOf(couplet)}
            </Box>
          </Node>
        </Box>
      ))}
    </Box>
  );
}

function KeyHead({ title, handOver }: { title: string; handOver: boolean }) {
  return (
    <Typography variant="h3" component="p" sx={{ mt: handOver ? 1 : 0, mb: 0.5, color: "text.secondary" }}>
      {handOver && <span aria-hidden="true">→ </span>}
      {title}
    </Typography>
  );
}

const Branch = ({ from }: { from: string }) => (
  <Box component="span" sx={{ color: "signal.open", mr: 0.75 }}>
    under {from}:
  </Box>
);

const Mark = ({ color, children }: { color: string; children: ReactNode }) => (
  <Box component="span" sx={{ color, fontWeight: 700, mr: 0.75 }}>
    {children}:
  </Box>
);

interface NodeProps {
  forks: number;
  fork?: boolean;
  open?: boolean;
  current: boolean;
  label: string;
  name: string;
  onClick?: () => void;
  children: ReactNode;
}

function Node({ forks, fork, open, current, label, name, onClick, children }: NodeProps) {
  const body = (
    <>
      <Box
        component="span"
        aria-hidden="true"
        sx={{
          flex: "none",
          minWidth: 30,
          height: 30,
          px: 0.5,
          display: "grid",
          placeItems: "center",
          border: fork || open ? "2px dashed" : "2px solid",
          borderColor: fork || open ? "signal.open" : "text.primary",
          borderRadius: fork ? 0.5 : 8,
          bgcolor: current ? "signal.openWash" : open ? "background.default" : "signal.chosenWash",
          color: "text.primary",
          fontWeight: 700,
          fontSize: "0.85rem",
        }}
      >
        {label}
      </Box>
      <Typography
        component="span"
        variant="body2"
        sx={{
          textAlign: "left",
          display: "-webkit-box",
          WebkitLineClamp: 2,
          WebkitBoxOrient: "vertical",
          overflow: "hidden",
          fontWeight: current ? 700 : undefined,
        }}
      >
        <Box component="span" sx={visuallyHidden}>
          {name}
        </Box>
        {children}
      </Typography>
    </>
  );
  const style = {
    display: "flex",
    width: "100%",
    justifyContent: "flex-start",
    alignItems: "center",
    gap: 1,
    minHeight: 44,
    py: 0.25,
    pl: `${Math.min(forks, 3) * INDENT}px`,
    position: "relative",
    // The path that joins the couplets.
    "&::before": {
      content: '""',
      position: "absolute",
      left: `${Math.min(forks, 3) * INDENT + 14}px`,
      top: -6,
      height: 12,
      borderLeft: "2px solid",
      borderColor: "rule",
    },
  } as const;
  return onClick ? (
    <ButtonBase onClick={onClick} aria-current={current ? "step" : undefined} sx={style}>
      {body}
    </ButtonBase>
  ) : (
    <Box sx={style}>{body}</Box>
  );
}
