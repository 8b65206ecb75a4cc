using System.Globalization;
using Garten.Core.Confirmation;
using Garten.Core.Floras;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Contracts;

/// <summary>Taxa that fit a few typed letters, with what may be typed behind them: "ve al", "veal f", "veal lf", "veal 12".</summary>
/// <param name="FloraId">The flora.</param>
/// <param name="Typed">What was typed.</param>
/// <param name="Most">How many are told at most.</param>
public sealed record ShortNameRequest(string FloraId, string Typed, int Most = 8) : IFloraRequest
{
    /// <summary>More than this many nobody reads.</summary>
    public const int LargestMost = 50;

    internal const int LongestTyped = 200;

    // The letters by which the five words of abundance are noted.
    private static readonly Dictionary<string, Abundance> Letters = Enum.GetValues<Abundance>()
        .ToDictionary(a => SiteVisitWords.Of(a)[..1], StringComparer.Ordinal);

    /// <summary>Finds them. One alone is meant where it fits as a whole and no other does; else nothing is taken. What is typed behind a
    /// name counts as its abundance or count only where it can't be a part of the name.</summary>
    /// <exception cref="RequestException">Something in it can't be used.</exception>
    public ShortNameAnswer Find(ReadyFlora flora)
    {
        ArgumentNullException.ThrowIfNull(flora);
        if (Most is < 1 or > LargestMost)
            throw new RequestException("most", $"Between 1 and {LargestMost} are told.");
        if (Typed is null || Typed.Length > LongestTyped)
            throw new RequestException("typed", $"A name has up to {LongestTyped} characters.");
        var found = flora.ShortNames.Find(Typed, Most);
        var (abundance, isLocal, count) = ((Abundance?)null, false, (int?)null);
        if (found.Count == 0 && Split(Typed) is var (name, behind))
        {
            found = flora.ShortNames.Find(name, Most);
            (abundance, isLocal, count) = behind;
        }
        var whole = found.Where(f => f.Fit == ShortNameFit.Whole).ToList();
        var meant =
            whole.Count == 1 ? whole[0]
            : whole.Count == 0 && found.Count == 1 ? found[0]
            : null;
        return new ShortNameAnswer(
            meant?.Taxon.Name ?? "",
            [.. found.Select(f => new ShortNamed(f.Taxon.Id, f.Taxon.Name, f.Taxon.CommonName, f.Fit, CautionLine.Of(f.Taxon)))],
            abundance,
            isLocal,
            count
        );
    }

    // A name and what stands behind it; null where that is nothing of the kind.
    private static (string Name, (Abundance? Abundance, bool IsLocal, int? Count) Behind)? Split(string typed)
    {
        var text = typed.Trim();
        var at = text.LastIndexOf(' ');
        if (at < 0)
            return null;
        var (name, last) = (text[..at], text[(at + 1)..].ToLowerInvariant());
        if (int.TryParse(last, NumberStyles.None, CultureInfo.InvariantCulture, out var count) && count > 0)
            return (name, (null, false, count));
        if (Letters.TryGetValue(last, out var abundance))
            return (name, (abundance, false, null));
        return last.Length == 2 && last[0] == 'l' && Letters.TryGetValue(last[1..], out abundance) ? (name, (abundance, true, null)) : null;
    }
}

/// <summary>What fits some typed letters.</summary>
/// <param name="Meant">The one name that they mean; empty where none or several do.</param>
/// <param name="Found">What fits, the better fit first.</param>
/// <param name="Abundance">The abundance that was typed behind; null for none.</param>
/// <param name="IsLocal">Whether "locally" was typed before it.</param>
/// <param name="Count">The count that was typed behind; null for none.</param>
public sealed record ShortNameAnswer(
    string Meant,
    IReadOnlyList<ShortNamed> Found,
    Abundance? Abundance = null,
    bool IsLocal = false,
    int? Count = null
);

/// <summary>A list of names, one a line, as it stands in a notebook or a table: with abundance or count behind a name where there is
/// one.</summary>
/// <param name="FloraId">The flora.</param>
/// <param name="Text">The list.</param>
public sealed record NameListRequest(string FloraId, string Text) : IFloraRequest
{
    /// <summary>Lines of the longest list that is read.</summary>
    public const int MostLines = 2_000;

    private const int MostOffered = 5;

    // What stands before a name in lists: bullets and numbers.
    private static readonly char[] Marks = [' ', '\t', '-', '–', '•', '*', '.', ')', ',', ';'];

    /// <summary>Reads it line by line: nothing is taken where several taxa fit, or none does. A name that stood there before is said to be
    /// there twice.</summary>
    /// <exception cref="RequestException">It is too long.</exception>
    public IReadOnlyList<ListedName> Read(ReadyFlora flora)
    {
        ArgumentNullException.ThrowIfNull(flora);
        var lines = (Text ?? "")
            .Split(['\n', '\r'], StringSplitOptions.RemoveEmptyEntries)
            .Select(l => l.Split('\t')[0].TrimStart([.. Marks, .. "0123456789"]).TrimEnd(Marks))
            .Where(l => l.Length > 0)
            .ToList();
        if (lines.Count > MostLines)
            throw new RequestException("text", $"A list has up to {MostLines} lines.");
        var seen = new HashSet<string>(StringComparer.Ordinal);
        return
        [
            .. lines.Select(line =>
            {
                if (line.Length > ShortNameRequest.LongestTyped)
                    return new ListedName(line[..ShortNameRequest.LongestTyped], new ShortNameAnswer("", []), false);
                var answer = new ShortNameRequest(FloraId, line, MostOffered).Find(flora);
                return new ListedName(line, answer, answer.Meant.Length > 0 && !seen.Add(answer.Meant));
            }),
        ];
    }
}

/// <summary>A line of a list of names.</summary>
/// <param name="Text">The line, without what stands before a name in lists.</param>
/// <param name="Answer">What it means.</param>
/// <param name="IsAgain">Whether the same taxon stood in a line above.</param>
public sealed record ListedName(string Text, ShortNameAnswer Answer, bool IsAgain);

/// <summary>A taxon that fits some typed letters.</summary>
/// <param name="Taxon">Its id.</param>
/// <param name="Name">Its scientific name.</param>
/// <param name="CommonName">A common name; may be empty.</param>
/// <param name="Fit">How well it fits.</param>
/// <param name="Cautions">What to mind before it is touched.</param>
public sealed record ShortNamed(string Taxon, string Name, string CommonName, ShortNameFit Fit, IReadOnlyList<CautionLine> Cautions);
