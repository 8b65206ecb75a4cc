using Garten.Core.Floras;

namespace Garten.Core.Keys;

/// <summary>What sets a destination off from the statements before it.</summary>
internal enum LeaderStrength
{
    /// <summary>One space, as text copied out of a PDF leaves it.</summary>
    Space,

    /// <summary>Dots, an arrow, a rule, a tab or wide white space.</summary>
    Set,
}

/// <summary>A destination found at the end of a lead's text.</summary>
/// <param name="Statements">The text before it.</param>
/// <param name="At">Index of the destination in the lead's text.</param>
/// <param name="Destination">What the lead goes to.</param>
/// <param name="Strength">How it is set off.</param>
internal sealed record LeadTail(string Statements, int At, LeadDestination Destination, LeaderStrength Strength)
{
    /// <summary>What is asked where the destination may be meant otherwise; null where it has one reading.</summary>
    public EndQuestion? Unsure { get; init; }

    // A destination with its leader stands within this many characters of the lead's end; a longer leader is skipped as a run.
    private const int Window = 600;

    /// <summary>
    /// Looks for the destination at the end of a lead's text.
    /// </summary>
    /// <param name="text">The lead's text without its mark; line breaks are spaces.</param>
    /// <param name="context">What is known of the whole text; helps to tell a name from the end of a sentence.</param>
    public static LeadTail? Find(string text, TailContext context)
    {
        // "Vellorna alba 2n = 24": the number of chromosomes is no couplet, and its sign no leader.
        if (
            text.Contains("2n", StringComparison.Ordinal)
            && KeyTextPatterns.Chromosomes().Match(text) is { Success: true, Index: > 0 } chromosomes
            && Find(text[..chromosomes.Index], context) is { Destination.Taxon.HasEpithet: true } named
        )
        {
            return named with
            {
                Destination = named.Destination with
                {
                    Note = string.Join("; ", new[] { named.Destination.Note, chromosomes.Groups[1].Value }.OfType<string>()),
                },
            };
        }
        var offset = Math.Max(0, text.Length - Window);
        var tail = text[offset..].TrimEnd();
        var found = FindSetOff(tail, context);
        // "… opposite Vellorna alba = V. nivea": what stands behind the sign is a synonym of what stands before it, and no leader sets
        // either off.
        if (
            found is { Destination.Taxon.HasEpithet: true }
            && tail[found.Statements.Length..found.At].Contains('=', StringComparison.Ordinal)
            && LeadEnd.EndsInName(found.Statements)
        )
            found = null;
        found ??= FindBehindSpace(tail, context);
        if (found is null)
            return null;
        return found with { At = found.At + offset, Statements = text[..offset] + found.Statements };
    }

    private static LeadTail? FindSetOff(string text, TailContext context)
    {
        LeadTail? best = null;
        foreach (var leader in LeadersFromTheEnd(text))
        {
            var behind = text[leader.End..].Trim();
            if (behind.Length == 0)
                continue;
            var at = leader.End + (text.Length - leader.End - text[leader.End..].TrimStart().Length);
            var destination = Read(behind, context, leader.IsStrong, out var unsure);
            if (destination is null)
            {
                if (best is not null || leader.IsStrong)
                    break;
                continue;
            }
            var candidate = new LeadTail(text[..leader.Start], at, destination, LeaderStrength.Set) { Unsure = unsure };
            if (best is null)
            {
                best = candidate;
                continue;
            }
            // Two leaders: "Vellorna alba .... 12" has a page behind it, "Vellorna alba    Silver thornwood" a common name.
            var between = text[leader.End..EndOfStatements(best)].Trim(' ', '\t', '.', '…');
            if (between.Length > 0 && TaxonName.TryParseScientific(between, out var name) && name.HasEpithet && LooksLatin(name))
            {
                var last = best.Destination;
                // "Vellorna alba = V. nivea": the same taxon by another name.
                if (
                    last.Taxon is { HasEpithet: true } other
                    && text[EndOfStatements(best)..best.At].Contains('=', StringComparison.Ordinal)
                )
                {
                    return candidate with
                    {
                        Destination = new LeadDestination(DestinationKind.Taxon, name.Name, name, last.Page, Synonyms: [other.ToString()]),
                    };
                }
                return candidate with
                {
                    Destination =
                        last.Kind == DestinationKind.Couplet
                            ? new LeadDestination(DestinationKind.Taxon, name.Name, name, last.Target)
                            : new LeadDestination(
                                DestinationKind.Taxon,
                                name.Name,
                                name with
                                {
                                    CommonName = last.Taxon?.ToString() ?? last.Target,
                                },
                                last.Page
                            ),
                };
            }
            break;
        }
        return best;

        static int EndOfStatements(LeadTail tail) => tail.Statements.Length;
    }

    private readonly record struct Leader(int Start, int End, bool IsStrong);

    // Leaders from the last to the first. White space of two or three is no sure sign: justified text has it too.
    private static IEnumerable<Leader> LeadersFromTheEnd(string text)
    {
        var i = text.Length - 1;
        while (i >= 0)
        {
            if (!IsLeaderCharacter(text[i]))
            {
                i--;
                continue;
            }
            var end = i + 1;
            int dots = 0,
                rules = 0,
                arrows = 0,
                blanks = 0,
                tabs = 0;
            while (i >= 0 && IsLeaderCharacter(text[i]))
            {
                switch (text[i])
                {
                    case '.' or '·' or '․' or '•':
                        dots++;
                        break;
                    case '…' or '‥':
                        dots += 3;
                        break;
                    case '_' or '-' or '–' or '—' or '−' or '=' or '~':
                        rules++;
                        break;
                    case '\t':
                        tabs++;
                        break;
                    case ' ':
                        blanks++;
                        break;
                    // ">" of "->" and of "more >" alike: an arrow where a rule or a blank stands before it.
                    case '>' when i > 0 && !(text[i - 1] is '-' or '=' or '–' or '—' or '−' or '>'):
                        break;
                    default:
                        arrows++;
                        break;
                }
                i--;
            }
            var start = i + 1;
            if (dots >= 2 || arrows > 0 || tabs > 0 || rules >= 3 || blanks >= 4)
                yield return new Leader(start, end, dots >= 2 || arrows > 0 || tabs > 0 || rules >= 3);
            else if (blanks >= 2)
                yield return new Leader(start, end, false);
        }
    }

    private static bool IsLeaderCharacter(char c) =>
        c
            is '.'
                or '·'
                or '․'
                or '•'
                or '…'
                or '‥'
                or '_'
                or '-'
                or '–'
                or '—'
                or '−'
                or '='
                or '~'
                or '\t'
                or ' '
                or '→'
                or '⇒'
                or '➔'
                or '➜'
                or '➝'
                or '►'
                or '▶'
                or '⟶'
                or '⇨'
                or '➡'
                or '»'
                or '>';

    /// <summary>Reads the whole of a text as a destination; null where it can't be one.</summary>
    /// <param name="text">What stands behind the leader.</param>
    /// <param name="context">What is known of the whole text.</param>
    /// <param name="anyName">Whether a text of any form may be a taxon's name (behind a sure leader).</param>
    /// <param name="unsure">What is asked where it may be meant otherwise; null where it has one reading.</param>
    public static LeadDestination? Read(string text, TailContext context, bool anyName, out EndQuestion? unsure)
    {
        unsure = null;
        (text, var page) = WithoutPage(text);
        text = WithoutWay(text);
        if (text.EndsWith('.') && !text.EndsWith("..", StringComparison.Ordinal))
            text = TrimFinalStop(text);
        if (text.Length == 0)
            return null;

        var number = KeyTextPatterns.CoupletNumber().Match(text);
        if (number.Success)
        {
            var said = number.Groups[1].Value.Trim();
            var label = number.Groups[2].Value.TrimStart('0');
            if (said.Contains("key", StringComparison.OrdinalIgnoreCase) || said.Contains("group", StringComparison.OrdinalIgnoreCase)) { }
            else if (label.Length > 0)
                return new LeadDestination(DestinationKind.Couplet, label, null, page);
        }
        if (
            KeyTextPatterns.CoupletLetter().Match(text) is { Success: true } letter
            && context.Labels.Contains(letter.Groups[1].Value)
            && !context.NamesKey(letter.Groups[1].Value)
        )
        {
            return new LeadDestination(DestinationKind.Couplet, letter.Groups[1].Value, null, page);
        }
        if (KeyReference(text, context) is { } key)
            return new LeadDestination(DestinationKind.Key, key, null, page);
        // A number that the flora gives the taxon: "12. Vellorna alba", "4a) V. nigra".
        text = KeyTextPatterns.SerialNumber().Replace(text, "");
        if (text.Length == 0 || !text.Any(char.IsLetter))
            return null;
        var startsAsName =
            char.IsUpper(text[0])
            || text[0] is '×' or '*' or '_' or '"' or '\'' or '‘' or '“' or '(' or '['
            || text.StartsWith("x ", StringComparison.Ordinal);
        if (!anyName && !startsAsName)
            return null;
        if (LeadEnd.Read(text, page) is not { } end)
            return null;
        var name = end.Taxa[0];
        if (!anyName && !(name.IsScientific && (LooksLatin(name) || context.Genera.Contains(name.Genus))) && !IsTitleCase(text))
            return null;
        unsure = end.Unsure;
        return To(end);
    }

    private static LeadDestination To(LeadEnd end) =>
        new(
            DestinationKind.Taxon,
            end.Taxa[0].Name,
            end.Taxa[0],
            end.Page,
            end.Taxa.Count > 1 ? [.. end.Taxa.Skip(1)] : null,
            end.Synonyms.Count > 0 ? end.Synonyms : null,
            end.Note.Length > 0 ? end.Note : null
        );

    // "3 on" of "3 on page 4", "see 3 below", "3 overleaf": which way to turn says nothing of where it goes.
    private static string WithoutWay(string text) =>
        KeyTextPatterns.WayBehindNumber().Match(text) is { Success: true } way
            ? text[..way.Groups["way"].Index].TrimEnd(' ', ',', '(')
            : text;

    // "Thorn." keeps the stop of an abbreviated author; "Vellorna alba." loses the one that ends a sentence.
    private static string TrimFinalStop(string text)
    {
        var word = text[(text.LastIndexOf(' ') + 1)..^1];
        if (word.Length > 0 && char.IsDigit(word[^1]))
            return text[..^1];
        return word.Length > 0 && char.IsLower(word[0]) && !KeepTheirStop.Contains(word) ? text[..^1] : text;
    }

    private static readonly HashSet<string> KeepTheirStop = new(StringComparer.Ordinal)
    {
        "agg",
        "aggr",
        "sp",
        "spp",
        "auct",
        "auctt",
        "f",
        "fil",
        "hort",
        "s.l",
        "s.str",
        "s.s",
        "s.lat",
        "al",
        "ined",
        "nov",
        "p.p",
        "p",
        "lat",
        "str",
        "l",
        "pt",
    };

    private static string? KeyReference(string text, TailContext context)
    {
        var stripped = KeyTextPatterns.GoTo().Replace(text, "").Trim();
        if (stripped.Length == 0)
            return null;
        if (KeyTextPatterns.KeyName().IsMatch(stripped))
            return stripped;
        // A title without the word ("Conifers", or "Vellorna" of "Key to the species of Vellorna") is written with it from here on.
        if (context.NamesKey(stripped))
            return $"Key to {stripped}";
        // "Vellorna (Key B)", "Conifers, Key 2", "Vellorna, see Key to Vellorna"
        var inside = KeyTextPatterns.KeyNameBehind().Match(stripped);
        return inside.Success ? inside.Groups[1].Value.Trim() : null;
    }

    private static LeadTail? FindBehindSpace(string text, TailContext context)
    {
        var (body, page) = WithoutPage(text);
        if (KeyTextPatterns.WayBehindGoTo().Match(body) is { Success: true } way)
            body = body[..way.Groups["way"].Index].TrimEnd();
        if (
            (body.Contains("key", StringComparison.OrdinalIgnoreCase) || body.Contains("group", StringComparison.OrdinalIgnoreCase))
            && KeyTextPatterns.KeyReferenceAtEnd().Match(body) is { Success: true, Index: > 0 } reference
        )
        {
            var key = KeyTextPatterns.GoTo().Replace(reference.Groups[1].Value, "").Trim(' ', '.', ')');
            if (key.Length > 0 && !KeyTextPatterns.OnlyNumber().IsMatch(key))
            {
                return new LeadTail(
                    body[..reference.Index],
                    reference.Index,
                    new LeadDestination(DestinationKind.Key, key, null, page),
                    LeaderStrength.Space
                );
            }
        }

        if (EndsLikeNumber(body) && KeyTextPatterns.NumberAtEnd().Match(body) is { Success: true, Index: > 0 } number)
        {
            var label = number.Groups["n"].Value.TrimStart('0');
            var said = number.Groups["go"].Length > 0;
            var before = body[..number.Index].TrimEnd();
            if (label.Length > 0 && (said || !GoesOnWithNumber(before) && !IsOfTheName(before, number.Value.Trim(), context)))
            {
                return new LeadTail(
                    before,
                    number.Index + (number.Length - number.Value.TrimStart().Length),
                    new LeadDestination(DestinationKind.Couplet, label, null, page),
                    said ? LeaderStrength.Set : LeaderStrength.Space
                );
            }
        }
        return FindName(body, page, context);
    }

    private static (string Text, string Page) WithoutPage(string text)
    {
        text = text.TrimEnd();
        if (text.Length == 0 || !(char.IsAsciiDigit(text[^1]) || text[^1] is ')' or ']' or '.'))
            return (text, "");
        var page = KeyTextPatterns.PageHint().Match(text, Math.Max(0, text.Length - LongestPageHint));
        return page.Success && page.Index > 0
            ? (text[..page.Index].TrimEnd(' ', ',', ';', '('), page.Groups[1].Success ? page.Groups[1].Value : page.Groups[2].Value)
            : (text, "");
    }

    // "(pages 12345 – 12345)." and some white space.
    private const int LongestPageHint = 40;

    // A number, perhaps in brackets or with the letter or the prime of a lead: "2", "(2)", "2a", "2*".
    private static bool EndsLikeNumber(string text)
    {
        for (var i = text.Length - 1; i >= 0 && i >= text.Length - 5; i--)
        {
            if (char.IsAsciiDigit(text[i]))
                return true;
        }
        return false;
    }

    // "stamens 4 or 5", "up to 12", "2n = 24": the number belongs to the statement.
    private static bool GoesOnWithNumber(string before)
    {
        if (before.Length == 0)
            return true;
        if (before[^1] is '–' or '-' or '−' or '=' or '×' or '±' or '<' or '>' or '≥' or '≤' or '/' or '~' or ',')
            return true;
        var word = before[(before.LastIndexOf(' ') + 1)..].TrimStart('(');
        return word
            is "or"
                or "to"
                or "of"
                or "c."
                or "ca."
                or "about"
                or "than"
                or "and"
                or "x"
                or "least"
                or "most"
                or "in"
                or "with"
                or "by"
                or "only"
                or "usually"
                or "often"
                or "mostly"
                or "each"
                or "from"
                or "between";
    }

    // "Vellorna alba (12)", "Vellorna alba Hask. 1891", "Vellorna alba, Fig. 4": its number in the flora, its year, its figure.
    private static bool IsOfTheName(string before, string number, TailContext context)
    {
        if (KeyTextPatterns.FigureBefore().IsMatch(before))
            return true;
        var isYear =
            number.Length == 4 && number[0] == '1' && !context.Labels.Contains(number)
            || number.StartsWith('(') && number.EndsWith("))", StringComparison.Ordinal);
        return (isYear || number.StartsWith('(') && !context.Labels.Contains(number.Trim('(', ')'))) && LeadEnd.EndsInName(before);
    }

    // A name at the end without a leader. It is one if it has the form of a scientific name, or stands in capitals mid-sentence.
    private static LeadTail? FindName(string text, string page, TailContext context)
    {
        if (text.Length == 0)
            return null;
        // What stands behind the name is set aside while it is looked for: synonyms, notes, figures.
        var core = LeadEnd.WithoutWhatFollows(text);
        if (core.Length == 0)
            core = text;
        // "… in twos (Pinolia gemina)", "… in twos [Pinolia gemina]"
        if (
            core[^1] is ')' or ']'
            && core.LastIndexOf(core[^1] == ')' ? '(' : '[') is var open and > 0
            && TaxonName.TryParseScientific(core[(open + 1)..^1], out var inBrackets)
            && inBrackets.HasEpithet
            && LooksLatin(inBrackets)
            && !TaxonName.IsGenus(LastWordBefore(core, open))
        )
        {
            // "… smooth. Silver thornwood (Vellorna alba)": behind a full stop a few words with a capital are its common name.
            var before = core[..open].TrimEnd();
            var sentence =
                Math.Max(before.LastIndexOf(". ", StringComparison.Ordinal), before.LastIndexOf("; ", StringComparison.Ordinal)) + 2;
            var said = sentence > 1 && sentence < before.Length ? before[sentence..].Trim() : "";
            var isCommon =
                said.Length > 0
                && char.IsUpper(said[0])
                && said.Split(' ').Length <= MostCommonWords
                && !said.Any(char.IsDigit)
                && !KeyTextPatterns.StatementNoun().IsMatch(said.Split(' ')[0]);
            var rest = LeadEnd.Read(inBrackets + text[core.Length..], page);
            var to = To(rest ?? new LeadEnd([inBrackets], [], "", page, null));
            if (isCommon)
                to = to with { Taxon = to.Taxon! with { CommonName = said } };
            return new LeadTail(
                isCommon ? before[..(sentence - 1)].TrimEnd() : before,
                isCommon ? sentence : open,
                to,
                LeaderStrength.Space
            )
            {
                Unsure = rest?.Unsure,
            };
        }
        var starts = WordStarts(core);
        foreach (var start in starts)
        {
            var first = core[start];
            if (
                !(
                    char.IsUpper(first)
                    || first is '×' or '*' or '_' or '†' or '+'
                    || (first == 'x' && start + 1 < core.Length && core[start + 1] == ' ')
                )
            )
                continue;
            if (start == 0)
                continue;
            var suffix = core[start..];
            if (suffix.Contains(';', StringComparison.Ordinal) || suffix.Contains(':', StringComparison.Ordinal))
                continue;
            suffix = KeyTextPatterns.SerialNumber().Replace(suffix, "");
            var inItalics = first is '*' or '_';
            var bare = suffix.EndsWith('.') ? TrimFinalStop(suffix) : suffix;
            if (bare.Length == 0)
                continue;
            var opensSentence = OpensSentence(core, start);
            if (LeadEnd.Read(bare + text[core.Length..], page) is not { } end)
                continue;
            var name = end.Taxa[0];
            var scientific =
                end.Unsure is null
                && (
                    name.IsScientific && name.CommonName.Length == 0
                    || name.IsScientific && (bare.EndsWith(')') || core.Length < text.Length)
                );
            var accepted =
                inItalics
                || (
                    scientific
                        ? context.Genera.Contains(name.Genus)
                            || (
                                name.HasEpithet
                                    ? LooksLatin(name) && !(opensSentence && StartsLikeStatement(name))
                                    : !opensSentence && !StartsLikeStatement(name)
                            )
                        : !opensSentence && IsTitleCase(bare)
                );
            if (!accepted)
                continue;
            return new LeadTail(text[..start].TrimEnd(), start, To(end), LeaderStrength.Space) { Unsure = end.Unsure };
        }
        return null;
    }

    // "Northern silver thornwood of the marsh" has six.
    private const int MostCommonWords = 6;

    private static string LastWordBefore(string text, int at)
    {
        var before = text[..at].TrimEnd();
        return before[(before.LastIndexOf(' ') + 1)..];
    }

    private static List<int> WordStarts(string text)
    {
        var starts = new List<int>();
        for (var i = 0; i < text.Length; i++)
        {
            if (text[i] != ' ' && (i == 0 || text[i - 1] == ' '))
                starts.Add(i);
        }
        return starts;
    }

    private static bool OpensSentence(string text, int start)
    {
        var before = text[..start].TrimEnd();
        return before.Length == 0 || before[^1] is '.' or ';' or ':' or '!' or '?';
    }

    // Words that begin statements in capitals; no genus is called so.
    private static bool StartsLikeStatement(TaxonName name) =>
        KeyTextPatterns.StatementNoun().IsMatch(name.Genus) || name.Genus.EndsWith('.') && name.Genus.Length > LongestAbbreviatedGenus;

    // "V." and "Ve."; "Fig." and "Approx." are no genera.
    private const int LongestAbbreviatedGenus = 3;

    // A binomial that isn't a noun with an adjective: "Bark smooth" has its form too.
    private static bool LooksLatin(TaxonName name) =>
        !KeyTextPatterns.StatementNoun().IsMatch(name.Genus) && name.LooksLatin && name.Name.Contains(' ', StringComparison.Ordinal);

    private static bool IsTitleCase(string text)
    {
        var words = text.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        if (words.Length is 0 or > 6 || !char.IsUpper(words[0][0]) || KeyTextPatterns.StatementNoun().IsMatch(words[0]))
            return false;
        return words.All(w =>
                char.IsUpper(w[0])
                || w is "of" or "the" or "and" or "or" or "agg." or "sp." or "spp." or "group"
                || w[0] is '(' or '\'' or '×' or '&' && w.Length > 0
            ) && words.All(w => w.Any(char.IsLetter) || w is "×" or "&");
    }
}
