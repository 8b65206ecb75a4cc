using System.Globalization;
using System.Text.RegularExpressions;
using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Language;
using Garten.Core.Seasons;

namespace Garten.Core.Keys;

/// <summary>A taxon as its description in prose was read.</summary>
/// <param name="Id">Id that it gets.</param>
/// <param name="Name">Its name without authorship.</param>
/// <param name="Authorship">Who published it; may be empty.</param>
/// <param name="Like">Id of the taxon that it is said to be like but for what follows; empty for most.</param>
/// <param name="Statements">Its statements with their readings.</param>
/// <param name="Characters">What it is like: its own statements over those of the taxon that it is like. What isn't said is
/// unknown.</param>
/// <param name="Habitats">Where it grows, as written.</param>
/// <param name="Distribution">Where and how often it occurs, as written.</param>
/// <param name="Occurrence">What is taken of that: how it came here, how settled it is, at which heights.</param>
/// <param name="Synonyms">Other names that are given.</param>
/// <param name="Phenology">When it flowers and fruits.</param>
public sealed record ReadTaxon(
    string Id,
    string Name,
    string Authorship,
    string Like,
    IReadOnlyList<StatementReading> Statements,
    IReadOnlyList<CharacterDescription> Characters,
    IReadOnlyList<string> Habitats,
    IReadOnlyList<string> Distribution,
    Occurrence Occurrence,
    IReadOnlyList<string> Synonyms,
    IReadOnlyList<PhaseSpan> Phenology
);

/// <summary>Descriptions in prose as they were read.</summary>
/// <param name="Taxa">The taxa, in the order of the text.</param>
/// <param name="Problems">What couldn't be made out, as sentences; empty where all could.</param>
public sealed record ReadDescriptions(IReadOnlyList<ReadTaxon> Taxa, IReadOnlyList<string> Problems);

/// <summary>
/// Reads descriptions in the prose of a flora: paragraphs that begin with a name. The statements are read as those of keys; "like A but …"
/// takes over what A is like, flowering months and habitats are taken where they stand, and silence says nothing.
/// </summary>
public sealed partial class DescriptionReader(BotanyIndex botany, IReadOnlyList<TaughtTerm>? taught = null)
{
    /// <summary>Nobody pastes more taxa at once.</summary>
    public const int MostTaxa = 2_000;

    // A name with its author stands within so many letters.
    private const int LongestHeading = 160;

    private readonly GrammarReader _reader = GrammarReader.Of(botany, taught ?? []);

    /// <summary>Reads a text.</summary>
    public ReadDescriptions Read(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var taxa = new List<ReadTaxon>();
        var problems = new List<string>();
        var blocks = Blank().Split(text.ReplaceLineEndings("\n")).Select(b => b.Trim()).Where(b => b.Length > 0).ToList();
        var context = _reader.ContextOf(blocks);
        var ids = new HashSet<string>(StringComparer.Ordinal);
        foreach (var block in blocks)
        {
            if (taxa.Count >= MostTaxa)
            {
                problems.Add($"Only the first {MostTaxa} taxa are read.");
                break;
            }
            // A line that begins with a capital behind one without a stop is a sentence of its own.
            var line = string.Join(' ', Unstopped().Replace(block, ".\n").Split(['\n', ' '], StringSplitOptions.RemoveEmptyEntries));
            if (Heading(line) is not var (name, rest))
            {
                problems.Add($"“{Short(line)}” doesn’t begin with a scientific name: it is left out.");
                continue;
            }
            taxa.Add(Of(name, rest, context, taxa, ids, problems));
        }
        return new(taxa, problems);
    }

    private ReadTaxon Of(
        TaxonName name,
        string text,
        TextContext context,
        List<ReadTaxon> before,
        HashSet<string> ids,
        List<string> problems
    )
    {
        List<string> statements = [],
            habitats = [],
            distribution = [],
            synonyms = [];
        var occurrence = Occurrence.Unsaid;
        var phenology = new List<PhaseSpan>();
        var like = "";
        foreach (var statement in StatementSplitter.Split(text))
        {
            if (Habitat().Match(statement) is { Success: true } place)
                habitats.Add(place.Groups["where"].Value.Trim());
            else if (Occurrence.Read(statement, occurrence) is { } said)
            {
                distribution.Add(statement.TrimEnd('.'));
                occurrence = said;
            }
            else if (Synonym().Match(statement) is { Success: true } other)
                synonyms.AddRange(
                    other.Groups["names"].Value.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
                );
            else if (Months().Match(statement) is { Success: true } months && Span(months) is { } span)
                phenology.Add(span);
            else if (LikeBut().Match(statement) is { Success: true } resembles)
            {
                if (Named(resembles.Groups["name"].Value, before) is { } model)
                    like = model.Id;
                else
                    problems.Add($"{name.Name}: “{resembles.Groups["name"].Value}”, which it is like, isn’t described before it.");
                statements.Add(resembles.Groups["rest"].Value.Trim());
            }
            else
                statements.Add(statement);
        }
        var readings = _reader.Read(statements, context);
        var own = Describe(readings.SelectMany(r => r.Claims));
        var inherited = before.Find(t => t.Id == like)?.Characters ?? [];
        return new(
            Id(name.Name, ids),
            name.Name,
            name.Authorship,
            like,
            readings,
            [.. own, .. inherited.Where(i => own.TrueForAll(o => o.Character != i.Character))],
            habitats,
            distribution,
            occurrence,
            synonyms,
            phenology
        );
    }

    /// <summary>The flora of what was read.</summary>
    /// <param name="read">What was read.</param>
    /// <param name="id">Id of the flora.</param>
    /// <param name="name">Its name.</param>
    /// <param name="seasons">When the phenophases last in its region.</param>
    public Flora FloraOf(ReadDescriptions read, string id, string name, IReadOnlyList<PhaseWindow> seasons)
    {
        ArgumentNullException.ThrowIfNull(read);
        // What is said of a genus holds of its species where they say nothing of it.
        var named = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var taxon in read.Taxa)
            named.TryAdd(taxon.Name, taxon.Id);
        // The species of a subspecies, the genus of a species, as far as they are described.
        string Parent(ReadTaxon taxon)
        {
            var words = taxon.Name.Split(' ');
            // An aggregate and a hybrid stand beside the species, not below it.
            var isBelow = words.Length > 2 && RankOf(taxon.Name) is not ("aggregate" or "hybrid");
            return isBelow && named.TryGetValue($"{words[0]} {words[1]}", out var species) && species != taxon.Id ? species
                : words.Length > 1 && named.TryGetValue(words[0], out var genus) ? genus
                : "";
        }
        return new Flora(
            id,
            name,
            [
                .. read.Taxa.Select(t => new Taxon(
                    t.Id,
                    t.Name,
                    t.Authorship,
                    RankOf(t.Name),
                    Parent(t),
                    "",
                    "",
                    [],
                    "",
                    TaxonFacts.None with
                    {
                        Synonyms = t.Synonyms,
                        Habitats = t.Habitats,
                        Origin = t.Occurrence.Origin,
                        Establishment = t.Occurrence.Establishment,
                        ElevationFrom = t.Occurrence.ElevationFrom,
                        ElevationTo = t.Occurrence.ElevationTo,
                        Phenology = t.Phenology,
                    }
                )),
            ],
            new CharacterTable(
                [
                    .. read
                        .Taxa.SelectMany(t => t.Characters)
                        .Select(c => c.Character)
                        .Distinct(StringComparer.Ordinal)
                        .Order(StringComparer.Ordinal)
                        .Select(botany.Compose)
                        .OfType<Character>(),
                ],
                [.. read.Taxa.Select(t => new TaxonDescription(t.Id, t.Characters))],
                seasons
            )
        );
    }

    private List<CharacterDescription> Describe(IEnumerable<StatementClaim> claims)
    {
        var described = new List<CharacterDescription>();
        foreach (var claim in claims.Where(c => c.IsOfUsualAge))
        {
            // Of two statements on one character the first is the one that says more.
            if (botany.Compose(claim.Character) is not { } character || described.Exists(d => d.Character == claim.Character))
                continue;
            if (character.IsQuantity)
                described.Add(new(claim.Character, [], claim.Range));
            else
            {
                // What is said without a word of frequency is said of the taxon.
                var share = claim.Modality >= Modality.AlwaysInKeys ? 1 : claim.Modality;
                described.Add(new(claim.Character, [.. claim.States.Select(s => new StateShare(s, share / claim.States.Count))]));
            }
        }
        return described;
    }

    // The name that a paragraph begins with, and what stands behind it.
    private static (TaxonName Name, string Behind)? Heading(string line)
    {
        line = Numbering().Replace(line, "");
        for (var at = 0; at <= Math.Min(line.Length, LongestHeading); at++)
        {
            if (at < line.Length && line[at] is not ('.' or ':' or '–' or '—' or ';' or ','))
                continue;
            // The stop may be one of the author's: "Vellorna alba Hask."
            foreach (var end in at < line.Length && line[at] == '.' ? [at + 1, at] : new[] { at })
            {
                var rest = line[Math.Min(end, line.Length)..].TrimStart('.', ':', '–', '—', ';', ',', ' ');
                if (
                    TaxonName.TryParseScientific(line[..Math.Min(end, line.Length)].Trim().TrimEnd(':', ';', ','), out var name)
                    && (rest.Length == 0 || char.IsUpper(rest[0]) || rest[0] == '=')
                    && !StatementStart().IsMatch(name.Authorship)
                )
                    return (name, rest);
            }
        }
        // The name alone, with the description behind it without a sign: "Vellorna alba Shrub to 2 m".
        var words = line.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        return words.Length > 2 && TaxonName.TryParseScientific($"{words[0]} {words[1]}", out var plain) && char.IsUpper(words[2][0])
            ? (plain, string.Join(' ', words[2..]))
            : null;
    }

    private static string RankOf(string name) =>
        name.Contains(' ', StringComparison.Ordinal) ? TaxonName.RankBelowGenus(name)
        : name.EndsWith("aceae", StringComparison.Ordinal) ? "family"
        : "genus";

    private static ReadTaxon? Named(string name, List<ReadTaxon> before)
    {
        var wanted = name.Trim();
        if (Preceding().IsMatch(wanted))
            return before.Count > 0 ? before[^1] : null;
        if (before.FindLast(t => t.Name == wanted) is { } whole)
            return whole;
        // "V. alba".
        var words = wanted.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        return words.Length == 2 && words[0].EndsWith('.')
            ? before.FindLast(t =>
                t.Name.StartsWith(words[0].TrimEnd('.'), StringComparison.Ordinal)
                && t.Name.EndsWith(" " + words[1], StringComparison.Ordinal)
            )
            : null;
    }

    private static readonly string[] MonthNames = ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"];
    private static readonly string[] Roman = ["i", "ii", "iii", "iv", "v", "vi", "vii", "viii", "ix", "x", "xi", "xii"];

    private static PhaseSpan? Span(Match months)
    {
        static int Month(string text)
        {
            var small = text.ToLowerInvariant();
            var at = Array.FindIndex(MonthNames, m => small.StartsWith(m, StringComparison.Ordinal));
            return at >= 0 ? at + 1 : Array.IndexOf(Roman, small) + 1;
        }
        var from = Month(months.Groups["from"].Value);
        var to = months.Groups["to"].Success ? Month(months.Groups["to"].Value) : from;
        if (from == 0 || to == 0)
            return null;
        var phase = months.Groups["what"].Value.StartsWith("fl", StringComparison.OrdinalIgnoreCase)
            ? Phenophase.Flower
            : Phenophase.RipeFruit;
        const int halves = 2;
        return new PhaseSpan(phase, from * halves - 1, to * halves);
    }

    private static string Id(string name, HashSet<string> taken)
    {
        var plain = string.Concat(name.ToLowerInvariant().Select(c => char.IsAsciiLetterOrDigit(c) ? c : '-')).Trim('-');
        while (plain.Contains("--", StringComparison.Ordinal))
            plain = plain.Replace("--", "-", StringComparison.Ordinal);
        var id = plain;
        for (var n = 2; !taken.Add(id); n++)
            id = string.Create(CultureInfo.InvariantCulture, $"{plain}-{n}");
        return id;
    }

    private static string Short(string line)
    {
        const int shown = 60;
        return line.Length <= shown ? line : string.Concat(line.AsSpan(0, shown), "…");
    }

    [GeneratedRegex(@"\n[ \t]*\n")]
    private static partial Regex Blank();

    [GeneratedRegex(@"(?<![.;:,–—-])[ \t]*\n(?=[ \t]*[A-Z])")]
    private static partial Regex Unstopped();

    [GeneratedRegex(@"^\s*(?:\d{1,4}|[a-z])\s*[.)]\s*(?=[A-Z×])")]
    private static partial Regex Numbering();

    [GeneratedRegex(@"^(?:Habitat|Habitats|Hab|Grows(?:\s+in)?|In\s+habitats)\s*[.:]?\s*(?<where>.+)$", RegexOptions.IgnoreCase)]
    private static partial Regex Habitat();

    [GeneratedRegex(@"^(?:Syn(?:onyms?)?\s*[.:]|\(?=)\s*(?<names>.+?)\)?$", RegexOptions.IgnoreCase)]
    private static partial Regex Synonym();

    [GeneratedRegex(
        @"^(?<what>fl(?:ower(?:s|ing)?|s)?|fr(?:uit(?:s|ing)?|s)?)\.?\s*(?:time|period|in|from)?\s*:?\s*(?<from>(?:jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*\.?|[ivx]{1,4})(?:\s*(?:–|-|—|to)\s*(?<to>(?:jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*\.?|[ivx]{1,4}))?$",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex Months();

    [GeneratedRegex(
        @"^(?:like|as|similar to|resembling|close to|differs from|differing from)\s+(?<name>[^,;]+?)\s*,?\s+(?:but|in(?: the)?)\s+(?<rest>.+)$",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex LikeBut();

    [GeneratedRegex(@"^(?:the\s+)?(?:preceding|previous|last|foregoing|former)(?:\s+(?:species|one|taxon))?$", RegexOptions.IgnoreCase)]
    private static partial Regex Preceding();

    // Words that begin a description and are no author.
    [GeneratedRegex(
        @"\b(?:Tree|Shrub|Herb|Perennial|Annual|Biennial|Climber|Plant|Leaves|Lvs|Stems?|Twigs?|Deciduous|Evergreen|Low|Small|Tall|Erect|Fern|Fronds?|Culms?|Tufted)\b"
    )]
    private static partial Regex StatementStart();
}
