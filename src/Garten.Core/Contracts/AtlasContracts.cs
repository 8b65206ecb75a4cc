using System.Globalization;
using Garten.Core.Floras;
using Garten.Core.Seasons;

namespace Garten.Core.Contracts;

/// <summary>What an atlas has of a square.</summary>
/// <param name="Cell">The square, by its name in the grid.</param>
/// <param name="First">Year of the first record.</param>
/// <param name="Last">Year of the last.</param>
/// <param name="Records">How many there are; 1 or more.</param>
public sealed record AtlasSquare(string Cell, int First, int Last, int Records);

/// <summary>What an atlas says of a taxon.</summary>
/// <param name="Taxon">The name that it answers for.</param>
/// <param name="AsOf">The day that it was last brought up to date, <c>YYYY-MM-DD</c>.</param>
/// <param name="Squares">The squares with records.</param>
public sealed record AtlasRecord(string Taxon, string AsOf, IReadOnlyList<AtlasSquare> Squares)
{
    // Records of a season reach an atlas in a year or two.
    private const int OldYears = 3;

    // Botanists didn't record by squares before.
    private const int EarliestYear = 1600;

    /// <summary>Why a person wouldn't rely on it, in sentences; none where nobody would mind.</summary>
    /// <param name="asked">The name that was asked for.</param>
    /// <param name="cells">The squares that the flora's map has; none where it isn't known.</param>
    /// <param name="today">The day on which it is asked.</param>
    public IReadOnlyList<string> Doubts(string asked, IReadOnlyList<string> cells, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(asked);
        ArgumentNullException.ThrowIfNull(cells);
        List<string> doubts = [];
        if (NameFold.Plain(asked) != NameFold.Plain(Taxon))
            doubts.Add($"It answers for {Taxon}, and was asked for {asked}.");
        var strange = Squares
            .Select(s => s.Cell)
            .Where(c => cells.Count > 0 && !cells.Contains(c, StringComparer.OrdinalIgnoreCase))
            .ToList();
        if (strange.Count > 0)
            doubts.Add($"{string.Join(", ", strange)} {(strange.Count == 1 ? "isn’t a square" : "aren’t squares")} of this grid.");
        var wrong = Squares
            .Where(s => s.First > s.Last || s.First < EarliestYear || s.Last > today.Year || s.Records < 1)
            .Select(s => s.Cell)
            .ToList();
        if (wrong.Count > 0)
            doubts.Add($"Years or numbers of {string.Join(", ", wrong)} can’t be so.");
        if (!DayText.TryRead(AsOf, out var day) || day > today)
            doubts.Add("It doesn’t say since when it is up to date.");
        else if (today.Year - day.Year >= OldYears)
            doubts.Add(string.Create(CultureInfo.InvariantCulture, $"It is as of {day.Year}: what was found since isn’t in it."));
        return doubts;
    }

    /// <summary>What it means at a place: when the taxon was last recorded in its square, or that it never was.</summary>
    /// <param name="cell">The square of the place.</param>
    public string Here(string cell)
    {
        var there = Squares.FirstOrDefault(s => string.Equals(s.Cell, cell, StringComparison.OrdinalIgnoreCase));
        return there is null
                ? $"The atlas has no record of it in {cell}. A find there would be new to the square: confirm it, and have somebody else look at it."
            : there.First == there.Last ? string.Create(CultureInfo.InvariantCulture, $"In {cell} it was recorded in {there.First}.")
            : string.Create(
                CultureInfo.InvariantCulture,
                $"In {cell} it was recorded from {there.First} to {there.Last}, {there.Records} times."
            );
    }
}

/// <summary>The same with what a person would think of it.</summary>
/// <param name="Record">What the atlas said.</param>
/// <param name="Doubts">What speaks against relying on it.</param>
/// <param name="Beyond">Squares of the atlas that the flora hasn't.</param>
/// <param name="Missing">Squares of the flora that the atlas hasn't.</param>
/// <param name="Here">What it means at the place that was asked for; empty where none was, or it has no square.</param>
public sealed record AtlasAnswer(
    AtlasRecord Record,
    IReadOnlyList<string> Doubts,
    IReadOnlyList<string> Beyond,
    IReadOnlyList<string> Missing,
    string Here
)
{
    /// <summary>Holds what an atlas said against what the flora has.</summary>
    /// <param name="record">What it said.</param>
    /// <param name="taxon">The taxon that was asked for.</param>
    /// <param name="cells">The squares that the flora's map has.</param>
    /// <param name="place">The place that was asked for; null for none.</param>
    /// <param name="today">The day on which it is asked.</param>
    public static AtlasAnswer Of(AtlasRecord record, Taxon taxon, IReadOnlyList<string> cells, Place? place, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(record);
        ArgumentNullException.ThrowIfNull(taxon);
        var own = taxon.Facts?.Cells ?? [];
        var theirs = record.Squares.Select(s => s.Cell).ToList();
        return new AtlasAnswer(
            record,
            record.Doubts(taxon.Name, cells, today),
            [.. theirs.Except(own, StringComparer.OrdinalIgnoreCase)],
            [.. own.Except(theirs, StringComparer.OrdinalIgnoreCase)],
            place is { Cell.Length: > 0 } ? record.Here(place.Cell) : ""
        );
    }
}
