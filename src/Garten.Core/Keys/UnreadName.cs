using System.Text.RegularExpressions;
using Garten.Core.Floras;

namespace Garten.Core.Keys;

/// <summary>
/// Names at the end of a lead that its reading leaves out. Whatever form the end has, a second name there is either said to be a synonym or
/// to belong
/// to a note, or it is asked about: it is never passed over in silence.
/// </summary>
internal static partial class UnreadName
{
    // What may stand behind the last statement without a leader; a longer sentence with a name in it is a statement.
    private const int Reach = 160;

    // More names than this are a list of examples; one question holds no more.
    private const int MostNames = 4;

    /// <summary>The question to ask of a lead; null where its end leaves no name out.</summary>
    /// <param name="text">The lead's text without its mark.</param>
    /// <param name="tail">How its end was read.</param>
    public static EndQuestion? Ask(string text, LeadTail tail)
    {
        if (tail.Destination.Kind == DestinationKind.Key)
            return null;
        text = text.TrimEnd();
        var leader = StrongLeader().Matches(text).LastOrDefault(m => m.Index > 0 && m.Index + m.Length < text.Length);
        var set = leader is not null && leader.Index + leader.Length <= tail.At + 1;
        if (!set && (leader is not null || tail.Destination.Kind == DestinationKind.Couplet))
            return null;
        var from = set ? leader!.Index + leader.Length : Math.Max(0, text.Length - Reach);
        var end = text[from..];
        if (set && Numbers().IsMatch(end))
        {
            return new EndQuestion(
                $"“{end.Trim()}” names more than one way to go on, and a lead has one. Write the couplet or the taxon that is meant.",
                []
            );
        }
        var left = new List<string>();
        var start = -1;
        foreach (Match match in Binomial().Matches(Explained(end)))
        {
            if (
                !TaxonName.TryParseScientific(match.Value, out var name)
                || !name.HasEpithet
                || !name.LooksLatin
                || KeyTextPatterns.StatementNoun().IsMatch(name.Genus)
            )
                continue;
            if (
                set
                    ? !name.Genus.EndsWith('.') && !TaxonName.LooksLikeGenus(name.Genus)
                    : !IsOfGenus(name, tail.Destination) || Comparing().IsMatch(end[..match.Index])
            )
                continue;
            if (start < 0)
                start = match.Index;
            if (!IsRead(name, tail.Destination) && !left.Contains(name.Name))
                left.Add(name.Name);
        }
        if (left.Count is 0 or > MostNames)
            return null;
        var whole = end[(set ? 0 : start)..].Trim();
        var read =
            tail.Destination.Kind == DestinationKind.Couplet
                ? [$"couplet {tail.Destination.Target}"]
                : tail.Destination.Taxa.Select(t => t.ToString()).ToList();
        var lead = set ? "" : "..... ";
        var note = whole.Replace('(', ' ').Replace(')', ' ').Replace('[', ' ').Replace(']', ' ').Trim();
        List<EndChoice> choices =
            tail.Destination.Kind == DestinationKind.Couplet
                ? [new($"Couplet {tail.Destination.Target}", whole, tail.Destination.Target)]
                :
                [
                    .. read.Concat(left).Select(n => new EndChoice($"{n} alone", whole, $"{lead}{n} (note: {note})")),
                    new("Any of them", whole, lead + string.Join(" or ", read.Concat(left))),
                ];
        return new EndQuestion(
            $"“{whole}” is taken for {string.Join(" or ", read)}, and {string.Join(" and ", left.Select(n => $"“{n}”"))} for something said of it. If the plant may be that as well, write “or” between them.",
            choices
        );
    }

    // The end with what speaks for itself blanked out: brackets that don't begin like another choice, and notes and synonyms with their
    // mark.
    private static string Explained(string end)
    {
        end = Bracketed().Replace(end, m => Another().IsMatch(m.Groups["inside"].Value) ? m.Value : new string(' ', m.Length));
        return Marked().Match(end) is { Success: true } marked ? end[..marked.Index] : end;
    }

    private static bool IsRead(TaxonName name, LeadDestination to)
    {
        var epithets = name.Name.Split(' ').Skip(1).ToList();
        // Also a parent of a hybrid that the name holds.
        if (to.Taxa.Any(t => epithets.TrueForAll(e => t.Name.Split(' ').Contains(e, StringComparer.Ordinal))))
            return true;
        return (to.Synonyms ?? []).Any(s => s.Contains(epithets[0], StringComparison.Ordinal));
    }

    private static bool IsOfGenus(TaxonName name, LeadDestination to) =>
        to.Taxa.Any(t =>
            t.Genus.Length > 0
            && (
                t.Genus == name.Genus
                || name.Genus.EndsWith('.') && t.Genus[0] == name.Genus[0]
                || t.Genus.EndsWith('.') && t.Genus[0] == name.Genus[0]
            )
        );

    [GeneratedRegex(@"\.{2,}|[…→⇒►▶⟶⇨➡\t]|[_]{3,}|[-–—=]{2,}>?|(?:\s\.){2,}|\s{4,}", RegexOptions.CultureInvariant)]
    private static partial Regex StrongLeader();

    [GeneratedRegex(@"(?<![\p{L}.])(?:\p{Lu}\p{Ll}{0,2}\.|\p{Lu}\p{Ll}{2,})\s+\p{Ll}[\p{Ll}-]{2,}", RegexOptions.CultureInvariant)]
    private static partial Regex Binomial();

    [GeneratedRegex(@"[(\[{](?<inside>[^()\[\]{}]*)[)\]}]", RegexOptions.CultureInvariant)]
    private static partial Regex Bracketed();

    // How another choice begins.
    [GeneratedRegex(
        @"^\s*(?:or|and|also|if|when|where|else|otherwise|rarely|sometimes|occasionally|perhaps|possibly|often|usually|mostly|&|\+|/)[\s,]",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Another();

    [GeneratedRegex(
        @"(?:[,;:.]|\s[–—-]|\s)\s*(?:(?:but\s+)?(?:see|compare|cf\.)\s|(?:a\s+)?synonym\s+of\s|syn\.|formerly\s|previously\s|also\s+called\s|aka\s|=|≡|incl\.|including\s|excl\.|excluding\s|not\s|non\s|note:)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Marked();

    // "as in Vellorna alba": a comparison, or what the plant grows on.
    [GeneratedRegex(
        @"\b(?:as|like|unlike|than|of|with|by|from|in|on|under|near|to|resembling|recalling|cf\.|see|and|or)\s+$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Comparing();

    // "2 or 3", "3 or Vellorna alba".
    [GeneratedRegex(@"^\s*[(\[]?\d{1,5}[a-h]?[)\]]?\s*(?:or|and|/|&|,)\s*(?:[(\[]?\d|\p{Lu})", RegexOptions.CultureInvariant)]
    private static partial Regex Numbers();
}
