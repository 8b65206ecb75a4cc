using System.Globalization;
using System.Text.RegularExpressions;
using Garten.Core.Language;
using Garten.Core.Quantities;

namespace Garten.Formats.Tests.Language;

/// <summary>A statement with what it means, made by hand.</summary>
/// <param name="Text">The statement.</param>
/// <param name="Claims">What it claims, in the notation of the gold files.</param>
internal sealed record GoldStatement(string Text, IReadOnlyList<string> Claims);

/// <summary>How a statement was read beside what it means.</summary>
/// <param name="Gold">The statement.</param>
/// <param name="Read">Its reading.</param>
/// <param name="Wrong">Claims that it doesn't make.</param>
/// <param name="Missed">Claims that weren't read.</param>
internal sealed record Judged(GoldStatement Gold, StatementReading Read, IReadOnlyList<StatementClaim> Wrong, IReadOnlyList<string> Missed)
{
    /// <summary>Whether all that was missed is among what is proposed.</summary>
    public bool IsOffered =>
        Missed.Count > 0 && Missed.All(m => (Read.Clauses ?? []).SelectMany(c => c.Proposals).Any(p => p.Any(c => GoldFile.Fits(m, c))));
}

/// <summary>Statements with their meaning: see the head of first.txt for the notation.</summary>
internal static partial class GoldFile
{
    /// <summary>The keys of a file: leads of statements.</summary>
    public static IReadOnlyList<IReadOnlyList<IReadOnlyList<GoldStatement>>> Keys(string file)
    {
        var text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "Language", file)).ReplaceLineEndings("\n");
        return
        [
            .. KeyEnd()
                .Split(text)
                .Select(key =>
                    (IReadOnlyList<IReadOnlyList<GoldStatement>>)
                        [
                            .. key.Split("\n\n", StringSplitOptions.RemoveEmptyEntries)
                                .Select(lead =>
                                    (IReadOnlyList<GoldStatement>)
                                        [
                                            .. lead.Split('\n', StringSplitOptions.RemoveEmptyEntries)
                                                .Where(l => !l.StartsWith('#') && l.Contains("=>", StringComparison.Ordinal))
                                                .Select(Statement),
                                        ]
                                )
                                .Where(l => l.Count > 0),
                        ]
                ),
        ];
    }

    /// <summary>Reads a file and holds every statement against its meaning.</summary>
    public static IReadOnlyList<Judged> Judge(GrammarReader reader, string file)
    {
        List<Judged> judged = [];
        foreach (var key in Keys(file))
        {
            var of = reader.ContextOf(key.SelectMany(l => l).Select(s => s.Text));
            foreach (var lead in key)
            {
                foreach (var (gold, read) in lead.Zip(reader.Read([.. lead.Select(s => s.Text)], of)))
                {
                    judged.Add(
                        new(
                            gold,
                            read,
                            [.. read.Claims.Where(c => !gold.Claims.Any(g => Fits(g, c)))],
                            [.. gold.Claims.Where(g => !read.Claims.Any(c => Fits(g, c)))]
                        )
                    );
                }
            }
        }
        return judged;
    }

    private static GoldStatement Statement(string line)
    {
        var parts = line.Split("=>");
        return new(parts[0].Trim(), parts[1].Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries));
    }

    /// <summary>Whether a claim is the one that is meant.</summary>
    public static bool Fits(string gold, StatementClaim claim)
    {
        var age = "Unsaid";
        if (gold.Split('~') is [var before, var after])
            (gold, age) = (before.Trim(), after.Trim());
        if (age != claim.Age.ToString())
            return false;
        if (gold.Contains("!=", StringComparison.Ordinal))
            return claim.Denied is { } denied && Same(gold.Split("!="), claim.Character, denied);
        if (gold.Contains('=', StringComparison.Ordinal))
            return claim.Denied is null && Same(gold.Split('='), claim.Character, claim.States);
        var space = gold.IndexOf(' ', StringComparison.Ordinal);
        if (claim.Range is not { } range || gold[..space] != claim.Character)
            return false;
        var bounds = gold[(space + 1)..].Split("..");
        return Near(bounds[0], range.Low, range.Form == RangeForm.UpTo) && Near(bounds[1], range.High, range.Form == RangeForm.MoreThan);
    }

    private static bool Same(string[] gold, string character, IReadOnlyList<string> states) =>
        gold[0].Trim() == character
        && gold[1].Split('|').Select(s => s.Trim()).Order(StringComparer.Ordinal).SequenceEqual(states.Order(StringComparer.Ordinal));

    // "c. 3 mm" is a tenth more or less; an open side is left out.
    private static bool Near(string bound, double read, bool isOpen)
    {
        const double circa = 0.11;
        return bound.Trim().Length == 0
            ? isOpen
            : Math.Abs(double.Parse(bound, CultureInfo.InvariantCulture) - read) <= circa * Math.Max(read, 1e-9);
    }

    /// <summary>A claim in the notation of the files.</summary>
    public static string Show(StatementClaim claim)
    {
        var value =
            claim.Range is { } r ? string.Create(CultureInfo.InvariantCulture, $" {r.Low:0.##}..{r.High:0.##}")
            : claim.Denied is { } denied ? "!=" + string.Join('|', denied)
            : "=" + string.Join('|', claim.States);
        return $"{claim.Character}{value}{(claim.Age == default ? "" : $"~{claim.Age}")}";
    }

    [GeneratedRegex("(?m)^----\n")]
    private static partial Regex KeyEnd();
}
