using System.Globalization;
using System.Text.Json.Serialization;

namespace Garten.Core.Surveys.Plots;

/// <summary>A taxon in a plot.</summary>
/// <param name="Taxon">Its name.</param>
/// <param name="Layer">The layer, as the protocol names it; empty where layers aren't told apart.</param>
/// <param name="Percent">Cover in per cent; null where the scale is another one.</param>
/// <param name="Class">The mark of its class; empty where the scale has none.</param>
/// <param name="Count">Individuals; null where they aren't counted.</param>
/// <param name="FirstHits">Pins or cells at which it was met first, or stands in; null where there are none.</param>
/// <param name="Hits">All hits by pins, several at one pin counted each; null where only the first was noted.</param>
/// <param name="Nest">Of nested squares the smallest in which it stands, from 1; null: only in the largest, or not said.</param>
public sealed record PlotFind(
    string Taxon,
    string Layer = "",
    double? Percent = null,
    string Class = "",
    int? Count = null,
    int? FirstHits = null,
    int? Hits = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] int? Nest = null
)
{
    /// <summary>How much of it there is, in the unit of the scale: per cent, individuals, share of pins in per cent, or 1.</summary>
    public double Amount(SurveyProtocol protocol)
    {
        ArgumentNullException.ThrowIfNull(protocol);
        return protocol.Scale switch
        {
            PlotScale.Percent => Percent ?? 0,
            PlotScale.SevenClasses or PlotScale.TenClasses => CoverClass.Find(protocol.Scale, Class)?.Percent ?? 0,
            PlotScale.Count => Count ?? 0,
            PlotScale.Hits => 100.0 * (FirstHits ?? 0) / Math.Max(1, protocol.Pins),
            _ => 1,
        };
    }
}

/// <summary>A layer of a plot as a whole.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Percent">Its cover; null where it wasn't estimated.</param>
/// <param name="HeightCm">Its height in centimetres; null where it wasn't measured.</param>
public sealed record PlotLayer(string Name, double? Percent = null, double? HeightCm = null);

/// <summary>What was recorded in a plot on a visit: a fact. One that corrects another one supersedes it; one of the same visit by somebody
/// else who hasn't seen the first stands beside it.</summary>
/// <param name="Id">Its id.</param>
/// <param name="PlotId">The plot.</param>
/// <param name="SiteVisitId">The visit on which it was made.</param>
/// <param name="Date">The day of the visit.</param>
/// <param name="Recorder">Name of the recorder.</param>
/// <param name="ProtocolVersion">By which version of the protocol.</param>
/// <param name="Finds">What was found; empty: nothing grows there.</param>
/// <param name="Layers">Layers as a whole.</param>
/// <param name="BareGround">Bare ground in per cent; null where it wasn't estimated.</param>
/// <param name="Litter">Litter in per cent.</param>
/// <param name="Minutes">Minutes spent at it; null where they weren't noted.</param>
/// <param name="Departure">In what it departs from the protocol; empty where it doesn't.</param>
/// <param name="Note">A note.</param>
/// <param name="Repeats">The record that it is an independent second of; null where it is the first.</param>
/// <param name="Supersedes">The record that it corrects.</param>
public sealed record PlotRecord(
    Guid Id,
    Guid PlotId,
    Guid SiteVisitId,
    DateOnly Date,
    string Recorder,
    int ProtocolVersion,
    IReadOnlyList<PlotFind> Finds,
    IReadOnlyList<PlotLayer> Layers,
    double? BareGround = null,
    double? Litter = null,
    int? Minutes = null,
    string Departure = "",
    string Note = "",
    Guid? Repeats = null,
    Guid? Supersedes = null
)
{
    /// <summary>Most taxa of a plot.</summary>
    public const int MostFinds = 500;

    private const int MostCount = 1_000_000;
    private const int MostMinutes = 24 * 60;
    private const double TallestCm = 15_000;

    /// <summary>The records that hold: those that no other one corrects.</summary>
    public static IReadOnlyList<PlotRecord> Holding(IReadOnlyList<PlotRecord> records)
    {
        ArgumentNullException.ThrowIfNull(records);
        var corrected = records.Select(r => r.Supersedes).OfType<Guid>().ToHashSet();
        return [.. records.Where(r => !corrected.Contains(r.Id))];
    }

    /// <summary>How much of each taxon there is, in the unit of the scale. Individuals of several layers are added; covers are put together
    /// as if the layers lay over each other at random, 1 − Π(1 − c) (Fischer 2015: On the combination of species cover values from
    /// different vegetation layers); of shares of pins the largest counts.</summary>
    public IReadOnlyDictionary<string, double> Amounts(SurveyProtocol protocol)
    {
        ArgumentNullException.ThrowIfNull(protocol);
        return Finds
            .GroupBy(f => f.Taxon, StringComparer.Ordinal)
            .ToDictionary(
                g => g.Key,
                g =>
                    protocol.Scale switch
                    {
                        PlotScale.Count => g.Sum(f => f.Amount(protocol)),
                        PlotScale.Hits or PlotScale.Presence => g.Max(f => f.Amount(protocol)),
                        _ => g.Count() == 1
                            ? g.First().Amount(protocol)
                            : 100 * (1 - g.Aggregate(1.0, (left, f) => left * (1 - f.Amount(protocol) / 100))),
                    },
                StringComparer.Ordinal
            );
    }

    /// <summary>The rank of each taxon's class in its scale, from 1: of several layers the highest. None where the scale has no
    /// classes.</summary>
    public IReadOnlyDictionary<string, double> Ranks(SurveyProtocol protocol)
    {
        ArgumentNullException.ThrowIfNull(protocol);
        var classes = CoverClass.Of(protocol.Scale);
        double RankOf(PlotFind find)
        {
            for (var i = 0; i < classes.Count; i++)
            {
                if (string.Equals(classes[i].Mark, find.Class, StringComparison.OrdinalIgnoreCase))
                    return i + 1;
            }
            return 0;
        }
        return classes.Count == 0
            ? new Dictionary<string, double>()
            : Finds.GroupBy(f => f.Taxon, StringComparer.Ordinal).ToDictionary(g => g.Key, g => g.Max(RankOf), StringComparer.Ordinal);
    }

    /// <summary>What in it can't be so by the protocol, with the field and, for a find, its line from 0; null where it is sound.</summary>
    public (string Field, string Message)? Problem(SurveyProtocol protocol)
    {
        ArgumentNullException.ThrowIfNull(protocol);
        if (Finds.Count > MostFinds)
            return ("finds", string.Create(CultureInfo.InvariantCulture, $"A plot has up to {MostFinds} lines."));
        for (var i = 0; i < Finds.Count; i++)
        {
            if (Wrong(Finds[i], protocol) is { } wrong)
                return (string.Create(CultureInfo.InvariantCulture, $"finds[{i}]"), wrong);
        }
        if (Finds.GroupBy(f => (f.Taxon, f.Layer)).FirstOrDefault(g => g.Count() > 1) is { } twice)
            return ("finds", $"{twice.Key.Taxon} is there twice{(twice.Key.Layer.Length > 0 ? $" in the layer {twice.Key.Layer}" : "")}.");
        // Of the first at each pin there are no more than pins; all hits, and cover summed up, may be more.
        if (
            protocol is { Scale: PlotScale.Hits, Kind: PlotKind.PointTransect }
            && Finds.Sum(f => f.FirstHits ?? 0) is var first
            && first > protocol.Pins
        )
            return (
                "finds",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{first} first hits of {protocol.Pins} pins: each pin meets one taxon first. All hits may be more, first ones not."
                )
            );
        foreach (var layer in Layers)
        {
            if (!IsPercent(layer.Percent))
                return ("layers", $"{layer.Name}: a cover is 0 to 100 %.");
            if (layer.HeightCm is { } height && !(height is >= 0 and <= TallestCm))
                return ("layers", $"{layer.Name}: give the height in centimetres, 0 to 15,000.");
        }
        if (!IsPercent(BareGround))
            return ("bareGround", "Bare ground is 0 to 100 %.");
        if (!IsPercent(Litter))
            return ("litter", "Litter is 0 to 100 %.");
        return Minutes is < 1 or > MostMinutes ? ("minutes", "Give the minutes at the plot, 1 to a day.") : null;
    }

    private static bool IsPercent(double? value) => value is null or (>= 0 and <= 100);

    private static string? Wrong(PlotFind it, SurveyProtocol protocol)
    {
        if (string.IsNullOrWhiteSpace(it.Taxon))
            return "Name the taxon.";
        if (it.Nest is { } nest && (nest < 1 || nest > protocol.Nests.Count))
            return protocol.Nests.Count == 0
                ? $"{it.Taxon}: the protocol names no sizes of nested squares."
                : string.Create(CultureInfo.InvariantCulture, $"{it.Taxon}: there are {protocol.Nests.Count} squares, the smallest is 1.");
        if (it.Layer.Length > 0 && !protocol.Layers.Contains(it.Layer, StringComparer.Ordinal))
            return $"{it.Taxon}: the protocol has no layer “{it.Layer}”.";
        return protocol.Scale switch
        {
            PlotScale.Percent when !(it.Percent is > 0 and <= 100) =>
                $"{it.Taxon}: a cover is above 0 and up to 100 %; of one taxon in one layer there is no more.",
            PlotScale.SevenClasses or PlotScale.TenClasses when CoverClass.Find(protocol.Scale, it.Class) is null =>
                $"{it.Taxon}: the scale has {string.Join(", ", CoverClass.Of(protocol.Scale).Select(c => c.Mark))}.",
            PlotScale.Count when it.Count is not (> 0 and <= MostCount) => $"{it.Taxon}: count 1 to 1,000,000.",
            PlotScale.Hits when it.FirstHits is not (> 0) || it.FirstHits > protocol.Pins => string.Create(
                CultureInfo.InvariantCulture,
                $"{it.Taxon}: 1 to {protocol.Pins} of {protocol.Pins} can be hit first."
            ),
            PlotScale.Hits when it.Hits < it.FirstHits => $"{it.Taxon}: all hits are no fewer than the first ones.",
            _ => null,
        };
    }
}
