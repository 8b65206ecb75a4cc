using System.Globalization;
using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Grounds;
using Garten.Core.Surveys;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Formats.Archive;

/// <summary>
/// Makes rows of an archive out of visits. Where sensitive taxa are kept back their records hang on coarse events of their own, which say
/// neither day nor visit: nothing leads from them to where the visitors were.
/// </summary>
/// <param name="taxa">The taxa of all floras.</param>
/// <param name="sensitive">Which are kept back; null for an export with everything exact.</param>
/// <param name="grounds">The grounds of places, for their boundaries.</param>
/// <param name="isOfFewPlaces">Whether the archive is one of a single place, or of a survey: that a sensitive taxon stands in it would say
/// where it grows, however coarse its position is, and so it is left out.</param>
public sealed class VisitRows(
    TaxonIndex taxa,
    SensitiveTaxa? sensitive,
    IReadOnlyDictionary<Guid, GroundDescription> grounds,
    bool isOfFewPlaces = false
)
{
    private const string Datum = "EPSG:4326";

    /// <summary>What an event says that is no plot of a larger one: nothing of its event, its size and the unit.</summary>
    public static IReadOnlyList<string> NoPlot { get; } = ["", "", ""];

    private static string Number(double? value) => value?.ToString("R", CultureInfo.InvariantCulture) ?? "";

    private static string Whole(int? value) => value?.ToString(CultureInfo.InvariantCulture) ?? "";

    private static string Urn(Guid id) => $"urn:uuid:{id:D}";

    /// <summary>Whether a name isn't told at all.</summary>
    internal bool IsLeftOut(string name) => isOfFewPlaces && IsKeptBack(name);

    private bool IsKeptBack(string name) => name.Length > 0 && sensitive?.Holds(name) == true;

    // What people write may name what is kept back.
    internal string Free(string text) =>
        sensitive is not null && sensitive.Names.Any(n => text.Contains(n, StringComparison.OrdinalIgnoreCase)) ? "" : text;

    /// <summary>The event of a visit.</summary>
    public IReadOnlyList<string> Event(SiteVisit visit)
    {
        ArgumentNullException.ThrowIfNull(visit);
        var outline = grounds.GetValueOrDefault(visit.Place.Id)?.Outline ?? [];
        return
        [
            Urn(visit.Id),
            "SiteVisit",
            visit.Until is { } until ? $"{Day(visit.Date)}/{Day(until)}" : Day(visit.Date),
            visit.StartedAt.Length > 0 && visit.Closing is { EndedAt.Length: > 0 } closing
                ? $"{visit.StartedAt}/{closing.EndedAt}"
                : visit.StartedAt,
            "List of taxa found while searching a place",
            visit.EffortInWords,
            Urn(visit.Place.Id),
            visit.Place.Locality.Length > 0 ? $"{visit.Place.Name}, {visit.Place.Locality}" : visit.Place.Name,
            string.Join(" | ", visit.Place.Habitats ?? []),
            Number(visit.Place.Latitude),
            Number(visit.Place.Longitude),
            Datum,
            Number(visit.Place.UncertaintyMetres),
            outline.Count > 0 ? Wkt(outline) : "",
            outline.Count > 0 ? Datum : "",
            Free(string.Join(". ", new[] { visit.Purpose, visit.Weather, visit.Closing?.Note ?? "" }.Where(t => t.Length > 0))),
            "",
            "",
            .. NoPlot,
        ];
    }

    /// <summary>A coarse event for what is kept back of a visit: one for each record.</summary>
    public IEnumerable<IReadOnlyList<string>> CoarseEvents(SiteVisit visit)
    {
        ArgumentNullException.ThrowIfNull(visit);
        foreach (var (name, id) in KeptBack(visit))
            yield return CoarseEvent(id, name, visit.Date, visit.Place.Latitude, visit.Place.Longitude);
    }

    /// <summary>An event that says a grid cell and a year, and nothing else.</summary>
    public IReadOnlyList<string> CoarseEvent(Guid record, string name, DateOnly day, double latitude, double longitude)
    {
        var coarse = sensitive!.Coarsen([name], latitude, longitude);
        return
        [
            CoarseId(record),
            "Record",
            Whole(day.Year),
            "",
            "",
            "",
            "",
            coarse.Cell.Length > 0 ? $"grid cell {coarse.Cell}" : "",
            "",
            Number(coarse.Latitude),
            Number(coarse.Longitude),
            coarse.Latitude is null ? "" : Datum,
            Number(coarse.UncertaintyMetres),
            "",
            "",
            "",
            $"{coarse.Generalization} Of the day the year alone is given.",
            coarse.Withheld,
            .. NoPlot,
        ];
    }

    internal static string CoarseId(Guid record) => $"urn:uuid:{record:D}#event";

    private IEnumerable<(string Name, Guid Id)> KeptBack(SiteVisit visit) =>
        visit
            .Records.Where(r => IsKeptBack(r.Lines[0].Name))
            .Select(r => (r.Lines[0].Name, r.Id))
            .Concat((visit.Closing?.Sought ?? []).Where(s => IsKeptBack(s.Taxon)).Select(s => (s.Taxon, AbsenceId(visit.Id, s))))
            .Where(x => !IsLeftOut(x.Item1));

    /// <summary>Identity of something sought in vain on a visit: the same in every export (SHA-256 of visit, taxon and area).</summary>
    public static Guid AbsenceId(Guid visit, SoughtInVain sought)
    {
        ArgumentNullException.ThrowIfNull(sought);
        return MadeId.Of($"{visit:D}\n{sought.Taxon}\n{sought.Area}");
    }

    /// <summary>The occurrences of a visit: each record of its list, and what was sought in vain as absent.</summary>
    /// <param name="visit">The visit.</param>
    /// <param name="isElsewhere">Whether a plant's record of that day is in the archive by itself: its line is left out then.</param>
    public IEnumerable<IReadOnlyList<string>> Occurrences(SiteVisit visit, Func<Guid, bool> isElsewhere)
    {
        ArgumentNullException.ThrowIfNull(visit);
        ArgumentNullException.ThrowIfNull(isElsewhere);
        foreach (var record in visit.Records)
        {
            if (record.Lines[0].PlantId is { } plant && isElsewhere(plant) || IsLeftOut(record.Lines[0].Name))
                continue;
            yield return Present(visit, record);
        }
        foreach (var sought in (visit.Closing?.Sought ?? []).Where(s => !IsLeftOut(s.Taxon)))
            yield return Absent(visit, sought);
    }

    private string[] Present(SiteVisit visit, ListedTaxon record)
    {
        var line = record.Lines[0];
        var isKeptBack = IsKeptBack(line.Name);
        var details = Joined(record.Lines);
        var taxon = taxa.Find(line.Name);
        var coarse = isKeptBack ? sensitive!.Coarsen([line.Name], visit.Place.Latitude, visit.Place.Longitude) : null;
        var (quantity, quantityType) =
            details.Count is { } count ? (Whole(count), details.Unit!.Value.ToString().ToLowerInvariant())
            : details.Abundance is { } much && !isKeptBack
                ? (
                    (details.IsLocal ? "locally " : "") + SiteVisitWords.Of(much),
                    "five words of abundance (dominant, abundant, frequent, occasional, rare)"
                )
            : ("", "");
        return
        [
            isKeptBack ? CoarseId(record.Id) : Urn(visit.Id),
            Urn(record.Id),
            "HumanObservation",
            "present",
            line.PlantId is { } plant && !isKeptBack ? Urn(plant) : "",
            "",
            isKeptBack ? "" : string.Join(" | ", record.Observers),
            details.Unit == CountUnit.Individuals ? Whole(details.Count) : "",
            quantity,
            quantityType,
            isKeptBack || details.Sex == PartSex.Unsaid ? "" : SiteVisitWords.Of(details.Sex),
            isKeptBack || details.Phase is not { } phase ? "" : SiteVisitWords.Of(phase),
            Establishment(details.Growth),
            isKeptBack ? "" : string.Join(" | ", (details.Associates ?? []).Where(a => !IsKeptBack(a))),
            isKeptBack ? "" : Free(details.Note),
            .. NameOf(line, taxon),
            isKeptBack ? "" : line.Recorder,
            isKeptBack ? "" : Day(visit.Date),
            "",
            "",
            "",
            isKeptBack ? "" : Free(line.Compartment),
            // What the visit's place says of where it is isn't said again of each taxon.
            isKeptBack ? "" : Number(line.Latitude),
            isKeptBack ? "" : Number(line.Longitude),
            isKeptBack || line.Latitude is null ? "" : Datum,
            isKeptBack ? "" : Number(line.UncertaintyMetres),
            coarse?.Generalization ?? "",
            coarse?.Withheld ?? "",
            isKeptBack ? "" : Properties(line, details),
        ];
    }

    private string[] Absent(SiteVisit visit, SoughtInVain sought)
    {
        var id = AbsenceId(visit.Id, sought);
        var isKeptBack = IsKeptBack(sought.Taxon);
        var coarse = isKeptBack ? sensitive!.Coarsen([sought.Taxon], visit.Place.Latitude, visit.Place.Longitude) : null;
        return
        [
            isKeptBack ? CoarseId(id) : Urn(visit.Id),
            Urn(id),
            "HumanObservation",
            "absent",
            "",
            "",
            isKeptBack ? "" : string.Join(" | ", visit.People.Select(p => p.Name)),
            "",
            "",
            "",
            "",
            "",
            "",
            "",
            isKeptBack ? "" : Free(sought.Note),
            .. NameOf(sought.Taxon, taxa.Find(sought.Taxon), sought.Taxon),
            "",
            "",
            "",
            "",
            "",
            isKeptBack ? "" : Free(sought.Area),
            "",
            "",
            "",
            "",
            coarse?.Generalization ?? "",
            coarse?.Withheld ?? "",
            JsonSerializer.Serialize(new Dictionary<string, int> { ["minutes"] = sought.Minutes, ["observers"] = sought.Observers }),
        ];
    }

    // Kingdom, family, name, rank, common name, and the name as it was given.
    private static string[] NameOf(ListLine line, Taxon? taxon) => NameOf(line.Name, taxon, line.Called);

    internal static string[] NameOf(string name, Taxon? taxon, string given) =>
        [
            "Plantae",
            taxon?.Family ?? "",
            name.Length > 0 ? taxon?.Name ?? name : "Plantae",
            taxon?.Rank ?? (name.Length > 0 ? "" : "kingdom"),
            taxon?.CommonName ?? "",
            given,
        ];

    private static string Establishment(WildOrPlanted? growth) => growth == WildOrPlanted.Planted ? "cultivated" : "";

    // What several lines of one record say: the newest of each; notes side by side.
    private static LineDetails Joined(IReadOnlyList<ListLine> lines)
    {
        var all = lines.Select(l => l.Details).ToList();
        return all[^1] with
        {
            Abundance = all[^1].Abundance ?? all.Select(d => d.Abundance).LastOrDefault(a => a is not null),
            Growth = all[^1].Growth ?? all.Select(d => d.Growth).LastOrDefault(g => g is not null),
            Note = string.Join(" | ", all.Select(d => d.Note).Where(n => n.Length > 0).Distinct(StringComparer.Ordinal)),
        };
    }

    private string Properties(ListLine line, LineDetails details)
    {
        var said = new Dictionary<string, string>();
        if (line.At.Length > 0)
            said["at"] = line.At;
        if (details.Growth is { } growth)
            said["growth"] = growth.ToString().ToLowerInvariant();
        if (Free(details.GrowthReason) is { Length: > 0 } reason)
            said["growthReason"] = reason;
        if (Free(details.Typist) is { Length: > 0 } typist)
            said["typist"] = typist;
        return said.Count == 0 ? "" : JsonSerializer.Serialize(said);
    }

    /// <summary>The effort behind a visit and how far its list goes; nothing while it is open.</summary>
    public IReadOnlyList<string>? Effort(SiteVisit visit)
    {
        ArgumentNullException.ThrowIfNull(visit);
        if (visit.Closing is not { } closing)
            return null;
        var effort = visit.Effort;
        var absent = closing.Sought.Where(s => !IsKeptBack(s.Taxon)).Select(s => s.Taxon).Distinct(StringComparer.Ordinal).ToList();
        var scope = string.Join(", ", new[] { closing.Group, closing.Level }.Where(t => t.Length > 0));
        return
        [
            Urn(visit.Id),
            closing.Sought.Count > 0 && visit.Records.Count == 0 ? "restricted search" : "open search or survey",
            "Taxa noticed while searching are listed; what was looked for in vain is named with minutes and observers.",
            effort.PersonMinutes is null ? "false" : "true",
            Whole(effort.PersonMinutes),
            effort.PersonMinutes is null ? "" : "person-minutes of searching, pauses left out",
            Whole(effort.Minutes),
            effort.Minutes is null ? "" : "minutes",
            string.Join(" | ", visit.People.Select(p => p.Name)),
            scope,
            closing.Completeness switch
            {
                Completeness.Complete => "true",
                Completeness.Partial => "false",
                _ => "",
            },
            closing.Completeness switch
            {
                Completeness.Complete => "reported complete",
                Completeness.Partial => "reported incomplete",
                _ => "not reported",
            },
            absent.Count > 0 ? "true" : "false",
            string.Join(" | ", absent),
            Free(visit.Weather),
        ];
    }

    private static string Wkt(IReadOnlyList<GroundPoint> outline) =>
        $"POLYGON (({string.Join(", ", outline.Append(outline[0]).Select(p => $"{Number(p.Longitude)} {Number(p.Latitude)}"))}))";

    private static string Day(DateOnly date) => date.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
}
