using System.Text.Json.Serialization;
using System.Text.RegularExpressions;
using Garten.Core.Floras;

namespace Garten.Core.Imports;

/// <summary>How a name of a table fits the floras.</summary>
[JsonConverter(typeof(CamelCaseWords<NameFit>))]
public enum NameFit
{
    /// <summary>It is the name of a taxon.</summary>
    Accepted,

    /// <summary>It is another name of one taxon, and the name of no other.</summary>
    Synonym,

    /// <summary>It is a common name of one taxon.</summary>
    Common,

    /// <summary>It fits several taxa: somebody has to say which.</summary>
    Several,

    /// <summary>A doubt stands in it ("cf.", "?"): it is kept as a plant without a name.</summary>
    Doubtful,

    /// <summary>No flora has it; it is kept as it is written.</summary>
    Unknown,
}

/// <summary>A name of a table, and what it is taken for.</summary>
/// <param name="Given">As it is written.</param>
/// <param name="Fit">How it fits.</param>
/// <param name="Meant">The taxon's name, or the name as it is kept; empty where it is kept as a plant without one, or has to be
/// chosen.</param>
/// <param name="Candidates">Taxa that it could be, the likeliest first; empty where there is no question.</param>
public sealed record MatchedName(string Given, NameFit Fit, string Meant, IReadOnlyList<string> Candidates);

/// <summary>Finds the taxa that names of a table stand for. Nothing is guessed: where a name fits several, or is merely spelled like one,
/// the candidates are told.</summary>
public sealed partial class NameMatcher
{
    // As many candidates as anybody looks through.
    private const int MostCandidates = 6;

    private static readonly string[] Concepts = ["", " agg.", " s.l.", " s.str."];

    private readonly Dictionary<string, Taxon> _byName = new(StringComparer.Ordinal);
    private readonly ILookup<string, Taxon> _bySynonym;
    private readonly ILookup<string, Taxon> _byCommon;
    private readonly ILookup<string, Taxon> _byEpithet;
    private readonly Dictionary<string, MatchedName> _known = new(StringComparer.Ordinal);

    /// <summary>Makes it of taxa; of two with one name the first counts.</summary>
    public NameMatcher(IEnumerable<Taxon> taxa)
    {
        var all = taxa.DistinctBy(t => t.Name).ToList();
        foreach (var taxon in all)
            _byName.TryAdd(NameFold.Plain(taxon.Name), taxon);
        _bySynonym = Lookup(all, t => (t.Facts?.Synonyms ?? []).Select(s => TaxonName.TryParseScientific(s, out var n) ? n.Name : s));
        _byCommon = Lookup(all, t => [t.CommonName, .. t.Facts?.CommonNames ?? []]);
        _byEpithet = Lookup(all, t => [Behind(t.Name)]);
    }

    private static ILookup<string, Taxon> Lookup(IEnumerable<Taxon> taxa, Func<Taxon, IEnumerable<string>> names) =>
        taxa.SelectMany(t => names(t).Where(n => n.Length > 0).Select(NameFold.Plain).Distinct().Select(n => (Name: n, Taxon: t)))
            .ToLookup(x => x.Name, x => x.Taxon, StringComparer.Ordinal);

    /// <summary>What a name stands for; each is worked out once.</summary>
    /// <param name="given">As it is written; not blank.</param>
    public MatchedName Match(string given)
    {
        ArgumentException.ThrowIfNullOrWhiteSpace(given);
        if (!_known.TryGetValue(given, out var match))
            _known[given] = match = MatchNew(given.Trim());
        return match;
    }

    private MatchedName MatchNew(string given)
    {
        if (Doubt().IsMatch(given))
        {
            var bare = Doubt().Replace(given, " ").Trim();
            return new(given, NameFit.Doubtful, "", bare.Length == 0 ? [] : Candidates(Read(bare).Name));
        }
        var read = Read(given);
        // A name, a synonym and a common name are weighed together: what is right of one taxon and another name of a second fits both.
        foreach (var form in new[] { NameFold.Plain(given), NameFold.Plain(read.Name) }.Distinct())
        {
            var accepted = _byName.GetValueOrDefault(form);
            List<Taxon> others = [.. _bySynonym[form].Concat(_byCommon[form]).Distinct()];
            others.RemoveAll(t => t == accepted);
            if (accepted is not null && others.Count == 0)
                return new(given, NameFit.Accepted, accepted.Name, []);
            if (accepted is not null)
                return new(given, NameFit.Several, "", [accepted.Name, .. others.Select(t => t.Name).Take(MostCandidates - 1)]);
            if (others.Count > 1)
                return new(given, NameFit.Several, "", [.. others.Select(t => t.Name).Take(MostCandidates)]);
            if (others is [var one])
                return new(given, _bySynonym[form].Contains(one) ? NameFit.Synonym : NameFit.Common, one.Name, []);
        }
        return new(given, NameFit.Unknown, read.IsScientific ? read.Name : "", Candidates(read.Name));
    }

    private static TaxonName Read(string given) => TaxonName.Parse(given);

    // Taxa with the genus abbreviated, of a broader or a narrower rank, or spelled nearly so.
    private string[] Candidates(string name)
    {
        if (name.Length == 0)
            return [];
        var plain = NameFold.Plain(name);
        var words = name.Split(' ');
        var abbreviated =
            words.Length > 1 && words[0].EndsWith('.')
                ? _byEpithet[NameFold.Plain(Behind(name))]
                    .Where(t => t.Name.StartsWith(words[0].TrimEnd('.'), StringComparison.OrdinalIgnoreCase))
                    .Select(t => t.Name)
                : [];
        var species = words.Length > 2 ? [string.Join(' ', words.Take(2))] : Array.Empty<string>();
        var exact = species
            .Append(name)
            .SelectMany(n => Concepts.Select(c => _byName.GetValueOrDefault(NameFold.Plain(n + c))?.Name))
            .OfType<string>();
        var near = _byName.Where(t => NearNames.AreNear(plain, t.Key)).Select(t => t.Value.Name).Order(StringComparer.Ordinal);
        return [.. abbreviated.Concat(exact).Concat(near).Distinct(StringComparer.Ordinal).Take(MostCandidates)];
    }

    private static string Behind(string name) => name[(name.IndexOf(' ', StringComparison.Ordinal) + 1)..];

    [GeneratedRegex(
        @"(?:^|\s)(?:cf\.?|aff\.?|prob\.?|probably|poss\.?|possibly)(?=\s|$)|\?",
        RegexOptions.CultureInvariant | RegexOptions.IgnoreCase
    )]
    private static partial Regex Doubt();
}
