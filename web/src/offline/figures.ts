import { useQuery } from "@tanstack/react-query";
import { answerOf, api, AwayError, type Schemas } from "../api/client";
import { today } from "../api/today";
import { keep, kept } from "./store";

type Asked = Schemas["FigureAsked"];
type Figure = Schemas["TaxonFigure"];

const NAME = "figures";

const keyOf = (it: { name: string; character?: string }) => `${it.name}|${it.character ?? ""}`;

async function fetched(floraId: string, figures: Asked[]): Promise<Map<string, Figure>> {
  try {
    const found = await answerOf((signal) =>
      api.POST("/api/v1/identify/figures", { body: { floraId, figures, date: today() }, signal }),
    );
    const before = (await kept<Record<string, Figure>>(NAME)) ?? {};
    await keep(NAME, { ...before, ...Object.fromEntries(found.map((it) => [keyOf(it), it])) });
    return new Map(found.map((it) => [keyOf(it), it]));
  } catch (error) {
    // Without signal as they were drawn last.
    if (error instanceof AwayError) return new Map(Object.entries((await kept<Record<string, Figure>>(NAME)) ?? {}));
    throw error;
  }
}

/** Keeps the figures of all taxa of a flora on this device. */
export async function keepFigures(floraId: string): Promise<void> {
  const all = await answerOf((signal) =>
    api.POST("/api/v1/identify/describe", { body: { floraId, taxa: null }, signal }),
  );
  for (let from = 0; from < all.length; from += MOST)
    await fetched(
      floraId,
      all.slice(from, from + MOST).map(({ taxon }) => ({ name: taxon.name, character: "" })),
    );
}

/** Small figures for the lines of a list, by what was asked for: of each name what is telling now, or the organ of a character. */
export function useFigures(floraId: string | undefined, wanted: Asked[]): (it: Asked) => Figure | undefined {
  const asked = [...new Map(wanted.map((it) => [keyOf(it), it])).values()]
    .sort((a, b) => keyOf(a).localeCompare(keyOf(b)))
    .slice(0, MOST);
  const { data } = useQuery({
    enabled: floraId !== undefined && asked.length > 0,
    queryKey: [NAME, floraId, ...asked.map(keyOf)],
    staleTime: 600_000,
    placeholderData: (before: Map<string, Figure> | undefined) => before,
    queryFn: () => fetched(floraId ?? "", asked),
  });
  return (it) => data?.get(keyOf(it));
}

// As many as the server draws at a time.
const MOST = 500;
