using System.Globalization;
using System.Text.RegularExpressions;
using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Language;
using Garten.Core.Quantities;

namespace Garten.Core.Keys;

/// <summary>A look as it was typed in words.</summary>
/// <param name="Character">The character.</param>
/// <param name="States">The states: one, or several of which it is one or the other; empty for readings.</param>
/// <param name="Readings">The readings; empty for states.</param>
/// <param name="Age">How old the part was.</param>
/// <param name="InWords">What would be recorded, in words.</param>
public sealed record TypedLook(
    Character Character,
    IReadOnlyList<string> States,
    IReadOnlyList<Reading> Readings,
    PartAge Age,
    string InWords
);

/// <summary>A piece of what was typed that isn't read, or could be read in several ways.</summary>
/// <param name="Text">The piece as typed.</param>
/// <param name="Choices">Looks that it may mean; empty where it isn't read.</param>
public sealed record OpenLook(string Text, IReadOnlyList<TypedLook> Choices);

/// <summary>What was typed as looks.</summary>
/// <param name="Looks">What can be recorded.</param>
/// <param name="Open">What is to be chosen, or isn't read.</param>
public sealed record TypedLooks(IReadOnlyList<TypedLook> Looks, IReadOnlyList<OpenLook> Open);

/// <summary>Reads looks at a plant that are typed in words: "lvs glabrous beneath, petiole 12 14 15 mm". The same grammar as that of keys;
/// several numbers in a row are so many readings.</summary>
public static partial class LookReader
{
    // What is said to be rare isn't what was seen.
    private const double Seen = 0.5;

    /// <summary>Reads them.</summary>
    /// <param name="text">The words.</param>
    /// <param name="botany">Parts and qualities.</param>
    /// <param name="unit">Unit of lengths without one: mm, cm, m.</param>
    public static TypedLooks Read(string text, BotanyIndex botany, string unit = "")
    {
        ArgumentNullException.ThrowIfNull(text);
        ArgumentNullException.ThrowIfNull(botany);
        var reader = GrammarReader.Of(botany, []);
        // "12 14 15 mm" is read as one number, and its readings are put back afterwards.
        var series = new List<(string First, string All)>();
        var single = Series()
            .Replace(text, m =>
            {
                var last =
                    m.Groups["unit"].Success ? " " + m.Groups["unit"].Value
                    : unit.Length > 0 && m.Groups["more"].Captures.Count > 0 ? " " + unit
                    : "";
                var first = m.Groups["first"].Value + last;
                series.Add((first, Separators().Replace(m.Value, " ")));
                return first;
            });
        var statements = StatementSplitter.Split(single);
        var looks = new List<TypedLook>();
        var open = new List<OpenLook>();
        foreach (var reading in reader.Read(statements, reader.ContextOf(statements)))
        {
            foreach (var claim in reading.Claims)
            {
                if (LookOf(claim) is { } look && !looks.Exists(l => l.Character.Id == look.Character.Id && l.Age == look.Age))
                    looks.Add(look);
            }
            foreach (var clause in (reading.Clauses ?? []).Where(c => c.Kind != ClauseKind.Taken))
            {
                var piece = reading.Text.Substring(clause.At, clause.Length);
                open.Add(
                    new(
                        series.Aggregate(piece, (t, s) => t.Replace(s.First, s.All, StringComparison.Ordinal)),
                        [.. clause.Proposals.Where(p => p.Count == 1).Select(p => LookOf(p[0])).OfType<TypedLook>()]
                    )
                );
            }
        }
        return new(looks, open);

        TypedLook? LookOf(StatementClaim claim)
        {
            if (botany.Compose(claim.Character) is not { } character || claim.Modality < Seen)
                return null;
            var readings = claim.Range is { } range ? Readings(range, character, series) : [];
            if (character.IsQuantity && readings.Count == 0)
                return null;
            var said = character.IsQuantity
                ? string.Join(", ", readings.Select(r => ReadingText.Show(r.Value, character.Quantity)))
                : string.Join(" or ", claim.States.Select(s => character.States[character.IndexOf(s)].Name));
            return new(character, character.IsQuantity ? [] : claim.States, readings, claim.Age, $"{character.Name}: {said}");
        }
    }

    // As they were typed; of a range its two ends.
    private static IReadOnlyList<Reading> Readings(QuantityRange range, Character character, List<(string First, string All)> series)
    {
        if (range.Form is RangeForm.UpTo or RangeForm.MoreThan)
            return [];
        var typed = range.Text.Trim();
        var unit = MeasureUnit.Named(character.Kind == CharacterKind.Length ? "mm" : character.Unit);
        foreach (var text in new[] { series.Find(s => s.First == typed).All ?? typed, $"{Shown(range.Low)} {Shown(range.High)}" })
        {
            var line = ReadingText.Read(text, character.Quantity, unit, null);
            if (line.Problems.Count == 0 && line.Readings.Count > 0)
                return line.Readings;
        }
        return [];
    }

    private static string Shown(double value) => value.ToString("0.###", CultureInfo.InvariantCulture);

    [GeneratedRegex(
        @"(?<![\d.,–-])(?<first>\d+(?:\.\d+)?)"
            + @"(?<more>(?:\s+|\s*/\s*|\s*[,;]\s+)\d+(?:\.\d+)?(?![\d.]*\s*(?:[–×-]|\p{L}*-)))+"
            + @"(?:\s*(?<unit>mm|cm|m)\b)?",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Series();

    [GeneratedRegex(@"\s*[,;/]\s*|\s+", RegexOptions.CultureInvariant)]
    private static partial Regex Separators();
}
