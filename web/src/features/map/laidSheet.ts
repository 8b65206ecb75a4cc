import L from "leaflet";
import type { Schemas } from "../../api/client";

const at = (it: Schemas["GroundPoint"]) => L.latLng(it.latitude, it.longitude);

// A picture that is turned: its three corners say how it is stretched and turned on the screen. While the scale changes it is hidden.
class TurnedSheet extends L.Layer {
  private readonly picture = L.DomUtil.create("img", "leaflet-zoom-hide");
  private readonly topLeft: L.LatLng;

  constructor(
    private readonly sheet: Schemas["ScannedSheet"],
    topLeft: Schemas["GroundPoint"],
    private readonly look: { address: string; pane: string; opacity: number },
  ) {
    super();
    this.topLeft = at(topLeft);
    this.picture.alt = sheet.name;
    this.picture.style.position = "absolute";
    this.picture.style.transformOrigin = "0 0";
    this.picture.style.opacity = String(look.opacity);
    this.picture.style.pointerEvents = "none";
    this.picture.addEventListener("load", () => this.lay());
    this.picture.src = look.address;
  }

  override onAdd(map: L.Map): this {
    map.getPane(this.look.pane)?.append(this.picture);
    this.lay();
    return this;
  }

  override onRemove(): this {
    this.picture.remove();
    return this;
  }

  override getEvents = () => ({ zoomend: () => this.lay(), viewreset: () => this.lay() });

  private lay(): void {
    const { naturalWidth: wide, naturalHeight: high } = this.picture;
    const map = this._map as L.Map | undefined;
    if (!map || wide === 0 || high === 0) return;
    const corner = map.latLngToLayerPoint(this.topLeft);
    const right = map.latLngToLayerPoint(at(this.sheet.topRight)).subtract(corner).divideBy(wide);
    const down = map.latLngToLayerPoint(at(this.sheet.bottomLeft)).subtract(corner).divideBy(high);
    this.picture.style.transform = `matrix(${[right.x, right.y, down.x, down.y, corner.x, corner.y].join()})`;
  }
}

/** A scanned sheet as a layer of a map. */
export function laidSheet(sheet: Schemas["ScannedSheet"], pane: string): L.Layer {
  const look = { address: `/api/v1/map/sheets/${sheet.id}`, pane, opacity: 0.9 };
  return sheet.topLeft
    ? new TurnedSheet(sheet, sheet.topLeft, look)
    : L.imageOverlay(look.address, L.latLngBounds(at(sheet.bottomLeft), at(sheet.topRight)), {
        pane,
        opacity: look.opacity,
        alt: sheet.name,
      });
}
