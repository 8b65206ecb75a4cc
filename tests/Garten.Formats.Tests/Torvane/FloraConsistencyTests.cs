using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Keys;
using Garten.Core.Language;
using Xunit;

namespace Garten.Formats.Tests.Torvane;

/// <summary>The demo's flora against itself and against its keys.</summary>
public sealed class FloraConsistencyTests(ITestOutputHelper output)
{
    // A lead may leave out one plant in twenty without a word.
    private const double LeastShare = 0.05;

    private static readonly IReadOnlyList<Taxon> Terminal = [.. TorvaneFlora.Taxa.Where(t => t.Rank is "species" or "hybrid")];

    [Fact]
    public void TheFloraIsAsLargeAndAsManySidedAsItSays()
    {
        Assert.Empty(TorvaneFlora.Written.Problems);
        Assert.True(Terminal.Count >= 64);
        Assert.True(TorvaneFlora.Taxa.Count(t => t.Rank == "genus") >= 24);
        Assert.True(TorvaneFlora.Taxa.Select(t => t.Family).Distinct().Count(f => f.Length > 0) >= 14);
        Assert.True(TorvaneFlora.Table.Characters.Count >= 90);
        Assert.True(TorvaneFlora.Table.Characters.Sum(c => c.States.Count) >= 300);
        Assert.True(TorvaneFlora.Keys.Count >= 12);
        Assert.Equal(2, TorvaneFlora.Taxa.Count(t => t.Rank == "hybrid"));
        Assert.Equal(2, TorvaneFlora.Taxa.Count(t => t.Rank == "aggregate"));
        Assert.True(TorvaneFlora.Taxa.Count(t => t.Facts!.IsSensitive) >= 3);
        Assert.Equal(2, TorvaneFlora.Taxa.Count(t => t.Cautions.Contains(Caution.Invasive)));
        Assert.Contains(TorvaneFlora.Taxa, t => t.Cautions.Contains(Caution.Allergenic));
    }

    [Fact]
    public void EveryLookAlikeIsOneBothWays()
    {
        foreach (var taxon in TorvaneFlora.Taxa)
        {
            foreach (var other in taxon.Facts!.LookAlikes)
                Assert.Contains(taxon.Id, TorvaneFlora.Taxa.Single(t => t.Id == other).Facts!.LookAlikes);
        }
    }

    [Fact]
    public void EveryTaxonIsReachedByAKeyAndItsWayDoesNotContradictIt()
    {
        var wrong = new List<string>();
        var reached = new HashSet<string>(StringComparer.Ordinal);
        foreach (var version in TorvaneFlora.Keys)
        {
            // Of several ways to a taxon one has to be sound: a variable one keys out more than once.
            var best = new Dictionary<string, List<string>>(StringComparer.Ordinal);
            foreach (var (name, contradictions) in Ways(version))
            {
                if (!best.TryGetValue(name, out var known) || contradictions.Count < known.Count)
                    best[name] = contradictions;
            }
            reached.UnionWith(best.Keys);
            wrong.AddRange(best.SelectMany(b => b.Value.Select(c => $"{version.Key.Title}, {b.Key}: {c}")));
        }
        wrong.AddRange(Terminal.Where(t => !reached.Contains(t.Name)).Select(t => $"{t.Name} is in no key"));
        foreach (var it in wrong)
            output.WriteLine(it);
        Assert.Empty(wrong);
    }

    // Every way through the keys to an end that the flora describes, with what its leads say against that taxon.
    private static IEnumerable<(string Name, List<string> Contradictions)> Ways(KeyVersion start)
    {
        var bench = TorvaneFlora.Shelf;
        var ways = new Stack<(KeyVersion Version, string Couplet, List<(string At, StatementClaim Claim)> Claims)>([
            (start, start.Key.Couplets[0].Label, []),
        ]);
        while (ways.TryPop(out var at))
        {
            var couplet = at.Version.Find(at.Couplet)!;
            var readings = bench.Readings(at.Version, at.Couplet);
            for (var l = 0; l < couplet.Leads.Count; l++)
            {
                var claims = at
                    .Claims.Concat(
                        readings[l]
                            .SelectMany(r => r.Claims)
                            .Select(c => (At: $"{at.Version.Key.Title} {at.Couplet}{(char)('a' + l)}", Claim: c))
                    )
                    .ToList();
                var to = couplet.Leads[l].Destination!;
                if (to.Kind == DestinationKind.Couplet)
                    ways.Push((at.Version, to.Target, claims));
                else if (to.Kind != DestinationKind.Taxon)
                    ways.Push(
                        (
                            bench.Keys.Resolve(to.Target, at.Version)[0],
                            bench.Keys.Resolve(to.Target, at.Version)[0].Key.Couplets[0].Label,
                            claims
                        )
                    );
                else if (
                    bench.Keys.Recognise(to.Target) is { } taxon
                    && bench.Descriptions.FirstOrDefault(d => d.Taxon == taxon.Id) is { } own
                )
                {
                    yield return (
                        taxon.Name,
                        [
                            .. claims
                                .Where(c =>
                                    own.Characters.FirstOrDefault(x => x.Character == c.Claim.Character) is { } cell
                                    && Contradicts(cell, c.Claim)
                                )
                                .Select(c =>
                                    $"{c.At} says {c.Claim.Character} = {c.Claim.Range?.Text ?? string.Join(", ", c.Claim.States)}"
                                ),
                        ]
                    );
                }
            }
        }
    }

    private static bool Contradicts(CharacterDescription own, StatementClaim claim)
    {
        if (!own.Applies)
            return true;
        if (claim.Range is null)
            return own.States.Where(s => claim.States.Contains(s.State)).Sum(s => s.Share) < LeastShare;
        if (own.Range is not { } range)
            return true;
        var (from, to) = claim.Range.Cut();
        return (range.HighExtreme ?? range.High) < from || (range.LowExtreme ?? range.Low) > to;
    }

    [Fact]
    public void AnyTwoTaxaHaveACharacterThatSeparatesThem()
    {
        var bench = TorvaneFlora.Shelf;
        var descriptions = bench.Descriptions.Where(d => Terminal.Any(t => t.Id == d.Taxon)).ToList();
        var alike = new List<string>();
        for (var i = 0; i < descriptions.Count; i++)
        {
            for (var j = i + 1; j < descriptions.Count; j++)
            {
                bool Separates(Character c) => Separation.Of(c, Of(descriptions[i], c), Of(descriptions[j], c), bench.Likelihood) >= 0.7;
                if (!TorvaneFlora.Table.Characters.Any(Separates))
                    alike.Add($"{descriptions[i].Taxon} and {descriptions[j].Taxon}");
            }
        }
        foreach (var it in alike)
            output.WriteLine(it);
        Assert.Empty(alike);

        static CharacterDescription? Of(TaxonDescription description, Character character) =>
            description.Characters.FirstOrDefault(c => c.Character == character.Id);
    }
}
