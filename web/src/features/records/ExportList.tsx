import { Button, Menu, MenuItem } from "@mui/material";
import { useState } from "react";

const forms = [
  ["csv", "CSV table (Darwin Core terms)"],
  ["xlsx", "Workbook (XLSX)"],
  ["geojson", "GeoJSON, for maps"],
  ["gpx", "GPX, for a receiver"],
  ["kml", "KML, for maps"],
] as const;

interface Props {
  /** What the records are narrowed to. */
  query: string;
  archive: string;
}

/** The forms in which records leave the program. */
export function ExportList({ query, archive }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const close = () => setAnchor(null);
  return (
    <>
      <Button aria-haspopup="menu" aria-expanded={anchor !== null} onClick={(event) => setAnchor(event.currentTarget)}>
        Export ▾
      </Button>
      <Menu
        anchorEl={anchor}
        open={anchor !== null}
        onClose={close}
        slotProps={{ list: { "aria-label": "Export as" } }}
      >
        {forms.map(([ending, says]) => (
          <MenuItem
            key={ending}
            component="a"
            href={`/api/v1/records.${ending}${query && "?" + query}`}
            download
            onClick={close}
          >
            {says}
          </MenuItem>
        ))}
        <MenuItem component="a" href={`/api/v1/archive.zip${archive}`} download onClick={close}>
          Darwin Core Archive, with visits and looks
        </MenuItem>
      </Menu>
    </>
  );
}
