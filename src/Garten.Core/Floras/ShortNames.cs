using System.Text.Json.Serialization;

namespace Garten.Core.Floras;

/// <summary>How well a taxon fits what was typed; the better ones stand first.</summary>
[JsonConverter(typeof(CamelCaseWords<ShortNameFit>))]
public enum ShortNameFit
{
    /// <summary>It is its abbreviation, the beginnings of both its words, or one of its names in full.</summary>
    Whole,

    /// <summary>It is the beginning of its abbreviation or of its scientific name.</summary>
    Beginning,

    /// <summary>A word of one of its other names begins so.</summary>
    OtherName,
}

/// <summary>A taxon that fits what was typed.</summary>
/// <param name="Taxon">The taxon.</param>
/// <param name="Fit">How well.</param>
public sealed record ShortNameMatch(Taxon Taxon, ShortNameFit Fit);

/// <summary>
/// Finds taxa by a few typed letters, as lists are written in the field: two letters of the genus and two of the epithet ("veal", "ve al"),
/// three and three, or four and three; with a space between, any beginnings of both words. Of what stands below a species the last epithet
/// counts. Nothing is guessed: where several fit equally,
/// all of them are told.
/// </summary>
public sealed class ShortNames
{
    // How many letters of genus and epithet an abbreviation takes.
    private static readonly (int Genus, int Epithet)[] Lengths = [(2, 2), (3, 3), (4, 3)];

    private readonly Entry[] _entries;

    // The abbreviations of all taxa in order, so that those that begin with some letters stand together.
    private readonly (string Code, int Entry)[] _codes;

    /// <summary>Makes it of the taxa of a flora.</summary>
    public ShortNames(IReadOnlyList<Taxon> taxa)
    {
        ArgumentNullException.ThrowIfNull(taxa);
        _entries = [.. taxa.Select(Entry.Of)];
        _codes =
        [
            .. _entries
                .SelectMany((e, i) => Codes(e.Genus, e.Epithet).Distinct().Select(c => (Code: c, Entry: i)))
                .OrderBy(c => c.Code, StringComparer.Ordinal)
                .ThenBy(c => c.Entry),
        ];
    }

    /// <summary>The taxa that fit, the better fit first, then by name.</summary>
    /// <param name="typed">What was typed; case, marks of hybrids and stops don't matter.</param>
    /// <param name="most">How many at most; at least 1.</param>
    public IReadOnlyList<ShortNameMatch> Find(string typed, int most)
    {
        ArgumentNullException.ThrowIfNull(typed);
        ArgumentOutOfRangeException.ThrowIfLessThan(most, 1);
        var text = Plain(typed);
        if (text.Length == 0)
            return [];
        var found = new Dictionary<int, ShortNameFit>();
        void Fits(int entry, ShortNameFit fit)
        {
            if (!found.TryGetValue(entry, out var before) || fit < before)
                found[entry] = fit;
        }
        var words = text.Split(' ');
        if (words.Length == 1)
        {
            for (var i = FirstCode(text); i < _codes.Length && _codes[i].Code.StartsWith(text, StringComparison.Ordinal); i++)
                Fits(_codes[i].Entry, _codes[i].Code.Length == text.Length ? ShortNameFit.Whole : ShortNameFit.Beginning);
        }
        for (var i = 0; i < _entries.Length; i++)
        {
            var entry = _entries[i];
            if (words.Length == 2 && Begins(entry.Genus, words[0]) && Begins(entry.Epithet, words[1]))
                Fits(i, ShortNameFit.Whole);
            else if (entry.Name == text || entry.Others.Contains(text, StringComparer.Ordinal))
                Fits(i, ShortNameFit.Whole);
            else if (Begins(entry.Name, text))
                Fits(i, ShortNameFit.Beginning);
            else if (entry.Others.Any(o => HasWordFrom(o, text)))
                Fits(i, ShortNameFit.OtherName);
        }
        return
        [
            .. found
                .OrderBy(f => f.Value)
                .ThenBy(f => _entries[f.Key].Name, StringComparer.Ordinal)
                .Take(most)
                .Select(f => new ShortNameMatch(_entries[f.Key].Taxon, f.Value)),
        ];
    }

    private int FirstCode(string text)
    {
        var (low, high) = (0, _codes.Length);
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (string.CompareOrdinal(_codes[middle].Code, text) < 0)
                low = middle + 1;
            else
                high = middle;
        }
        return low;
    }

    private static IEnumerable<string> Codes(string genus, string epithet) =>
        Lengths.Where(l => genus.Length >= l.Genus && epithet.Length >= l.Epithet).Select(l => genus[..l.Genus] + epithet[..l.Epithet]);

    private static bool Begins(string word, string with) => word.StartsWith(with, StringComparison.Ordinal);

    private static bool HasWordFrom(string text, string with)
    {
        for (var at = text.IndexOf(with, StringComparison.Ordinal); at >= 0; at = text.IndexOf(with, at + 1, StringComparison.Ordinal))
        {
            if (at == 0 || text[at - 1] is ' ' or '-')
                return true;
        }
        return false;
    }

    // Small letters, without stops, marks of hybrids and cultivars, and with single spaces.
    private static string Plain(string text) =>
        string.Join(
            ' ',
            text.ToLowerInvariant()
                .Replace('.', ' ')
                .Replace('×', ' ')
                .Replace("'", "", StringComparison.Ordinal)
                .Replace("’", "", StringComparison.Ordinal)
                .Split(' ', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
        );

    private static readonly string[] RankWords = ["subsp", "ssp", "var", "subvar", "f", "forma", "agg", "sect", "x"];

    private sealed record Entry(Taxon Taxon, string Name, string Genus, string Epithet, string[] Others)
    {
        public static Entry Of(Taxon taxon)
        {
            var name = Plain(taxon.Name);
            var words = name.Split(' ').Where(w => !RankWords.Contains(w, StringComparer.Ordinal)).ToArray();
            var others = (taxon.Facts?.CommonNames ?? [])
                .Append(taxon.CommonName)
                .Concat(taxon.Facts?.Synonyms ?? [])
                .Select(Plain)
                .Where(o => o.Length > 0)
                .Distinct(StringComparer.Ordinal)
                .ToArray();
            return new Entry(taxon, name, words.Length > 0 ? words[0] : "", words.Length > 1 ? words[^1] : "", others);
        }
    }
}
