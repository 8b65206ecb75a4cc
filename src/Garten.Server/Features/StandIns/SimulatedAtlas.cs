using System.Globalization;
using Garten.Core.Contracts;
using Garten.Core.Floras;

namespace Garten.Server.Features.StandIns;

/// <summary>An atlas that says in which squares a taxon was recorded and when. The same taxon has the same records.</summary>
internal static class SimulatedAtlas
{
    private const int FirstYear = 1890;
    private const int YearsOfFirsts = 110;

    // Of ten squares of the flora one isn't in the atlas, and of ten others one is: the two were made by different people.
    private const int OneOf = 10;
    private const int MostRecords = 40;

    private const int LateYears = 14;
    private const int YearsAhead = 30;
    private const string NoSquare = "Q47";

    /// <summary>What it says; null where it says nothing.</summary>
    /// <param name="taxon">The taxon.</param>
    /// <param name="cells">The squares of the flora's map.</param>
    /// <param name="today">The day on which it is asked.</param>
    /// <param name="mood">How well it works.</param>
    public static AtlasRecord? Of(Taxon taxon, IReadOnlyList<string> cells, DateOnly today, StandInMood mood)
    {
        if (mood == StandInMood.Silent)
            return null;
        // It is brought up to date at the end of a year.
        var asOf = new DateOnly(mood == StandInMood.Late ? today.Year - LateYears : today.Year - 1, 12, 31);
        var own = taxon.Facts?.Cells ?? [];
        List<AtlasSquare> squares = [];
        foreach (var cell in cells)
        {
            var random = new Random(Seed(taxon.Name, cell));
            var isOdd = random.Next(OneOf) == 0;
            var first = FirstYear + random.Next(YearsOfFirsts);
            var records = isOdd ? 1 : 1 + random.Next(MostRecords);
            if (own.Contains(cell, StringComparer.OrdinalIgnoreCase) == isOdd || first > asOf.Year)
                continue;
            var last = records == 1 ? first : Math.Max(first, asOf.Year - random.Next(YearsOfFirsts / 4));
            squares.Add(new AtlasSquare(cell, first, last, records));
        }
        if (mood == StandInMood.Wrong)
            squares.Add(new AtlasSquare(NoSquare, today.Year, today.Year + YearsAhead, 1));
        return new AtlasRecord(
            mood == StandInMood.Wrong ? taxon.Name.Split(' ')[0] : taxon.Name,
            asOf.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            squares
        );
    }

    // The same in every process, which string.GetHashCode isn't.
    private static int Seed(string taxon, string cell) =>
        (taxon + cell).Aggregate(SimulatedWalk.SeedStep, (seed, c) => unchecked(seed * 31 + c));
}
