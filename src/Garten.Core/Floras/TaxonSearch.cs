using Garten.Core.Seasons;

namespace Garten.Core.Floras;

/// <summary>What the taxa of a flora are narrowed to; what is empty doesn't narrow.</summary>
/// <param name="Text">Any name, or the beginnings of genus and epithet.</param>
/// <param name="Family">A family.</param>
/// <param name="GrowthForm">A growth form.</param>
/// <param name="Origin">How it came here.</param>
/// <param name="Day">Only what is in flower or fruit on this day; null for all.</param>
/// <param name="Cell">Only what is recorded in this grid cell; empty: everywhere.</param>
public sealed record TaxonQuery(
    string Text = "",
    string Family = "",
    string GrowthForm = "",
    Origin? Origin = null,
    DateOnly? Day = null,
    string Cell = ""
);

/// <summary>A taxon that was found.</summary>
/// <param name="Taxon">The taxon.</param>
/// <param name="Matched">The name that fits, where it isn't its own.</param>
/// <param name="Visible">What can be seen on it on the day asked for, or nothing.</param>
public sealed record FoundTaxon(Taxon Taxon, string Matched, IReadOnlyList<Phenophase> Visible);

/// <summary>Finds taxa by any of their names: parts, beginnings of genus and epithet ("ve al"), or with a slip in them.</summary>
public static class TaxonSearch
{
    // Beyond so many letters a name is another name.
    private const int MostSlips = 2;

    // In a word shorter than this every slip makes another word.
    private const int ShortestForSlips = 4;

    private static readonly HashSet<Phenophase> Worth = [Phenophase.Flower, Phenophase.YoungFruit, Phenophase.RipeFruit];

    /// <summary>The taxa that fit, best first, then by name; genera and families that others stand below are left out unless their own name
    /// is asked for.</summary>
    public static IReadOnlyList<FoundTaxon> Find(IReadOnlyList<Taxon> taxa, TaxonQuery query)
    {
        ArgumentNullException.ThrowIfNull(taxa);
        ArgumentNullException.ThrowIfNull(query);
        var wanted = query.Text.Trim().ToLowerInvariant();
        var found = new List<(FoundTaxon Found, int Rank)>();
        var parents = taxa.Select(t => t.Parent).ToHashSet(StringComparer.Ordinal);
        foreach (var taxon in taxa)
        {
            if (query.Family.Length > 0 && taxon.Family != query.Family)
                continue;
            if (query.GrowthForm.Length > 0 && taxon.Facts?.GrowthForm != query.GrowthForm)
                continue;
            if (query.Origin is { } origin && (taxon.Facts?.Origin ?? Origin.Unsaid) != origin)
                continue;
            if (query.Cell.Length > 0 && taxon.Facts?.Cells.Contains(query.Cell, StringComparer.OrdinalIgnoreCase) != true)
                continue;
            if (wanted.Length == 0 && taxon.Rank is "genus" or "family" && parents.Contains(taxon.Id))
                continue;
            var visible = query.Day is { } day ? Visible(taxon, day) : [];
            if (query.Day is not null && visible.Count == 0)
                continue;
            var (rank, matched) = wanted.Length == 0 ? (0, "") : Best(taxon, wanted);
            if (rank < 0)
                continue;
            found.Add((new FoundTaxon(taxon, matched, visible), rank));
        }
        // Slips are only shown where nothing fits without one.
        var least = found.Count == 0 ? 0 : found.Min(f => f.Rank);
        return
        [
            .. found
                .Where(f => least >= 5 || f.Rank < 5)
                .OrderBy(f => f.Rank)
                .ThenBy(f => f.Found.Taxon.Name, StringComparer.Ordinal)
                .Select(f => f.Found),
        ];
    }

    /// <summary>What a taxon shows on a day of what is worth a visit: flower and fruit.</summary>
    public static IReadOnlyList<Phenophase> Visible(Taxon taxon, DateOnly day)
    {
        ArgumentNullException.ThrowIfNull(taxon);
        var half = PhaseSpan.HalfMonth(day);
        return [.. (taxon.Facts?.Phenology ?? []).Where(p => Worth.Contains(p.Phase) && p.Holds(half)).Select(p => p.Phase)];
    }

    private static (int Rank, string Matched) Best(Taxon taxon, string wanted)
    {
        var best = (Rank: -1, Matched: "");
        void Try(string name, bool isOwn)
        {
            var rank = RankOf(name.ToLowerInvariant(), wanted);
            if (rank >= 0 && !isOwn)
                rank++;
            if (rank >= 0 && (best.Rank < 0 || rank < best.Rank))
                best = (rank, isOwn ? "" : name);
        }
        Try(taxon.Name, true);
        foreach (var name in taxon.Facts?.CommonNames ?? [taxon.CommonName])
            Try(name, false);
        foreach (var name in taxon.Facts?.Synonyms ?? [])
            Try(name, false);
        return best;
    }

    // 0 the name itself, 1 its beginning, 2 beginnings of its words, 3 a part, 5 and more with slips; -1 not at all.
    private static int RankOf(string name, string wanted)
    {
        if (name == wanted)
            return 0;
        if (name.StartsWith(wanted, StringComparison.Ordinal))
            return 1;
        var words = name.Split([' ', '-'], StringSplitOptions.RemoveEmptyEntries);
        // A taxon may have no common name.
        if (words.Length == 0)
            return -1;
        var parts = wanted.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        if (parts.Length > 0 && Beginnings(words, parts))
            return 2;
        if (name.Contains(wanted, StringComparison.Ordinal))
            return 3;
        if (wanted.Length < ShortestForSlips)
            return -1;
        var most = 0;
        foreach (var part in parts)
        {
            // A longer word has room for two.
            var slips = words.Min(w => Slips(part, w));
            if (slips > Math.Min(MostSlips, part.Length / ShortestForSlips))
                return -1;
            most = Math.Max(most, slips);
        }
        return 4 + most;
    }

    private static bool Beginnings(string[] words, string[] parts)
    {
        var at = 0;
        foreach (var part in parts)
        {
            while (at < words.Length && !words[at].StartsWith(part, StringComparison.Ordinal))
                at++;
            if (at++ >= words.Length)
                return false;
        }
        return true;
    }

    // Letters that differ between what was typed and the beginning of a word as long (Levenshtein), up to one more than matter.
    private static int Slips(string typed, string word)
    {
        if (typed.Length < ShortestForSlips)
            return word.StartsWith(typed, StringComparison.Ordinal) ? 0 : MostSlips + 1;
        var best = int.MaxValue;
        for (var length = typed.Length - 1; length <= typed.Length + 1; length++)
        {
            if (length <= word.Length)
                best = Math.Min(best, Distance(typed, word[..length]));
        }
        return Math.Min(best, word.Length < typed.Length - 1 ? MostSlips + 1 : best);
    }

    private static int Distance(string a, string b)
    {
        var row = Enumerable.Range(0, b.Length + 1).ToArray();
        for (var i = 1; i <= a.Length; i++)
        {
            var diagonal = row[0];
            row[0] = i;
            for (var j = 1; j <= b.Length; j++)
            {
                var next = Math.Min(Math.Min(row[j], row[j - 1]) + 1, diagonal + (a[i - 1] == b[j - 1] ? 0 : 1));
                (diagonal, row[j]) = (row[j], next);
            }
        }
        return row[^1];
    }
}
