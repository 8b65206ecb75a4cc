using System.Text.RegularExpressions;
using Garten.Core.Floras;

namespace Garten.Core.Keys;

/// <summary>What is asked of whoever pasted a key, where the end of a lead can be read in more than one way.</summary>
/// <param name="Message">How it was read and how else it can be, as sentences.</param>
/// <param name="Choices">For each reading what to write; the old text is as it stands at the end.</param>
internal sealed record EndQuestion(string Message, IReadOnlyList<EndChoice> Choices);

/// <summary>One reading of an end, and how it is written so that there is no other.</summary>
/// <param name="Label">The reading in a few words.</param>
/// <param name="Old">What stands there.</param>
/// <param name="New">What stands there afterwards.</param>
internal sealed record EndChoice(string Label, string Old, string New);

/// <summary>
/// What stands at the end of a lead besides the taxon's bare name: synonyms, notes, a figure or a page, a part of the taxon only, a doubt,
/// other
/// taxa that the end leaves open. Nothing of it makes another taxon.
/// </summary>
/// <param name="Taxa">The taxa; more than one where the end leaves several open.</param>
/// <param name="Synonyms">Other names of the first taxon, as typed.</param>
/// <param name="Note">What else was said, as typed; pieces are parted by semicolons.</param>
/// <param name="Page">A page or figure; empty where none is given.</param>
/// <param name="Unsure">What is asked where it may be meant otherwise; null where there is one reading.</param>
internal sealed partial record LeadEnd(
    IReadOnlyList<TaxonName> Taxa,
    IReadOnlyList<string> Synonyms,
    string Note,
    string Page,
    EndQuestion? Unsure
)
{
    // A chain of names longer than this is a list of examples.
    private const int MostTaxa = 8;

    /// <summary>Reads the whole of a text; null where it holds no letter.</summary>
    /// <param name="text">What stands behind the leader, without a couplet's number.</param>
    /// <param name="page">A page that was found before.</param>
    public static LeadEnd? Read(string text, string page)
    {
        var notes = new List<string>();
        var synonyms = new List<string>();
        var unsure = (EndQuestion?)null;
        var common = "";
        text = SpacedStop().Replace(TaxonName.WithoutItalicsMarks(text), "$1. ");
        text = BracketedConcept().Replace(text, " $1");
        text = Lesser().Replace(text, " or ").TrimEnd();
        // The bracket that "(or V. nigra)" leaves when its opening one is gone.
        if (text.Length > 0 && text[^1] is ')' or ']' && text.Count(c => c is ')' or ']') > text.Count(c => c is '(' or '['))
            text = text[..^1];
        text = Either().Replace(text, "");
        text = Signs(text, notes);
        // From the end: brackets, and what stands behind a name without any.
        for (var went = true; went && text.Length > 0; )
        {
            went = false;
            if (Trailing(text) is var (before, inside) && before.Length > 0)
            {
                switch (Sort(before, inside))
                {
                    case Part.Synonym:
                        synonyms.Insert(0, SynonymMark().Replace(inside, "").Trim(' ', ',', ';'));
                        break;
                    case Part.Page:
                        page = page.Length > 0 ? page : Figure(inside);
                        break;
                    case Part.Note:
                        notes.Insert(0, NoteMark().Replace(inside, ""));
                        break;
                    case Part.Common:
                        common = inside;
                        break;
                    case Part.EitherSynonym:
                        synonyms.Insert(0, inside);
                        unsure = new EndQuestion(
                            $"“{inside}” behind “{before}” is taken for a synonym. Write it as [= {inside}] if that is so, or with “or” between them if the plant may be either.",
                            [
                                new("It is a synonym", text[before.Length..].TrimStart(' ', ','), $"[= {inside}]"),
                                new("It may be either", text[before.Length..].TrimStart(' ', ','), $"or {inside}"),
                            ]
                        );
                        break;
                    default:
                        goto done;
                }
                (text, went) = (before, true);
            }
            else if (
                NoteBehind().Match(text) is { Success: true, Index: > 0 } behind
                && !(text[behind.Index] == ';' && IsTaxon(behind.Groups["note"].Value, out _))
            )
            {
                notes.Insert(0, behind.Groups["note"].Value.Trim(' ', '.'));
                (text, went) = (text[..behind.Index], true);
            }
            else if (
                SynonymBehind().Match(text) is { Success: true, Index: > 0 } equal
                && TaxonName.TryParseScientific(equal.Groups["name"].Value, out _)
            )
            {
                synonyms.Insert(0, equal.Groups["name"].Value.Trim());
                (text, went) = (text[..equal.Index], true);
            }
            if (!went)
                continue;
            text = Signs(text.TrimEnd(' ', ',', ';'), notes);
        }
        done:
        if (!text.Any(char.IsLetter))
            return null;
        var doubt = Doubt().Match(text) is { Success: true } doubted ? (doubted.Groups[1].Success ? doubted.Groups[1].Value : "?") : "";
        if (doubt.Length > 0)
            text = Doubt().Replace(text, " ", 1).Trim();
        var taxa = Alternatives(text);
        if (taxa.Count == 0)
        {
            var name = TaxonName.Parse(Whole().Replace(text, " "));
            if (!name.IsScientific && Longest(text) is var (first, rest))
            {
                name = first;
                notes.Insert(0, rest);
                unsure ??= new EndQuestion(
                    $"“{first}” is taken for the taxon and “{rest}” for a note. Put the note in brackets if that is so; if it is part of the name, write the name in full.",
                    [new("It is a note", rest, $"(note: {rest})")]
                );
            }
            taxa = [name];
        }
        if (common.Length > 0)
            taxa[0] = taxa[0] with { CommonName = taxa[0].CommonName.Length > 0 ? $"{taxa[0].CommonName}, {common}" : common };
        if (doubt.Length == 0 && notes.Exists(n => n.Length > 0 && n.All(c => c == '?')))
        {
            doubt = "?";
            notes.RemoveAll(n => n.Length > 0 && n.All(c => c == '?'));
        }
        if (doubt.Length > 0)
            taxa[0] = taxa[0] with { Doubt = doubt };
        return new LeadEnd(taxa, synonyms, string.Join("; ", notes.Where(n => n.Length > 0)), page, unsure);
    }

    /// <summary>A text without the brackets, signs and notes behind a name at its end; the text itself where the name is in the
    /// brackets.</summary>
    public static string WithoutWhatFollows(string text)
    {
        while (true)
        {
            var trimmed = text.TrimEnd();
            if (trimmed.Length == 0)
                return text;
            if (
                Trailing(trimmed) is var (before, inside)
                && before.Length > 0
                && Sort(LastName(before), inside) is Part.Synonym or Part.Page or Part.Note or Part.EitherSynonym
            )
                text = before;
            else if (SignBehind().Match(trimmed) is { Success: true, Index: > 0 } sign && EndsInName(trimmed[..sign.Index]))
                text = trimmed[..sign.Index];
            else if (
                SynonymBehind().Match(trimmed) is { Success: true, Index: > 0 } equal
                && IsTaxon(equal.Groups["name"].Value, out _)
                && EndsInName(trimmed[..equal.Index])
            )
                text = trimmed[..equal.Index];
            else if (NoteBehind().Match(trimmed) is { Success: true, Index: > 0 } note && EndsInName(trimmed[..note.Index]))
                text = trimmed[..note.Index];
            else
                return text;
        }
    }

    /// <summary>Whether a text ends in a scientific name with an epithet.</summary>
    public static bool EndsInName(string text) => IsTaxon(LastName(text), out _);

    // The last words of a text that begin with a capital and make a name, for want of a leader before it.
    private static string LastName(string text)
    {
        var words = text.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        for (var take = Math.Min(words.Length, 7); take > 1; take--)
        {
            var last = string.Join(' ', words[^take..]).TrimStart('*', '_', '†', '+');
            if (last.Length > 0 && (char.IsUpper(last[0]) || last[0] == '×') && IsTaxon(last, out _))
                return last;
        }
        return text;
    }

    private enum Part
    {
        Name,
        Synonym,
        EitherSynonym,
        Page,
        Note,
        Common,
    }

    // The last bracket of a text, and what stands before it; one within a name ("(Hask.) Brekke") isn't the last.
    private static (string Before, string Inside)? Trailing(string text)
    {
        if (text[^1] is not (')' or ']'))
            return null;
        var (open, close) = text[^1] == ')' ? ('(', ')') : ('[', ']');
        var depth = 0;
        for (var i = text.Length - 1; i >= 0; i--)
        {
            if (text[i] == close)
                depth++;
            else if (text[i] == open && --depth == 0)
                return (text[..i].TrimEnd(' ', ','), text[(i + 1)..^1].Trim());
        }
        return null;
    }

    private static Part Sort(string before, string inside)
    {
        if (inside.Length == 0 || !inside.Any(char.IsLetterOrDigit))
            return Part.Note;
        if (SynonymMark().IsMatch(inside))
            return Part.Synonym;
        if (FigureText().IsMatch(inside))
            return Part.Page;
        if (
            NoteMark().IsMatch(inside)
            || NoteText().IsMatch(inside)
            || inside.Contains('×', StringComparison.Ordinal)
            || inside.IndexOfAny([';', ':', '=', '?']) >= 0
            || inside.Any(char.IsDigit) && !Year().IsMatch(inside)
        )
            return Part.Note;
        // "Silver thornwood (Vellorna alba)": what is in brackets is the name. "Vellorna alba (V. nigra)": perhaps a synonym.
        if (IsTaxon(inside, out _))
            return IsTaxon(before, out _) ? Part.EitherSynonym : Part.Name;
        // Authors have capitals and full stops; a common name has words.
        if (AuthorText().IsMatch(inside))
            return Part.Name;
        return CommonText().IsMatch(inside) && TaxonName.TryParseScientific(before, out _) ? Part.Common
            : TaxonName.TryParseScientific(before, out _) ? Part.Note
            : Part.Name;
    }

    private static string Figure(string inside) =>
        FigureWords().Match(inside) is { Success: true } page && page.Groups["page"].Success ? page.Groups["page"].Value : inside;

    // Signs and words beside a name that say how the taxon stands, not which it is: †, +, p.p., in part. A lone "?" is a doubt, said in the
    // note.
    private static string Signs(string text, List<string> notes)
    {
        while (true)
        {
            text = text.Trim();
            if (
                SignBehind().Match(text) is { Success: true, Index: > 0 } behind
                && behind.Value.IndexOfAny(['(', '[']) >= 0 == behind.Value.IndexOfAny([')', ']']) >= 0
            )
            {
                notes.Insert(0, behind.Groups["sign"].Value);
                text = text[..behind.Index];
            }
            else if (SignBefore().Match(text) is { Success: true } before && before.Length < text.Length)
            {
                notes.Add(before.Groups["sign"].Value);
                text = text[before.Length..];
            }
            else
                return text;
        }
    }

    // "A or B", "A, B", "A / B", "A and B": taxa that the end leaves open. An epithet alone, or with its genus abbreviated, is of the genus
    // before.
    private static List<TaxonName> Alternatives(string text)
    {
        var pieces = Between().Split(text).Select(p => p.Trim()).Where(p => p.Length > 0).ToList();
        if (pieces.Count is < 2 or > MostTaxa)
            return [];
        var taxa = new List<TaxonName>();
        foreach (var piece in pieces)
        {
            var first = piece.Split(' ')[0];
            if (NoEpithet().IsMatch(first))
                return [];
            var said =
                taxa.Count > 0 && RankWord().IsMatch(first) ? $"{string.Join(' ', taxa[^1].Name.Split(' ').Take(2))} {piece}"
                : taxa.Count > 0 && TaxonName.IsEpithet(first) ? $"{taxa[^1].Genus} {piece}"
                : piece;
            if (!IsTaxon(said, out var name))
                return [];
            // A genus that is written out before is the one that its letter means.
            if (taxa.Count > 0 && name.Genus.EndsWith('.') && taxa[^1].Genus.StartsWith(name.Genus[..^1], StringComparison.Ordinal))
                name = name with { Name = taxa[^1].Genus + name.Name[name.Genus.Length..] };
            if (taxa.TrueForAll(t => t.Name != name.Name))
                taxa.Add(name);
        }
        return taxa.Count > 1 ? taxa : [];
    }

    // A binomial that isn't a noun with an adjective: "Needles single" has its form too.
    private static bool IsTaxon(string text, out TaxonName name) =>
        TaxonName.TryParseScientific(text, out name)
        && name.HasEpithet
        && name.LooksLatin
        && !KeyTextPatterns.StatementNoun().IsMatch(name.Genus);

    // The longest beginning that is a scientific name with an epithet, and what is left.
    private static (TaxonName Name, string Behind)? Longest(string text)
    {
        for (var at = text.LastIndexOf(' '); at > 0; at = text.LastIndexOf(' ', at - 1))
        {
            var beginning = text[..at].TrimEnd(' ', ',', ';', ':', '–', '-');
            if (beginning.Contains(' ', StringComparison.Ordinal) && IsTaxon(beginning, out var name))
                return (name, text[at..].Trim(' ', ',', ';', ':', '–', '-', '(', ')', '[', ']', '.'));
            if (at == 0)
                break;
        }
        return null;
    }

    [GeneratedRegex(
        @"^(?:=|≡|≈|syn(?:onyms?|n|s)?\b[.:]{0,2}|incorrectly\b|formerly\b|previously\b|also\s+(?:called|known\s+as)\b)\s*",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex SynonymMark();

    // "Vellorna alba = V. nivea Tove" behind a name.
    [GeneratedRegex(@"[,;]?\s+(?:=|≡|syn\.?:?)\s+(?<name>[^=]{3,120})$", RegexOptions.CultureInvariant)]
    private static partial Regex SynonymBehind();

    [GeneratedRegex(@"^note:\s*", RegexOptions.CultureInvariant)]
    private static partial Regex NoteMark();

    // What begins or holds such words speaks of the taxon and doesn't name it.
    [GeneratedRegex(
        @"^(?:see|cf\.?|compare|incl(?:uding|\.)?|excl(?:uding|\.)?|in\s+part|pro\s+parte|p\.\s?p\.?|pt\.?|if|but|not|when|where|mostly|usually|often|also|and|or|of|on|in|at|by|near|from|native|introduced|planted|cultivated|escaped|garden|alien|casual|naturalised|naturalized|very|rather|locally|common|frequent|occasional|rare|scarce|extinct|widespread|coasts?|coastal|lowlands?|uplands?|hills?|mountains?|north(?:ern)?|south(?:ern)?|east(?:ern)?|west(?:ern)?|male|female|sterile|young|juvenile|winter|summer|spring|autumn|hybrid|note)\b|\b(?:only|plants?|specimens?|forms?|rare|coasts?)$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex NoteText();

    [GeneratedRegex(
        @"(?:[,;.]|\s[–—-])\s*(?<note>(?:but\s+)?(?:see(?:\s+also)?|compare|cf\.|synonym\s+of|formerly|previously)\s.{2,160})$|,\s*(?<note>(?:figs?|plates?|pl|tab|pp?)\b\.?\s*\d[\w ,–-]{0,20})$|\s(?<note>and\s+(?:its\s+)?(?:allies|relatives|related\s+\p{L}+|segregates|hybrids))$|\s(?<note>(?:but\s+)?(?:see\s+also|compare|cf\.\s+also)\s.{2,160})$|[;]\s*(?<note>[^;]{2,160})$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex NoteBehind();

    [GeneratedRegex(
        @"^(?:(?:figs?|figures?|pl|pls|plates?|tab|tabs|tables?|maps?|photos?|illus(?:tr)?|pp?|pages?)\b\.?\s*[\dIVXivx][\w.,;:&–\- ]{0,40}|[\d.,–\- ]{1,20})$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex FigureText();

    [GeneratedRegex(
        @"^(?:pp?|pages?)\b\.?\s*(?<page>\d{1,5}(?:\s?[–-]\s?\d{1,5})?)$|",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex FigureWords();

    [GeneratedRegex(
        @"^[\p{Lu}][\p{L}.\-'’]*(?:\s?(?:&|et|ex|in|and|f\.|fil\.)?\s?[\p{Lu}][\p{L}.\-'’]*)*\.(?:,\s*\d{4})?$|,\s*1[789]\d\d$",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex AuthorText();

    [GeneratedRegex(@"\b1[789]\d\d\b", RegexOptions.CultureInvariant)]
    private static partial Regex Year();

    [GeneratedRegex(@"^\p{L}[\p{L}'’\-]*(?:[ ,/]{1,2}(?:or )?\p{L}[\p{L}'’\-]*){0,6}$", RegexOptions.CultureInvariant)]
    private static partial Regex CommonText();

    // "or similar", "or its hybrids": no other taxon is named.
    [GeneratedRegex(
        @"^(?:similar|other|others|another|related|near|close|hybrids?|allied|allies|its|their|possibly|perhaps|any|some|all|both|either|similar|related)$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex NoEpithet();

    [GeneratedRegex(@"^(?:subsp|ssp|var|f|subvar)\.$", RegexOptions.CultureInvariant)]
    private static partial Regex RankWord();

    [GeneratedRegex(
        @"\s*(?:,?\s(?:or|and|oder|ou|vel|et|aut|und)\s|\s[&+]\s(?=[A-Z]\S*\s+[a-z]{3,}|(?:subsp|ssp|var|f)\.)|[,;]\s*|\s?/\s?)\s*",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Between();

    [GeneratedRegex(
        @"\s*[,(\[]?\s*(?<sign>p\.\s?p\.(?:\s(?:max|min)\.)?|pro\s+parte(?:\s+\w+)?|pro\s?max\.\sp\.|in\s+part|partly|pt\.|auctt?\.\s?p\.p\.|[†‡+¶§!●○■□◆★☆°♀♂☿]+|\?+)\s*[)\]]?\s*$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex SignBehind();

    [GeneratedRegex(@"^\s*[(\[]?(?<sign>[†‡+¶§!●○■□◆★☆]+|\?+)[)\]]?\s*", RegexOptions.CultureInvariant)]
    private static partial Regex SignBefore();

    [GeneratedRegex(@"(?:^|\s)(?:(cf\.?|aff\.|nr\.|\?)\s+|(\?))(?=[a-zA-Z])", RegexOptions.CultureInvariant)]
    private static partial Regex Doubt();

    [GeneratedRegex(@"\s+", RegexOptions.CultureInvariant)]
    private static partial Regex Whole();

    // "Vellorna alba (s.l.)": how broadly the name is meant, in brackets.
    [GeneratedRegex(
        @"\s*[(\[]\s*(s\.\s?l(?:at)?\.|s\.\s?s(?:tr)?\.|s\.\s?str\.|sensu\s+lato|sensu\s+stricto|agg\.|aggr\.|aggregate)\s*[)\]]",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex BracketedConcept();

    // "Vellorna alba, rarely V. nigra", "Vellorna alba (or V. nigra": the rarer one is left open as well.
    [GeneratedRegex(
        @"(?:\s*[,;]|\s*[(\[])?\s*(?:\bor\b\s*,?\s*(?:(?:more|very)\s+)?(?:rarely|sometimes|occasionally|perhaps|possibly|exceptionally)\s*,?|(?<=[,;(\[]\s*)(?:(?:more|very)\s+)?(?:rarely|sometimes|occasionally|perhaps|possibly|exceptionally)\s*,?|(?<=[(\[]\s*)(?:or|and|also|\+|&))\s+(?=\p{Lu}(?:\p{Ll}*\.|\p{Ll}+)\s+\p{Ll}{3,})",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Lesser();

    [GeneratedRegex(@"^\s*[Ee]ither\s+", RegexOptions.CultureInvariant)]
    private static partial Regex Either();

    // "T . brevis", as print is recognised.
    [GeneratedRegex(@"(?<=^|[\s(\[])(\p{Lu}\p{Ll}?)\s+\.\s*(?=\p{Ll}{3,})", RegexOptions.CultureInvariant)]
    private static partial Regex SpacedStop();
}
