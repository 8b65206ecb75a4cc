import { recordsServed } from "../../offline/documents";

/** What is kept here as a table of finds: each place and year is a sample. */
export interface OwnFinds {
  text: string;
  records: number;
  /** Records that name no single taxon. */
  unnamed: number;
}

// Longer lists are taken out by the API.
const MOST_PAGES = 200;

/** The records that are kept, the newest name of each plant: found or not, by place and year. */
export async function ownFinds(): Promise<OwnFinds> {
  const finds = new Set<string>();
  let [records, unnamed] = [0, 0];
  let after: string | undefined;
  for (let page = 0; page < MOST_PAGES; page++) {
    const served = await recordsServed({}, after);
    for (const it of served.records) {
      if (it.number !== it.ofPlant) continue;
      const [name, ...others] = it.names;
      if (!name || others.length > 0) unnamed++;
      else {
        records++;
        finds.add(`${it.placeName} ${it.eventDate.slice(0, 4)}\t${name}\t+`);
      }
    }
    if (served.next === null) break;
    after = served.next;
  }
  return { text: ["place and year\ttaxon\tfound", ...[...finds].sort()].join("\n"), records, unnamed };
}
