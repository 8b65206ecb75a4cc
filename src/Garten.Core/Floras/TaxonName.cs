using System.Globalization;
using System.Text;
using System.Text.Json.Serialization;
using System.Text.RegularExpressions;

namespace Garten.Core.Floras;

/// <summary>
/// A taxon name as it stands in a key or a list, taken apart.
/// </summary>
/// <param name="Name">
/// The name that identifies the taxon: genus, epithet, rank and further epithet with single spaces, a hybrid sign written
/// as "×", no authorship and no italics marks. For a name that is not scientific (a common name, "Seedling A") the text as it stands.
/// </param>
/// <param name="Authorship">Who published the name, as typed; empty where none is given.</param>
/// <param name="CommonName">A common name that stood beside the scientific one; empty where none is given.</param>
/// <param name="IsScientific">Whether the text has the form of a scientific name.</param>
public sealed partial record TaxonName(string Name, string Authorship, string CommonName, bool IsScientific)
{
    /// <summary>A doubt that stood in the name: <c>cf.</c>, <c>aff.</c>, <c>?</c>; null where there was none. It makes no other
    /// taxon.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Doubt { get; init; }

    private static readonly HashSet<string> Ranks = new(StringComparer.Ordinal)
    {
        "subsp.",
        "ssp.",
        "subspecies",
        "var.",
        "variety",
        "subvar.",
        "f.",
        "fo.",
        "forma",
        "form",
        "convar.",
        "cv.",
        "nothosubsp.",
        "nothovar.",
        "sect.",
        "section",
        "subsect.",
        "subg.",
        "subgen.",
        "subgenus",
        "ser.",
        "series",
    };

    private static readonly HashSet<string> RanksAboveSpecies = new(StringComparer.Ordinal)
    {
        "sect.",
        "section",
        "subsect.",
        "subg.",
        "subgen.",
        "subgenus",
        "ser.",
        "series",
    };

    // Qualifiers that belong to the name: a broader or a narrower idea of the taxon is another taxon.
    private static readonly HashSet<string> Qualifiers = new(StringComparer.Ordinal)
    {
        "agg.",
        "agg",
        "aggr.",
        "aggregate",
        "s.l.",
        "s.lat.",
        "s.str.",
        "s.s.",
        "sp.",
        "spp.",
        "species",
        "hort.",
        "group",
        "gr.",
        "complex",
        "hybrids",
    };

    private static readonly HashSet<string> AuthorConnectors = new(StringComparer.Ordinal)
    {
        "ex",
        "et",
        "&",
        "in",
        "and",
        "de",
        "da",
        "di",
        "du",
        "del",
        "della",
        "von",
        "van",
        "vom",
        "zu",
        "der",
        "den",
        "la",
        "le",
        "f.",
        "fil.",
        "bis",
        "non",
        "nec",
        "al.",
        "emend.",
        "emend",
        "auct.",
        "auctt.",
        "sensu",
        "nom.",
        "ined.",
        "comb.",
        "nov.",
        "y",
        "ter",
        "hort.",
    };

    /// <summary>
    /// Reads the whole of <paramref name="text"/> as a taxon name. Never fails on text that is not blank: what has not the form of a
    /// scientific name is kept as it stands. A common name before or behind the scientific one is told apart.
    /// </summary>
    /// <exception cref="ArgumentException">The text is blank.</exception>
    public static TaxonName Parse(string text)
    {
        ArgumentException.ThrowIfNullOrWhiteSpace(text);
        var plain = WithoutItalicsMarks(text);
        // Nothing but marks.
        if (plain.Length == 0)
            return new TaxonName(text.Trim(), "", "", false);
        if (TryParseScientific(plain, out var name))
            return name.HasEpithet && name.Authorship.Length == 0 && !name.LooksLatin ? new TaxonName(plain, "", "", false) : name;

        // "Silver thornwood (Vellorna alba)" and "Vellorna alba (silver thornwood)"
        if (plain.EndsWith(')') && plain.LastIndexOf('(') is var open and > 0)
        {
            var outside = plain[..open].TrimEnd(' ', ',', ':', '-', '–', '—', '=');
            var inside = plain[(open + 1)..^1].Trim();
            if (outside.Length > 0 && TryParseScientific(outside, out var before) && before.LooksLatin)
                return before with { CommonName = inside };
            if (outside.Length > 0 && TryParseScientific(inside, out var within) && within.HasEpithet)
                return within with { CommonName = outside };
        }

        // "Vellorna alba, silver thornwood" and "Silver thornwood, Vellorna alba"
        foreach (var separator in NameSeparators)
        {
            var at = plain.IndexOf(separator, StringComparison.Ordinal);
            if (at <= 0)
                continue;
            var left = plain[..at].Trim();
            var right = plain[(at + separator.Length)..].Trim();
            if (left.Length == 0 || right.Length == 0)
                continue;
            if (TryParseScientific(left, out var first) && first.HasEpithet && first.LooksLatin)
                return first with { CommonName = right };
            if (TryParseScientific(right, out var second) && second.HasEpithet && second.LooksLatin)
                return second with { CommonName = left };
        }

        // "Silver Thornwood Vellorna alba"
        for (var i = plain.IndexOf(' ', StringComparison.Ordinal); i > 0; i = plain.IndexOf(' ', i + 1))
        {
            if (TryParseScientific(plain[(i + 1)..], out var tail) && tail.HasEpithet && tail.LooksLatin)
                return tail with { CommonName = plain[..i].TrimEnd(' ', ',') };
        }
        return new TaxonName(plain, "", "", false);
    }

    private static readonly string[] NameSeparators = [", ", ": ", " – ", " — ", " - ", " = "];

    /// <summary>Whether the name has more than a genus (or a family): an epithet, a hybrid sign or a qualifier such as "sp.".</summary>
    [JsonIgnore]
    public bool HasEpithet => IsScientific && Name.Contains(' ', StringComparison.Ordinal);

    /// <summary>
    /// Whether the epithet could be Latin, by its ending: "alba" could, "smooth" and "glabrous" couldn't.
    /// A name without an epithet of its own ("Vellorna", "Vellorna sp.") could.
    /// </summary>
    [JsonIgnore]
    public bool LooksLatin
    {
        get
        {
            var epithet = Name.Split(' ').Skip(1).FirstOrDefault(IsEpithet);
            return epithet is null || (!epithet.EndsWith("ous", StringComparison.Ordinal) && LatinEnding().IsMatch(epithet));
        }
    }

    [GeneratedRegex(
        @"\s(?:s(?:ensu|ens\.|\.)\s?(?:(?<wide>l(?:ato|at\.|\.))|s(?:tricto|tr\.|\.)))(?=$|[\s,;)\]])",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Sensu();

    [GeneratedRegex(
        "(?:us|a|um|is|e|i|ae|ens|ans|oides|odes|or|ax|ix|ex|ox|on|os|es|er|ys|yx|as|o|en|ops|eps|iceps|ur|ar)$",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex LatinEnding();

    /// <summary>The first word of a scientific name without a hybrid sign; empty for other names. An abbreviated genus keeps its full
    /// stop.</summary>
    [JsonIgnore]
    public string Genus => !IsScientific ? "" : Name.Split(' ', StringSplitOptions.RemoveEmptyEntries).FirstOrDefault(w => w != "×") ?? "";

    /// <summary>
    /// Reads the whole of <paramref name="text"/> as a scientific name with optional authorship.
    /// False where any part does not fit that form; the text is then perhaps a common name or a statement.
    /// </summary>
    public static bool TryParseScientific(string text, out TaxonName name)
    {
        name = new TaxonName("", "", "", true);
        // "s. str." and "sensu lato" are one word like "s.str.".
        var words = Sensu()
            .Replace(WithoutItalicsMarks(text), m => m.Groups["wide"].Success ? " s.l." : " s.str.")
            .Replace("×", " × ", StringComparison.Ordinal)
            .Split(' ', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .ToList();
        if (words.Count == 0 || words.Count > MostWords)
            return false;
        var built = new StringBuilder();
        var at = 0;
        if (IsHybridSign(words[0]) && words.Count > 1)
        {
            built.Append("× ");
            at++;
        }
        var shouted = IsAllCapitals(words[at]);
        if (!IsGenus(words[at]))
            return false;
        built.Append(shouted ? Capitalised(words[at]) : words[at].TrimEnd(','));
        var authorship = new List<string>();
        if (words[at].EndsWith(','))
            authorship.Add(",");
        at++;
        var hasSpecies = false;
        while (at < words.Count)
        {
            var word = words[at];
            var next = at + 1 < words.Count ? words[at + 1] : "";
            if (IsHybridSign(word) && (IsEpithet(next) || IsGenus(next)))
            {
                // Another parent of a hybrid formula may repeat the genus: "Vellorna alba × V. nigra".
                built.Append(" × ").Append(next);
                if (IsGenus(next) && at + 2 < words.Count && IsEpithet(words[at + 2]))
                {
                    built.Append(' ').Append(words[at + 2]);
                    at++;
                }
                authorship.Clear();
                hasSpecies = true;
                at += 2;
            }
            else if (RanksAboveSpecies.Contains(word) && !hasSpecies && next.Length > 1 && char.IsUpper(next[0]))
            {
                built.Append(' ').Append(word).Append(' ').Append(next);
                at += 2;
                hasSpecies = true;
            }
            // "var. alba & var. rubra" are two taxa.
            else if (Ranks.Contains(word) && authorship.Count > 0 && authorship[^1] is "&" or "and" or "et")
                return false;
            else if (Ranks.Contains(word) && hasSpecies && IsEpithet(next) && !AuthorConnectors.Contains(next))
            {
                built.Append(' ').Append(word == "ssp." ? "subsp." : word).Append(' ').Append(next);
                authorship.Clear();
                at += 2;
            }
            else if (Qualifiers.Contains(word))
            {
                built.Append(' ').Append(Concept(word));
                hasSpecies = true;
                at++;
                // "sp. A", "sp. 2"
                if (word is "sp." && at < words.Count && words[at].Length <= 2 && char.IsLetterOrDigit(words[at][0]))
                    built.Append(' ').Append(words[at++]);
            }
            else if (word.Length > 2 && word[0] is '\'' or '‘' && HasClosingQuote(words, at, out var last))
            {
                built.Append(' ').AppendJoin(' ', words.Skip(at).Take(last - at + 1));
                hasSpecies = true;
                at = last + 1;
            }
            else if (!hasSpecies && authorship.Count == 0 && IsEpithet(word) && !AuthorConnectors.Contains(word))
            {
                built.Append(' ').Append(word.TrimEnd(','));
                hasSpecies = true;
                at++;
            }
            else if (!hasSpecies && shouted && authorship.Count == 0 && IsAllCapitals(word) && word.Length > 2)
            {
                built.Append(' ').Append(word.ToLowerInvariant());
                hasSpecies = true;
                at++;
            }
            else if (IsAuthorWord(word))
            {
                authorship.Add(word);
                at++;
            }
            else
                return false;
        }
        var author = string.Join(' ', authorship).Trim(' ', ',');
        // A closing "(…)" is no authorship: the author of the combination would have to follow it. Read by Parse as a common name.
        if (author.EndsWith(')') && !author.Contains('.', StringComparison.Ordinal))
            return false;
        // "Silver Thornwood" is a common name, "Vellorna Thorn" a genus with its author: Latin shows in the ending.
        if (
            !hasSpecies
            && author.Length > 0
            && author.All(c => char.IsLetter(c) || c is ' ' or '-')
            && !HasLatinGenusEnding(built.ToString())
        )
            return false;
        name = new TaxonName(built.ToString(), author, "", true);
        return true;
    }

    /// <summary>The text without the marks <c>*…*</c> and <c>_…_</c> that stand for italics in plain text, and with single
    /// spaces.</summary>
    public static string WithoutItalicsMarks(string text) =>
        string.Join(
            ' ',
            text.Replace("*", "", StringComparison.Ordinal).Replace('_', ' ').Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)
        );

    /// <summary>Name with authorship, as it is written out in a key.</summary>
    public override string ToString()
    {
        var name =
            Doubt is not { Length: > 0 } ? Name
            : Doubt == "?" || !Name.Contains(' ', StringComparison.Ordinal) ? $"{Name} {Doubt}"
            : Name.Insert(Name.IndexOf(' ', StringComparison.Ordinal) + 1, Doubt + " ");
        return Authorship.Length == 0 ? name
            : Doubt == "?" ? $"{Name} {Authorship} ?"
            : $"{name} {Authorship}";
    }

    // One spelling for a broader idea of a taxon and one for the narrower.
    private static string Concept(string word) =>
        word switch
        {
            "agg" or "aggr." or "aggregate" => "agg.",
            "s.lat." => "s.l.",
            "s.s." => "s.str.",
            _ => word,
        };

    // Longer texts are sentences, not names.
    private const int MostWords = 24;

    private static bool IsHybridSign(string word) => word is "×" or "x" or "X" or "✕";

    /// <summary>Whether a word has the form of a genus name or its abbreviation ("Vellorna", "V.", "VELLORNA").</summary>
    public static bool IsGenus(string word)
    {
        var bare = word.TrimEnd(',');
        if (bare.Length < 2 || !char.IsUpper(bare[0]))
            return false;
        if (bare[^1] == '.')
            return bare.Length <= 4 && bare.Skip(1).SkipLast(1).All(char.IsLower);
        if (bare.Length < 3)
            return false;
        return IsAllCapitals(bare) || bare.Skip(1).All(c => char.IsLower(c) || c == '-');
    }

    /// <summary>
    /// Whether a word has the form of an epithet: three or more small letters, hyphens allowed, and not the noun of an English common
    /// name ("Red maple" has the shape of a binomial, but isn't one).
    /// </summary>
    public static bool IsEpithet(string word)
    {
        var bare = word.TrimEnd(',');
        return bare.Length >= 3
            && char.IsLower(bare[0])
            && bare.All(c => char.IsLower(c) || c == '-')
            && bare[^1] != '-'
            && !CommonNameNouns.Any(noun => bare.EndsWith(noun, StringComparison.Ordinal));
    }

    private static readonly string[] CommonNameNouns =
    [
        "oak",
        "ash",
        "elm",
        "pine",
        "fir",
        "maple",
        "birch",
        "willow",
        "thorn",
        "wood",
        "tree",
        "berry",
        "beech",
        "alder",
        "hazel",
        "holly",
        "larch",
        "poplar",
        "cherry",
        "plum",
        "apple",
        "pear",
        "yew",
        "cedar",
        "spruce",
        "grass",
        "fern",
        "sedge",
        "heather",
        "orchid",
        "lily",
        "clover",
        "nettle",
        "thistle",
        "shrub",
        "bush",
        "weed",
        "wort",
        "rose",
    ];

    private static readonly string[] GenusEndings = ["a", "us", "um", "is", "os", "on", "ix", "yx", "ys", "as", "ax", "ex", "ae"];

    private static bool HasLatinGenusEnding(string genus) => GenusEndings.Any(e => genus.EndsWith(e, StringComparison.Ordinal));

    /// <summary>The rank that a name of more than one word has by its form: subspecies, variety, form, hybrid, aggregate, cultivar or
    /// species.</summary>
    public static string RankBelowGenus(string name)
    {
        ArgumentNullException.ThrowIfNull(name);
        var words = name.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        return words.Contains("×") ? "hybrid"
            : words.Contains("subsp.") || words.Contains("ssp.") ? "subspecies"
            : words.Contains("var.") ? "variety"
            : words.Contains("f.") ? "form"
            : name.Contains('\'', StringComparison.Ordinal) ? "cultivar"
            : words.Length > 0 && words[^1] is "agg." ? "aggregate"
            : "species";
    }

    /// <summary>Whether a single word could be a genus: a capital, small letters, and an ending that Latin genera have.</summary>
    public static bool LooksLikeGenus(string word)
    {
        ArgumentNullException.ThrowIfNull(word);
        return word.Length >= 3 && char.IsUpper(word[0]) && word.Skip(1).All(char.IsLower) && HasLatinGenusEnding(word);
    }

    private static bool IsAllCapitals(string word) => word.Length >= 3 && word.All(c => char.IsUpper(c) || c == '-');

    private static string Capitalised(string word) => word[..1] + word[1..].ToLowerInvariant();

    private static bool IsAuthorWord(string word)
    {
        var bare = word.TrimStart('(', '[').TrimEnd(')', ']', ',', ';', ':');
        if (bare.Length == 0)
            return true;
        if (AuthorConnectors.Contains(bare))
            return true;
        if (char.IsUpper(bare[0]))
            return bare.All(c => char.IsLetter(c) || c is '.' or '-' or '\'' or '’' or '&');
        if (bare.StartsWith("d'", StringComparison.Ordinal) || bare.StartsWith("d’", StringComparison.Ordinal))
            return true;
        // A year of publication.
        return bare.Length == 4
            && int.TryParse(bare, NumberStyles.None, CultureInfo.InvariantCulture, out var year)
            && year is > 1700 and < 2200;
    }

    private static bool HasClosingQuote(List<string> words, int from, out int last)
    {
        for (last = from; last < words.Count && last < from + 4; last++)
        {
            if (words[last].Length > 1 && words[last][^1] is '\'' or '’')
                return true;
        }
        return false;
    }
}
