using Garten.Core.Characters;
using Garten.Core.Language;

namespace Garten.Core.Keys;

/// <summary>Something about a couplet that can't be meant so.</summary>
/// <param name="Couplet">Label of the couplet.</param>
/// <param name="Lead">Number of the lead, from 1; 0 for the couplet as a whole.</param>
/// <param name="Message">What is wrong, as a sentence.</param>
public sealed record CoupletProblem(string Couplet, int Lead, string Message)
{
    /// <summary>Looks through the leads of a couplet: one that contradicts itself, and several that say the same.</summary>
    /// <param name="couplet">The couplet.</param>
    /// <param name="readings">Per lead its statements as they are read.</param>
    /// <param name="find">Finds characters.</param>
    public static IReadOnlyList<CoupletProblem> Of(
        Couplet couplet,
        IReadOnlyList<IReadOnlyList<StatementReading>> readings,
        Func<string, Character?> find
    )
    {
        ArgumentNullException.ThrowIfNull(couplet);
        ArgumentNullException.ThrowIfNull(readings);
        ArgumentNullException.ThrowIfNull(find);
        List<CoupletProblem> found = [];
        for (var l = 0; l < readings.Count; l++)
        {
            var claims = readings[l].SelectMany((r, i) => r.Claims.Select(c => (Claim: c, Statement: i))).ToList();
            foreach (var (first, second) in Pairs(claims))
            {
                // Within a statement the reader has made up its mind.
                if (
                    first.Statement != second.Statement
                    && first.Claim.Character == second.Claim.Character
                    && first.Claim.Age == second.Claim.Age
                    && find(first.Claim.Character) is { } character
                    && Excludes(character, first.Claim, second.Claim)
                )
                    found.Add(
                        new(
                            couplet.Label,
                            l + 1,
                            $"It contradicts itself: “{ClaimWords.Of(first.Claim, character)}” "
                                + $"and “{ClaimWords.Of(second.Claim, character)}”."
                        )
                    );
            }
        }
        for (var a = 0; a < couplet.Leads.Count; a++)
        {
            for (var b = a + 1; b < couplet.Leads.Count; b++)
            {
                if (Plain(couplet.Leads[a]) == Plain(couplet.Leads[b]))
                    found.Add(new(couplet.Label, 0, $"Leads {a + 1} and {b + 1} say the same."));
                else if (Sign(readings[a]) is { Length: > 0 } sign && sign == Sign(readings[b]))
                    found.Add(
                        new(couplet.Label, 0, $"Leads {a + 1} and {b + 1} are read alike: what is weighed of them doesn't part them.")
                    );
            }
        }
        return found;
    }

    private static IEnumerable<(T First, T Second)> Pairs<T>(List<T> of) =>
        of.SelectMany((first, i) => of.Skip(i + 1).Select(second => (first, second)));

    private static bool Excludes(Character character, StatementClaim one, StatementClaim other)
    {
        // "Usually" leaves room for both.
        if (Math.Min(one.Modality, other.Modality) < Modality.AlwaysInKeys)
            return false;
        if (one.Range is { } a && other.Range is { } b)
            return a.IsApart(b);
        return one.States.Count > 0 && other.States.Count > 0 && !one.States.Any(s => other.States.Any(o => character.MayBe(s, o)));
    }

    private static string Plain(Lead lead) =>
        string.Join(
            ';',
            lead.Statements.Select(s => string.Join(' ', s.ToLowerInvariant().Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)))
        );

    private static string Sign(IReadOnlyList<StatementReading> lead) =>
        string.Join(
            ';',
            lead.SelectMany(r => r.Claims)
                .Select(c => $"{c.Character}={string.Join('|', c.States)}{c.Range?.Low}-{c.Range?.High}{c.Age}")
                .Order(StringComparer.Ordinal)
        );
}
