using System.Text.RegularExpressions;
using Garten.Core.Characters;
using Garten.Core.Quantities;

namespace Garten.Core.Floras;

/// <summary>
/// A cell of a description as it is typed: <c>ovate | usually elliptic | rarely lanceolate</c>, <c>!serrate</c> (often misread so),
/// <c>(4–)6–9(–13)</c>, <c>5–8 cm @shade 9–14 cm</c>, <c>hairless @young densely hairy</c> (in another context, see
/// <see cref="ContextWords"/>), <c>both simple and forked</c> (on one plant together), <c>-</c> (not applicable), <c>?</c> (unknown).
/// </summary>
public static partial class DescriptionCell
{
    /// <summary>Share of scorings in which a state marked with "!" is taken for what the plant has.</summary>
    public const double MisreadShare = 0.2;

    // Before states that stand on one plant together.
    private const string BothMark = "both ";

    private static readonly HashSet<string> UnknownWords = new(StringComparer.OrdinalIgnoreCase)
    {
        "",
        "?",
        "na",
        "nan",
        "null",
        "unknown",
        "not known",
        "n.d.",
        "nd",
        ".",
        "not recorded",
    };

    private static readonly HashSet<string> NotApplicableWords = new(StringComparer.OrdinalIgnoreCase)
    {
        "-",
        "–",
        "—",
        "−",
        "n/a",
        "not applicable",
        "n.a.",
    };

    /// <summary>Whether a cell says nothing: it is empty, "?" or a usual word for a missing value.</summary>
    public static bool IsUnknown(string text) => UnknownWords.Contains((text ?? "").Trim());

    /// <summary>Whether a cell says that the taxon hasn't the part.</summary>
    public static bool IsNotApplicable(string text) => NotApplicableWords.Contains((text ?? "").Trim());

    /// <summary>Whether a cell is a bare dash, which tables mean in different ways.</summary>
    public static bool IsDash(string text) => (text ?? "").Trim() is "-" or "–" or "—" or "−";

    /// <summary>Reads a cell.</summary>
    /// <param name="text">What is typed.</param>
    /// <param name="character">The character it describes; lengths without a unit are in its unit.</param>
    /// <param name="problem">What is wrong; null where it is sound.</param>
    /// <returns>The description; null where it is unknown or can't be read.</returns>
    public static CharacterDescription? Read(string text, Character character, out string? problem)
    {
        ArgumentNullException.ThrowIfNull(text);
        ArgumentNullException.ThrowIfNull(character);
        problem = null;
        text = text.Trim();
        if (IsUnknown(text))
            return null;
        if (IsNotApplicable(text))
            return new CharacterDescription(character.Id, [], null, null, false);
        var marks = Mark().Matches(text).ToList();
        var usual = (marks.Count == 0 ? text : text[..marks[0].Index]).Trim();
        if (marks.Count > 0 && usual.Length == 0)
        {
            problem = "Say first what full-grown parts of a grown plant are like; “@” begins what is otherwise.";
            return null;
        }
        if (ReadPart(usual, character, out problem) is not { } cell)
            return null;
        var contexts = new List<ContextCell>();
        for (var i = 0; i < marks.Count; i++)
        {
            var mark = marks[i].Groups[1].Value;
            if (ContextWords.OfMark(mark) is not { } when)
            {
                problem = $"“@{mark}” is no context that is known here: {string.Join(", ", ContextWords.Marks.Select(m => "@" + m))}.";
                return null;
            }
            var from = marks[i].Index + marks[i].Length;
            var part = text[from..(i + 1 < marks.Count ? marks[i + 1].Index : text.Length)].Trim();
            if (contexts.Exists(c => c.When == when) || when == DescribedContext.Shade && cell.Shade is not null)
            {
                problem = $"“@{mark}” is said twice.";
                return null;
            }
            if (ReadPart(part, character, out problem) is not { } there)
            {
                problem ??= $"After “@{mark}” nothing is said.";
                return null;
            }
            if (when == DescribedContext.Shade && there.Range is not null)
                cell = cell with { Shade = there.Range };
            else
                contexts.Add(new ContextCell(when, there.States, there.Range));
        }
        return contexts.Count == 0 ? cell : cell with { Contexts = contexts };
    }

    [GeneratedRegex(@"(?:^|\s)@(\w+)", RegexOptions.CultureInvariant)]
    private static partial Regex Mark();

    private static CharacterDescription? ReadPart(string text, Character character, out string? problem)
    {
        problem = null;
        if (text.Length == 0)
            return null;
        return character.IsQuantity ? ReadRange(text, character, out problem) : ReadStates(text, character, out problem);
    }

    private static CharacterDescription? ReadRange(string text, Character character, out string? problem)
    {
        problem = null;
        var reading = RangeNotation.Read(text, character.Quantity, unit: MeasureUnit.Named(character.Unit));
        if (reading.Ranges.Count == 1)
            return new CharacterDescription(character.Id, [], reading.Ranges[0]);
        problem = reading.Problem is { } wrong
            ? $"{wrong.Message} (“{text}”, character {wrong.At + 1})"
            : $"“{text}” is two measures; one is wanted.";
        return null;
    }

    // "simple and forked": the states that stand together; null where these words are none.
    private static List<string>? Together(Character character, string words)
    {
        var parts = words.Split(" and ", StringSplitOptions.TrimEntries);
        var found = new List<string>();
        for (var i = 0; i < parts.Length; )
        {
            // A name of a state may hold an "and" itself: the longest that is one counts.
            var taken = 0;
            for (var n = parts.Length - i; n > 0 && taken == 0; n--)
            {
                if (Find(character, string.Join(" and ", parts.Skip(i).Take(n))) is not { } state)
                    continue;
                found.Add(state.Id);
                taken = n;
            }
            if (taken == 0)
                return null;
            i += taken;
        }
        return found.Count > 1 && found.Distinct(StringComparer.Ordinal).Count() == found.Count ? found : null;
    }

    // "a | often b": the words' shares belong to the states that have one; the others share what is left.
    private static CharacterDescription? ReadStates(string text, Character character, out string? problem)
    {
        problem = null;
        var found = new List<(string State, double? Share)>();
        var misread = new List<string>();
        var sets = new List<(List<string> States, double? Share)>();
        foreach (var part in text.Split('|', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            var isMisread = part[0] == '!';
            var said = isMisread ? part[1..].Trim() : part;
            var space = said.IndexOf(' ', StringComparison.Ordinal);
            var share = space > 0 && !isMisread ? Modality.Of(said[..space]) : null;
            var name = share is null ? said : said[(space + 1)..].Trim();
            if (Find(character, said) is { } whole)
                (name, share) = (whole.Id, null);
            if (Find(character, name) is null && name.StartsWith(BothMark, StringComparison.OrdinalIgnoreCase) && !isMisread)
            {
                if (Together(character, name[BothMark.Length..].Trim()) is not { } both)
                {
                    problem = $"“{name}”: after “both” two states of {character.Name} are wanted, with “and” between.";
                    return null;
                }
                sets.Add((both, share));
                continue;
            }
            if (
                Find(character, name) is null
                && Alternatives(name) is { Count: > 1 } several
                && several.All(s => Find(character, s) is not null)
            )
            {
                // "ovate/round": either of them, in equal parts of what the word says.
                foreach (var one in several.Select(s => Find(character, s)!.Id).Distinct(StringComparer.Ordinal))
                {
                    if (isMisread && !misread.Contains(one))
                        misread.Add(one);
                    else if (!isMisread && !found.Exists(f => f.State == one))
                        found.Add((one, share / several.Count));
                }
                continue;
            }
            if (Find(character, name) is not { } state)
            {
                problem = $"“{name}” is no state of {character.Name}: it has {string.Join(", ", character.States.Select(s => s.Name))}.";
                return null;
            }
            if (found.Exists(f => f.State == state.Id) || misread.Contains(state.Id))
            {
                problem = $"“{state.Name}” is given twice.";
                return null;
            }
            if (isMisread)
                misread.Add(state.Id);
            else
                found.Add((state.Id, share));
        }
        if (found.Count == 0 && sets.Count == 0)
        {
            problem = "It says only what the plant is mistaken for; say also what it has.";
            return null;
        }
        // Shares are of plants: "often" beside an unmarked state leaves that one the rest; words alone are brought to 1.
        var marked = found.Sum(f => f.Share ?? 0) + sets.Sum(s => s.Share ?? 0);
        var plain = found.Count(f => f.Share is null) + sets.Count(s => s.Share is null);
        var rest = plain == 0 ? 0 : Math.Max(1 - marked, Modality.Often) / plain;
        var total = marked + rest * plain;
        return new CharacterDescription(
            character.Id,
            [.. found.Select(f => new StateShare(f.State, (f.Share ?? rest) / total))],
            Misread: misread.Count > 0 ? misread : null,
            Sets: sets.Count > 0 ? [.. sets.Select(s => new StateSet(s.States, (s.Share ?? rest) / total))] : null
        );
    }

    /// <summary>
    /// The states that a cell names beside one another with a sign other than <c>|</c>: "ovate/round", "round; ovate", "linear &amp;
    /// round", "ovate or round".
    /// One where there is no such sign. Whether they are states is for the caller to say: "red/white" may be a pattern.
    /// </summary>
    public static IReadOnlyList<string> Alternatives(string part)
    {
        ArgumentNullException.ThrowIfNull(part);
        return Beside().Split(part).Select(p => p.Trim()).Where(p => p.Length > 0).ToList();
    }

    [GeneratedRegex(@"[/;,&+]|\s(?:or|oder|ou)\s", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex Beside();

    private static CharacterState? Find(Character character, string name) =>
        character.States.FirstOrDefault(s => string.Equals(s.Id, name, StringComparison.OrdinalIgnoreCase))
        ?? character.States.FirstOrDefault(s =>
            string.Equals(s.Name, name, StringComparison.OrdinalIgnoreCase) || s.Terms.Contains(name, StringComparer.OrdinalIgnoreCase)
        );
}
