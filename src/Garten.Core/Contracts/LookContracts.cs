using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Surveys;

namespace Garten.Core.Contracts;

/// <summary>Looks at a plant that are wanted in words.</summary>
/// <param name="Observations">All looks of a sheet, superseded ones too.</param>
/// <param name="Characters">The characters that they are of; looks at others are told by their ids.</param>
public sealed record LooksRequest(IReadOnlyList<Observation> Observations, IReadOnlyList<Character> Characters)
{
    /// <summary>Says which of them hold, and all of these in words.</summary>
    public IReadOnlyList<LookInWords> Tell()
    {
        var characters = Characters.DistinctBy(c => c.Id).ToDictionary(c => c.Id, StringComparer.Ordinal);
        return
        [
            .. EvidenceSheet
                .Holding(Observations)
                .Select(o => new LookInWords(
                    o.Id,
                    LookWords.Seen(o, characters.GetValueOrDefault(o.Character)),
                    LookWords.Context(o.Context),
                    LookWords.Manner(o.Sureness, o.Context, o.Tool),
                    LookWords.IsPlain(o)
                )),
        ];
    }
}

/// <summary>A look that holds, in words.</summary>
/// <param name="Id">The look.</param>
/// <param name="Seen">What it came to.</param>
/// <param name="Context">Which part of the plant; empty for the plain one.</param>
/// <param name="Manner">How it was looked at, with the part.</param>
/// <param name="IsPlain">Whether nothing of the manner is worth a word.</param>
public sealed record LookInWords(Guid Id, string Seen, string Context, string Manner, bool IsPlain);

/// <summary>How the next look will be made.</summary>
/// <param name="Sureness">How sure it will be.</param>
/// <param name="Context">Of which part.</param>
/// <param name="Tool">With what.</param>
public sealed record MannerRequest(Sureness Sureness, ObservationContext Context, Tool Tool)
{
    /// <summary>The same in words.</summary>
    public string Tell() => LookWords.Manner(Sureness, Context, Tool);
}

/// <summary>A taxon of which an own plant is wanted to compare with.</summary>
/// <param name="Taxon">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Records">Records that hold this name, newest first.</param>
public sealed record OwnRecords(string Taxon, string Name, IReadOnlyList<RecordLine> Records);

/// <summary>Own plants to hold a plant in hand against.</summary>
/// <param name="Taxa">Taxon by taxon, with its records.</param>
/// <param name="PlaceId">Where the plant in hand grows; null where that isn't known.</param>
/// <param name="Places">The places of the records.</param>
/// <param name="Except">The plant in hand itself, where it was seen before.</param>
public sealed record OwnPlantsRequest(
    IReadOnlyList<OwnRecords> Taxa,
    IReadOnlyList<Place> Places,
    string? PlaceId = null,
    Guid? Except = null
)
{
    // Nearer than so many metres is the same place.
    private const double Here = 50;

    /// <summary>Of each taxon the nearest plant whose name is confirmed, else the nearest that was determined as it alone; the newest where
    /// several are as near. Taxa without one are left out.</summary>
    public IReadOnlyList<OwnPlant> Find()
    {
        var places = Places.DistinctBy(p => p.Id).ToDictionary(p => p.Id);
        var here = Guid.TryParse(PlaceId, out var id) ? places.GetValueOrDefault(id) : null;
        double? Away(RecordLine line) =>
            here is not null && places.GetValueOrDefault(line.PlaceId) is { } there
                ? PlantPosition.MetresBetween(here.Latitude, here.Longitude, there.Latitude, there.Longitude)
                : null;
        return
        [
            .. Taxa.Select(t =>
                    t.Records.Where(r => r.Names.Count == 1 && r.Name == t.Name && r.PlantId is not null && r.PlantId != Except)
                        .Select(r => new OwnPlant(t.Taxon, r, Away(r) is { } away ? InWords(away) : "", Away(r)))
                        .OrderByDescending(p => p.Record.Grade is Confirmation.Grade.Confirmed or Confirmation.Grade.Verified)
                        .ThenBy(p => p.Metres ?? 0)
                        .FirstOrDefault()
                )
                .OfType<OwnPlant>(),
        ];
    }

    private static string InWords(double metres) => metres < Here ? "here" : PlantPosition.InWords(metres);
}

/// <summary>An own plant to compare with.</summary>
/// <param name="Taxon">Id of the taxon.</param>
/// <param name="Record">Its record.</param>
/// <param name="Away">How far from the plant in hand, in words; empty where that isn't known.</param>
/// <param name="Metres">The same in metres; null where it isn't known.</param>
public sealed record OwnPlant(string Taxon, RecordLine Record, string Away, double? Metres)
{
    /// <summary>The plant.</summary>
    public Guid PlantId => Record.PlantId ?? Guid.Empty;
}
