using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Xunit;

namespace Garten.Formats.Tests.Torvane;

/// <summary>How many taps it takes on a phone from opening the program to a name that leads: a state a tap, always the one that is best to
/// check next.</summary>
public sealed class TapTests
{
    // To the room, and into naming by characters.
    private const int TapsToTheFirstLook = 2;
    private const int Plants = 60;
    private const int MostTaps = 8;
    private const int GivesUp = 30;

    // A plant is drawn of its taxon's description: each state as often as the description says.
    private static string? Draw(FloraColumns columns, string taxon, string character, Random random)
    {
        if (columns.Describe(taxon, character) is not { Applies: true, States: { Count: > 0 } states })
            return null;
        var at = random.NextDouble() * states.Sum(s => s.Share);
        return states.FirstOrDefault(s => (at -= s.Share) < 0)?.State ?? states[^1].State;
    }

    private static (int Taps, bool IsRight) Name(ReadyFlora flora, string taxon, Random random)
    {
        List<SiftObservation> seen = [];
        List<string> skipped = [];
        var columns = flora.Sifter.Columns;
        for (var taps = TapsToTheFirstLook; taps < GivesUp; taps++)
        {
            var answer = new SiftRequest("torvane", seen, new SiftRequestOptions(Date: "2027-06-12", Skip: skipped)).Sift(flora);
            var leader = answer.Standing.First(s => flora.Find(s.Taxon) is not null);
            if (answer.Call is RankingCall.Ahead or RankingCall.FarAhead)
                return (taps, leader.Taxon == taxon);
            // What has to be measured comes last, as on the page.
            if (answer.TellingLooks.FirstOrDefault(l => !columns.Find(l.Character)!.Character.IsQuantity) is not { } look)
                return (GivesUp, false);
            if (Draw(columns, taxon, look.Character, random) is { } state)
                seen.Add(new SiftObservation(look.Character, [state]));
            else
                skipped.Add(look.Character);
        }
        return (GivesUp, false);
    }

    [Fact]
    public void ANameLeadsAfterAtMostEightTapsInTheMedianOfSixtyPlants()
    {
        using var flora = TorvaneFlora.MakeReady();
        var random = new Random(20270612);
        var species = flora
            .Pack.Taxa.Where(t => t.Rank == "species" && flora.Sifter.Columns.IndexOf(t.Id) >= 0)
            .Select(t => t.Id)
            .ToArray();
        var named = Enumerable.Range(0, Plants).Select(_ => Name(flora, species[random.Next(species.Length)], random)).ToList();
        var taps = named.Select(n => n.Taps).Order().ToList();
        var median = taps[Plants / 2];
        TestContext.Current.TestOutputHelper!.WriteLine(
            $"median {median}, from {taps[0]} to {taps[^1]}; {named.Count(n => n.IsRight)} of {Plants} lead by the right name"
        );
        Assert.InRange(median, TapsToTheFirstLook + 1, MostTaps);
        Assert.True(named.Count(n => n.IsRight) >= Plants * 3 / 4, $"{named.Count(n => n.IsRight)} of {Plants} were right.");
    }
}
