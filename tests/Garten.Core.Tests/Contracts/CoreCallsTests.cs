using System.Text.Json;
using System.Text.Json.Nodes;
using Garten.Core.Characters;
using Garten.Core.Confirmation;
using Garten.Core.Contracts;
using Garten.Core.Identification;
using Garten.Core.Keys;
using Garten.Core.Quantities;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Testing;
using Xunit;

namespace Garten.Core.Tests.Contracts;

/// <summary>The calls of the core as both hosts serve them, and the words that pages show.</summary>
public sealed class CoreCallsTests
{
    [Fact]
    public void EachCallHasANameAndAnAddressOfItsOwn()
    {
        Assert.Equal(CoreCalls.All.Count, CoreCalls.All.Select(c => c.Name).Distinct(StringComparer.Ordinal).Count());
        var addresses = CoreCalls.All.Select(c => c.Address).OfType<string>().ToList();
        Assert.Equal(addresses.Count, addresses.Distinct(StringComparer.Ordinal).Count());
        Assert.All(CoreCalls.All, c => Assert.Equal(c.Need == CoreNeed.Flora, c.RequestType.IsAssignableTo(typeof(IFloraRequest))));
        Assert.All(CoreCalls.All, c => Assert.Equal(c.Need == CoreNeed.Shelf, c.RequestType.IsAssignableTo(typeof(IShelfRequest))));
        Assert.Throws<ArgumentException>(() => CoreCalls.Named("guess"));
    }

    [Fact]
    public void ACallAnswersJsonWithJson()
    {
        var session = new CoreSession();
        var answer = CoreCalls.Named("readKeyText").Answer("""{"text":"1a. Red ... Alvena alba\n1b. Blue ... Alvena nigra"}""", session);
        Assert.Single(JsonNode.Parse(answer)!["keys"]!.AsArray());
        Assert.Throws<JsonException>(() => CoreCalls.Named("readKeyText").Answer("null", session));
        Assert.Throws<JsonException>(() => CoreCalls.Named("readKeyText").Answer("{}", session));
        Assert.Throws<InvalidOperationException>(() => CoreCalls.Named("sift").Answer("""{"floraId":"isle"}""", session));
        Assert.Throws<RequestException>(() => CoreCalls.Named("walk").Answer("""{"start":"none","answers":[]}""", session));
    }

    [Fact]
    public void TheWebAppHasTheWordsOfThisCore()
    {
        var written = JsonNode.Parse(File.ReadAllText(Path.Combine(Repository.Root, "web", "src", "api", "words.json")));
        Assert.True(JsonNode.DeepEquals(PageWords.Json(), written), "web/src/api/words.json isn't current: npm --prefix web run types");
    }

    [Fact]
    public void EveryValueHasItsWord()
    {
        Assert.Equal(Enum.GetValues<Organ>().Order(), PageWords.Organs.Keys.Order());
        Assert.Equal(Enum.GetValues<Phenophase>().Order(), PageWords.Phases.Keys.Order());
        Assert.Equal(Enum.GetValues<Tool>().Order(), PageWords.Tools.Keys.Order());
        Assert.Equal(Enum.GetValues<Tool>().Order(), PageWords.ToBring.Keys.Order());
        Assert.Equal(Enum.GetValues<Tool>().Order(), PageWords.WithTool.Keys.Order());
        Assert.Equal(Enum.GetValues<Handling>().Order(), PageWords.Handlings.Keys.Order());
        Assert.Equal(Enum.GetValues<Handling>().Order(), PageWords.HandlingOfLook.Keys.Order());
        Assert.Equal(Enum.GetValues<Grade>().Order(), PageWords.Grades.Keys.Order());
        Assert.Equal(Enum.GetValues<CheckKind>().Order(), PageWords.Checks.Keys.Order());
        Assert.Equal(Enum.GetValues<StatementFit>().Order(), PageWords.StatementFits.Keys.Order());
        Assert.Equal(Enum.GetValues<BlockReason>().Order(), PageWords.BlockReasons.Keys.Order());
        Assert.Equal("no flower this year", PageWords.Of(Phenophase.Flower, PhaseStage.None));
    }

    [Theory]
    [InlineData(0, "0 %")]
    [InlineData(0.004, "under 1 %")]
    [InlineData(0.0099, "under 1 %")]
    [InlineData(0.01, "1 %")]
    [InlineData(0.126, "13 %")]
    [InlineData(0.9949, "99 %")]
    [InlineData(0.995, "over 99 %")]
    [InlineData(1, "100 %")]
    public void AProbabilityIsSaidInWholePerCentAndNoMoreIsClaimedAtTheEnds(double probability, string words) =>
        Assert.Equal(words, Percent.OfProbability(probability));

    [Theory]
    [InlineData(10, "strongly for")]
    [InlineData(9.99, "clearly for")]
    [InlineData(3, "clearly for")]
    [InlineData(1.5, "slightly for")]
    [InlineData(1.4, "hardly counts")]
    [InlineData(1 / 1.6, "slightly against")]
    [InlineData(0.09, "strongly against")]
    public void HowMuchALookCountsIsSaidInWords(double ratio, string words) =>
        Assert.Equal(words, new SiftReason("c", "", "", Fit.Fits, Math.Log(ratio), "").InWords);

    [Fact]
    public void ASplitOfManyOutcomesIsDrawnWithTheRareOnesTogether()
    {
        TellingLook Look(params double[] shares) =>
            new("c", 1, 5, [.. shares.Select((s, i) => new SplitPart($"s{i}", $"s{i}", i, s, [], 0))], "");
        Assert.Equal(["s0", "s1", "s2", "s3"], Look(0.1, 0.2, 0.3, 0.4).Branches.Select(b => b.Words));
        var many = Look(0.1, 0.3, 0.05, 0.35, 0.2).Branches;
        Assert.Equal(["s1", "s3", "s4", "2 others"], many.Select(b => b.Words));
        Assert.Equal((0.15, "15 %", null), (Math.Round(many[^1].Share, 12), many[^1].ShareInWords, many[^1].Place));
    }

    [Fact]
    public void RangesOfARowStandOnOneAxis()
    {
        ContrastValue Of(double low, double high) => new("", [], new QuantityRange(QuantityKind.Length, RangeForm.Between, low, high));
        // By length where the largest is no more than four times the least.
        var near = RangeMark.Placed([Of(10, 20), new ContrastValue("", [], null), Of(20, 40)]);
        Assert.Equal((0, 1 / 3d), (near[0].Mark!.Low, near[0].Mark!.High));
        Assert.Null(near[1].Mark);
        Assert.Equal((1 / 3d, 1), (near[2].Mark!.Low, near[2].Mark!.High));
        // By ratio beyond: 10 lies half way from 1 to 100.
        Assert.Equal(0.5, RangeMark.Placed([Of(1, 10), Of(10, 100)])[0].Mark!.High, 12);
        // One and the same value has no length.
        Assert.Equal(0, RangeMark.Placed([Of(5, 5), Of(5, 5)])[1].Mark!.High);
    }

    [Fact]
    public void TheFloraToBeginWithIsTheLargestThatIsPublished()
    {
        FloraSummary Flora(string id, int version, int taxa) => new(id, id, version, taxa, 1, null);
        string? First(params FloraSummary[] floras) => FloraSummary.WithDefault(floras).SingleOrDefault(f => f.IsDefault)?.Id;
        Assert.Equal("b", First(Flora("a", 1, 10), Flora("b", 2, 20), Flora("draft", 0, 900)));
        Assert.Equal("draft", First(Flora("draft", 0, 900), Flora("small draft", 0, 9)));
        Assert.Null(First());
    }

    [Fact]
    public void AnotherKeyIsProposedWhereAtMostHalfAsMuchIsBlocked()
    {
        KeyOutlook Key(string hash, int blocked, int taxa = 100) =>
            new(hash, hash, 10, taxa, blocked == 0 ? [] : [new BlockedCouplet(hash, hash, "1", BlockReason.Season, [], blocked)], blocked);
        string? Better(string of, params KeyOutlook[] keys) =>
            KeyOutlook.WithBetter(keys, [.. keys.Select(k => k.KeyVersion).Where(h => h != "part")]).First(k => k.KeyVersion == of).Better;
        Assert.Equal("b", Better("a", Key("a", 50), Key("b", 20)));
        Assert.Null(Better("a", Key("a", 50), Key("b", 25)));
        Assert.Null(Better("a", Key("a", 0), Key("b", 0)));
        // A key that is only a part of others isn't proposed.
        Assert.Null(Better("a", Key("a", 50), Key("part", 0)));
    }
}
